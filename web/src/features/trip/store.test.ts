import { IDBFactory } from 'fake-indexeddb'
import 'fake-indexeddb/auto'
import { createPinia, setActivePinia, type Pinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, watch } from 'vue'
import { api, LinkDownError } from '@/shared/api/client'
import { useDeliveryStore } from './delivery/store'
import type { TripEvent } from './api'

const server = vi.hoisted(() => ({
  getTrip: vi.fn(),
  getFish: vi.fn(),
  getEvents: vi.fn(),
}))
vi.mock('./api', () => server)

interface FakeCore {
  asked: string[]
  tried: number[]
  events: Map<string, TripEvent>
  closed: boolean
  start(): void
  fail(): void
  die(): void
}
const cores: FakeCore[] = []
vi.mock('@/shared/core/client', () => ({
  createCoreClient({ died }: { died: (why: string) => void }) {
    const events = new Map<string, TripEvent>()
    let start = (): void => undefined
    let fail = (): void => undefined
    const started = new Promise<void>((resolve, reject) => {
      start = resolve
      fail = () => reject(new Error('no memory'))
    })
    started.catch(() => undefined)
    const put = (list: TripEvent[]): void => list.forEach((event) => events.has(event.id) || events.set(event.id, event))
    const core: FakeCore = {
      asked: [],
      tried: [],
      events,
      closed: false,
      start: () => start(),
      fail: () => fail(),
      die: () => died('out of memory'),
    }
    cores.push(core)
    return {
      started,
      close: () => (core.closed = true),
      async call(name: string, args: { event?: TripEvent; events?: TripEvent[]; speed_mps?: number }) {
        core.asked.push(name)
        if (name === 'lines_at') core.tried.push(args.speed_mps!)
        if (name === 'add') put([args.event!])
        if (name === 'open') events.clear()
        if (name === 'open' || name === 'merge') put(args.events!)
        if (name === 'replace') {
          events.clear()
          put(args.events!)
        }
        if (name === 'rods') return [{ id: 'rod-1', hits: events.size }]
        const undo_event_id = [...events.keys()].at(-1) ?? null
        return name === 'view' ? { hits: events.size, speed_mps: 0.8, rods: [], undo_event_id } : null
      },
    }
  },
}))
const { useTripStore } = await import('./store')
const { useLookAhead } = await import('./composables/useLookAhead')
const { dropCore } = await import('@/shared/core/host')

const trip = (id: string) => ({ id, clock_shift_s: 0, rest_after_s: null, started_at_s: 0, outfit: { rods: [] } })
const posted = vi.fn()
let stored: TripEvent[]
let pinia: Pinia

beforeEach(async () => {
  globalThis.indexedDB = new IDBFactory()
  // A late answer of the last test's stores must not make them the active ones.
  pinia = createPinia()
  cores.length = 0
  stored = []
  posted.mockReset().mockImplementation(async (_path: string, { body }: { body: { events: TripEvent[] } }) => {
    stored.push(...body.events)
    return {
      data: { added: body.events.map((event) => event.id), known: [] },
      response: new Response('{}', { headers: { 'X-Coldwake-Version': '1' } }),
    }
  })
  vi.spyOn(api, 'POST').mockImplementation(posted as never)
  server.getTrip.mockReset().mockImplementation(async (id: string) => trip(id))
  server.getFish.mockReset().mockResolvedValue({ hits: 0 })
  server.getEvents
    .mockReset()
    .mockImplementation(async (_id: string, after: number) => ({ events: stored.slice(after), after: stored.length }))
  await useDeliveryStore(pinia).belongTo('me')
})
afterEach(async () => {
  useTripStore(pinia).close()
  dropCore()
  await useDeliveryStore(pinia).belongTo(null)
  vi.restoreAllMocks()
})

async function ready(id = 'a') {
  const store = useTripStore(pinia)
  await store.open(id)
  cores.at(-1)!.start()
  await vi.waitFor(() => expect(store.coreReady).toBe(true))
  return store
}
const hit = (store: ReturnType<typeof useTripStore>) => store.record('hit', { rod_id: 'rod-1' })

describe('the open trip', () => {
  it('paints what the server says before a core is started', async () => {
    const frames: FrameRequestCallback[] = []
    vi.spyOn(globalThis, 'requestAnimationFrame').mockImplementation((act) => frames.push(act))
    const store = useTripStore(pinia)
    const opening = store.open('a')
    await vi.waitFor(() => expect(frames).toHaveLength(1))
    expect(store.view).not.toBeNull()
    expect(cores).toHaveLength(0)
    frames[0]!(0)
    await opening
    expect(cores).toHaveLength(1)
  })

  it('asks for the speeds next to this one before a finger does, and no longer than a page looks', async () => {
    setActivePinia(pinia)
    await ready()
    const { tried } = cores.at(-1)!
    const page = effectScope()
    page.run(useLookAhead)
    await vi.waitFor(() => expect(tried.length).toBeGreaterThan(2))
    // 0.8 m/s is 1.8 mph: the nearest tenths come first.
    expect(tried.slice(0, 3).map((mps) => Math.round((mps / 0.44704) * 10))).toEqual([17, 19, 16])
    page.stop()
    const before = tried.length
    await new Promise((resolve) => setTimeout(resolve, 400))
    expect(tried).toHaveLength(before)
  })

  it('shows a tap on its rod at once, before all else is weighed', async () => {
    const store = await ready()
    const seen: unknown[] = []
    const stop = watch(
      () => store.view,
      (view) => seen.push(view),
      { flush: 'sync' },
    )
    await hit(store)
    stop()
    expect(seen).toMatchObject([
      { hits: 0, rods: [{ hits: 1 }] },
      { hits: 1, rods: [] },
    ])
  })

  it('takes back what was tapped last, however soon after it', async () => {
    const store = await ready()
    void hit(store)
    await store.undo()
    const sent = [...cores.at(-1)!.events.values()]
    expect(sent.map((event) => event.type)).toEqual(['hit', 'undone'])
    expect(sent[1]!.payload).toEqual({ event_id: sent[0]!.id })
  })

  it('keeps a tap that is made while others are being fetched', async () => {
    const store = await ready()
    let answer: (page: unknown) => void = () => undefined
    server.getEvents.mockImplementationOnce(() => new Promise((resolve) => (answer = resolve)))
    window.dispatchEvent(new Event('focus'))
    await hit(store)
    expect(store.view).toMatchObject({ hits: 1 })
    answer({ events: [], after: 0 })
    await new Promise((resolve) => setTimeout(resolve, 20))
    expect(store.view).toMatchObject({ hits: 1 })
    expect(cores[0]!.events.size).toBe(1)
  })

  it('takes a tap that is made while the core starts into the core', async () => {
    const store = useTripStore(pinia)
    await store.open('a')
    const tapped = hit(store)
    cores[0]!.start()
    await tapped
    await vi.waitFor(() => expect(store.coreReady).toBe(true))
    expect(cores[0]!.events.size).toBe(1)
  })

  it('shows no older answer of the server over a newer one', async () => {
    const store = useTripStore(pinia)
    await store.open('a')
    cores[0]!.fail()
    await vi.waitFor(() => expect(store.coreFailed).toBe(true))
    let late = (_view: object): void => undefined
    server.getFish.mockImplementationOnce(() => new Promise((resolve) => (late = resolve)))
    const first = hit(store)
    await vi.waitFor(() => expect(stored).toHaveLength(1))
    await vi.waitFor(() => expect(server.getFish).toHaveBeenCalledTimes(3))
    server.getFish.mockResolvedValueOnce({ hits: 2 })
    await hit(store)
    expect(store.view).toMatchObject({ hits: 2 })
    late({ hits: 1 })
    await first
    expect(store.view).toMatchObject({ hits: 2 })
  })

  it('keeps a tap of the page before, however its delivery falls into the opening', async () => {
    const delivery = useDeliveryStore(pinia)
    const event = { id: 'e-1', type: 'hit', at_s: 10, payload: { rod_id: 'rod-1' } } as unknown as TripEvent
    let arrive = (): void => undefined
    const onItsWay = new Promise<void>((resolve) => (arrive = resolve))
    const accept = posted.getMockImplementation()!
    posted.mockImplementation(async (...args) => {
      await onItsWay
      return accept(...args)
    })
    const left = delivery.keep('a', event)
    await vi.waitFor(() => expect(posted).toHaveBeenCalled())
    const store = useTripStore(pinia)
    await store.open('a')
    // The server was asked before the tap arrived, and the tap has left the queue before the core starts.
    await vi.waitFor(() => expect(server.getEvents).toHaveBeenCalled())
    arrive()
    await left
    await vi.waitFor(async () => expect(await delivery.waiting('a')).toHaveLength(0))
    cores.at(-1)!.start()
    await vi.waitFor(() => expect(store.coreReady).toBe(true))
    expect([...cores.at(-1)!.events.keys()]).toEqual(['e-1'])
  })

  it('shows nothing of a trip that is left while it opens', async () => {
    const store = useTripStore(pinia)
    let answer: (document: unknown) => void = () => undefined
    server.getTrip.mockImplementationOnce(() => new Promise((resolve) => (answer = resolve)))
    const opening = store.open('a')
    store.close()
    answer(trip('a'))
    await opening
    expect(store.trip).toBeNull()
    expect(store.coreReady).toBe(false)
  })

  it('goes from page to page and from trip to trip with one core, which has only the open one', async () => {
    const store = await ready('a')
    await hit(store)
    await vi.waitFor(() => expect(stored).toHaveLength(1))
    store.close()
    stored = []
    await store.open('b')
    await vi.waitFor(() => expect(store.coreReady).toBe(true))
    expect(cores).toHaveLength(1)
    expect(store.view).toMatchObject({ hits: 0 })
    await hit(store)
    expect(store.view).toMatchObject({ hits: 1 })
  })

  it('stops the core of one who logs out', async () => {
    await ready()
    dropCore()
    expect(cores[0]!.closed).toBe(true)
  })

  it('starts another core after one that could not start', async () => {
    const store = useTripStore(pinia)
    await store.open('a')
    cores[0]!.fail()
    await vi.waitFor(() => expect(store.coreFailed).toBe(true))
    store.close()
    await ready('a')
    expect(cores).toHaveLength(2)
  })

  it('shows the trip that was opened last, however the answers come', async () => {
    const store = useTripStore(pinia)
    let answer: (document: unknown) => void = () => undefined
    server.getTrip.mockImplementationOnce(() => new Promise((resolve) => (answer = resolve)))
    const first = store.open('a')
    await store.open('b')
    answer(trip('a'))
    await first
    expect(store.trip?.id).toBe('b')
    expect(cores.filter((core) => !core.closed)).toHaveLength(1)
  })

  it('starts the core again when it dies, with all that was tapped', async () => {
    const store = await ready()
    await hit(store)
    cores[0]!.die()
    expect(store.coreReady).toBe(false)
    expect(cores).toHaveLength(2)
    cores[1]!.start()
    await vi.waitFor(() => expect(store.coreReady).toBe(true))
    expect(cores[1]!.events.size).toBe(1)
    // But not in a circle.
    cores[1]!.die()
    expect(cores).toHaveLength(2)
  })

  it('keeps a tap whose trip is left at once', async () => {
    const store = await ready()
    posted.mockRejectedValue(new LinkDownError('down'))
    const tapped = hit(store)
    store.close()
    await tapped
    expect(await useDeliveryStore(pinia).waiting('a')).toHaveLength(1)
  })

  it('shows a tap when it is kept and not before', async () => {
    const store = await ready()
    const delivery = useDeliveryStore(pinia)
    const really = delivery.keep
    let write = (): void => undefined
    const allowed = new Promise<void>((resolve) => (write = resolve))
    delivery.keep = async (...tap) => {
      await allowed
      await really(...tap)
    }
    const tapped = hit(store)
    await vi.waitFor(() => expect(cores.at(-1)!.asked).toContain('rods'))
    await new Promise((resolve) => setTimeout(resolve, 20))
    expect(store.view).toMatchObject({ hits: 0 })
    write()
    await tapped
    expect(store.view).toMatchObject({ hits: 1 })
  })

  it('says nothing of a tap to whoever asks or looks before it is kept', async () => {
    const store = await ready()
    const delivery = useDeliveryStore(pinia)
    const really = delivery.keep
    let write = (): void => undefined
    const allowed = new Promise<void>((resolve) => (write = resolve))
    delivery.keep = async (...tap) => {
      await allowed
      await really(...tap)
    }
    const tapped = hit(store)
    await vi.waitFor(() => expect(cores.at(-1)!.asked).toContain('rods'))
    const asked = store.ask('view', { now_s: 0 }, () => Promise.reject(new Error('there is a core')))
    void store.refresh()
    const told = vi.fn()
    void asked.then(told)
    await new Promise((resolve) => setTimeout(resolve, 20))
    expect(told).not.toHaveBeenCalled()
    expect(store.view).toMatchObject({ hits: 0 })
    write()
    await tapped
    expect(await asked).toMatchObject({ hits: 1 })
  })

  it('tells a dialog what stopped its act before it could be recorded', async () => {
    const store = await ready()
    const said = await store.attempt(() => Promise.reject(new Error('NOT KEPT: there is no room for the photo.')))
    expect(said).toContain('no room for the photo')
    // The next failure is no dialog's any more.
    store.report(new Error('something else'))
    expect(store.notice?.text).toContain('something else')
  })

  it('stamps no two taps alike, so that they keep their order', async () => {
    const store = await ready()
    await Promise.all([hit(store), hit(store), hit(store)])
    await useDeliveryStore(pinia).flush()
    const times = stored.map((event) => event.at_s)
    expect(new Set(times).size).toBe(3)
    expect([...times].sort((a, b) => a - b)).toEqual(times)
  })

  it('begins anew when the server has been put back to an earlier copy', async () => {
    const store = await ready()
    await hit(store)
    await useDeliveryStore(pinia).flush()
    window.dispatchEvent(new Event('focus'))
    await vi.waitFor(() => expect(server.getEvents).toHaveBeenLastCalledWith('a', 0))
    stored = []
    window.dispatchEvent(new Event('focus'))
    await vi.waitFor(() => expect(server.getEvents.mock.calls.at(-1)).toEqual(['a', 0]))
    expect(store.notice).toBeNull()
  })

  it('takes what was refused out of what is shown, and says so', async () => {
    const store = await ready()
    posted.mockImplementation(async () => ({
      error: { code: 'invalid_input', field: 'events[0].payload.rod_id', message: 'no such rod' },
      response: new Response('{}', { status: 422, headers: { 'X-Coldwake-Version': '1' } }),
    }))
    await hit(store)
    await vi.waitFor(() => expect(store.view).toMatchObject({ hits: 0 }))
    expect(useDeliveryStore(pinia).notTaken).toMatchObject([{ field: 'payload.rod_id', message: 'no such rod' }])
    expect(store.notice?.text).toContain('not taken')
  })
})
