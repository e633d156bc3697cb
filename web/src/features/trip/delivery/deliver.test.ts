import { IDBFactory } from 'fake-indexeddb'
import 'fake-indexeddb/auto'
import { openDB } from 'idb'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { LinkDownError, SignedOutError, take } from '@/shared/api/client'
import { CoreError } from '@/shared/core/protocol'
import { BATCH, FIRST_RETRY_MS, LAST_RETRY_MS, makeDeliverer, namedEvent, type Progress } from './deliver'
import { memoryOutbox, openOutbox, UNKNOWN_OWNER, type Outbox, type TripEvent } from './outbox'

const event = (id: string, at = 1000): TripEvent => ({ id, at_s: at, type: 'hit', payload: { rod_id: 'rod-1' } })
const OURS = { 'X-Coldwake-Version': '1' }

/** What `take` makes of an answer: the very road that delivery's answers come by. */
function answered(status: number, body: unknown = {}, headers: Record<string, string> = OURS): Promise<never> {
  const response = new Response([204, 304].includes(status) ? null : JSON.stringify(body), { status, headers })
  return take(Promise.resolve(response.ok ? { data: body, response } : { error: body, response })) as Promise<never>
}
const refusal = (status: number, field: string, code = 'invalid_input') => answered(status, { code, field, message: 'no', reason: '' })

let outbox: Outbox
let seen: Progress[]
let skew: number | null
const post = vi.fn()
const start = vi.fn()
const changed = vi.fn()
const made: { close(): void }[] = []

function deliverer(owner = 'me', alone?: (act: () => Promise<void>) => Promise<boolean>) {
  const one = makeDeliverer({
    outbox,
    owner,
    post,
    start,
    skewS: () => skew,
    changed,
    progress: (now) => void seen.push(now),
    alone: alone ?? (async (act) => (await act(), true)),
  })
  made.push(one)
  return one
}
const keep = (id: string, tripId = 't', owner = 'me', at = 1000) => outbox.put({ owner, tripId, event: event(id, at), skewS: skew })
const ids = async (owner = 'me') => (await outbox.waiting(owner)).map((row) => row.event.id)
const refused = async () => (await outbox.notTaken('me')).map((row) => row.id)
const acknowledge = async (_: string, events: TripEvent[]) => ({ added: events.map((item) => item.id), known: [] })

beforeEach(async () => {
  globalThis.indexedDB = new IDBFactory()
  outbox = await openOutbox()
  seen = []
  skew = 0
  post.mockReset()
  start.mockReset()
  changed.mockReset()
})
afterEach(() => {
  made.splice(0).forEach((one) => one.close())
  outbox.close()
  vi.useRealTimers()
})

describe('a tap is never lost', () => {
  // Status, body, headers: what of five taps stays waiting, what goes to the list of those not taken.
  const TABLE: [string, () => Promise<never>, number, number, Progress['state']][] = [
    ['401', () => answered(401), 5, 0, 'signed_out'],
    ['403', () => answered(403), 5, 0, 'held'],
    ['404', () => answered(404), 5, 0, 'held'],
    ['400', () => answered(400), 5, 0, 'held'],
    ['408', () => answered(408), 5, 0, 'down'],
    ['413', () => answered(413), 5, 0, 'held'],
    ['425', () => answered(425), 5, 0, 'down'],
    ['429', () => answered(429, {}, { ...OURS, 'Retry-After': '7' }), 5, 0, 'down'],
    ['500', () => answered(500), 5, 0, 'down'],
    ['502 of a proxy', () => answered(502, '', {}), 5, 0, 'down'],
    ['503', () => answered(503), 5, 0, 'down'],
    ['403 of a proxy', () => answered(403, '', {}), 5, 0, 'down'],
    ['422 of a proxy', () => answered(422, { field: 'events[0]' }, {}), 5, 0, 'down'],
    ['200 of a portal', () => answered(200, '<html>', {}), 5, 0, 'down'],
    ['204 of a portal', () => answered(204, null, {}), 5, 0, 'down'],
    ['200 that acknowledges nothing', () => answered(200, { added: [], known: [] }), 5, 0, 'down'],
    ['no answer', () => Promise.reject(new LinkDownError('down')), 5, 0, 'down'],
    ['a broken answer', () => Promise.reject(new SyntaxError('JSON')), 5, 0, 'down'],
    ['422 that names no event', () => refusal(422, 'events'), 5, 0, 'held'],
    ['409 that names no event', () => refusal(409, ''), 5, 0, 'held'],
    ['422 that names an event that is none of these', () => refusal(422, 'events[9].id'), 5, 0, 'held'],
    ['422 that names each', () => refusal(422, 'events[0].payload.rod_id'), 0, 5, 'kept'],
    ['409 that names each', () => refusal(409, 'events[0].id', 'conflict'), 0, 5, 'kept'],
  ]

  it.each(TABLE)('%s', async (_, answer, waiting, notTaken, state) => {
    for (const id of ['a', 'b', 'c', 'd', 'e']) await keep(id)
    post.mockImplementation(answer)
    await deliverer().flush()
    expect(await ids()).toHaveLength(waiting)
    expect(await refused()).toHaveLength(notTaken)
    expect(seen.at(-1)).toMatchObject({ state, waiting, notTaken })
    // And when it answers as it should, all that waited arrives, in its order.
    post.mockReset().mockImplementation(acknowledge)
    await deliverer().flush()
    expect(await ids()).toEqual([])
    expect(post.mock.calls.flatMap(([, events]) => (events as TripEvent[]).map((item) => item.id))).toHaveLength(waiting)
  })

  it('is with the server when its flush resolves, though it came at the very end of an earlier one', async () => {
    post.mockImplementation(acknowledge)
    let reached!: () => void
    let letGo!: () => void
    const atItsEnd = new Promise<void>((resolve) => (reached = resolve))
    const held = new Promise<void>((resolve) => (letGo = resolve))
    const one = deliverer('me', async (act) => {
      await act()
      reached()
      await held
      return true
    })
    await keep('a')
    const first = one.flush()
    await atItsEnd
    await keep('b')
    const second = one.flush()
    letGo()
    await Promise.all([first, second])
    expect(await ids()).toEqual([])
    expect(post.mock.calls.flatMap(([, events]) => (events as TripEvent[]).map((item) => item.id))).toEqual(['a', 'b'])
  })

  it.each([0, 1, 2, 3])('stopped dead after step %i of sending, every tap is delivered or kept', async (step) => {
    for (const id of ['a', 'b', 'c']) await keep(id)
    const server = new Set<string>()
    const acts: (keyof Outbox)[] = ['waiting', 'retime', 'remove', 'notTaken']
    const broken = { ...outbox, [acts[step]!]: () => Promise.reject(new Error('stopped')) } as Outbox
    post.mockImplementation(async (trip: string, events: TripEvent[]) => {
      events.forEach((item) => server.add(item.id))
      return acknowledge(trip, events)
    })
    const whole = outbox
    outbox = broken
    skew = 5
    await deliverer().flush()
    outbox = whole
    const kept = new Set([...(await ids()), ...server])
    expect([...kept].sort()).toEqual(['a', 'b', 'c'])
    await deliverer().flush()
    expect([...server].sort()).toEqual(['a', 'b', 'c'])
  })

  it('takes out the one event that is named and delivers the rest', async () => {
    for (const id of ['a', 'b', 'c']) await keep(id)
    post.mockImplementationOnce(() => refusal(422, 'events[1].payload.depth_m')).mockImplementation(acknowledge)
    await deliverer().flush()
    expect(await ids()).toEqual([])
    expect(await outbox.notTaken('me')).toMatchObject([{ id: 'b', field: 'payload.depth_m', message: 'no', tripId: 't' }])
    expect(post.mock.calls[1]![1].map((item: TripEvent) => item.id)).toEqual(['a', 'c'])
    expect(changed).toHaveBeenCalledWith('t')
  })

  it('removes only what was acknowledged', async () => {
    for (const id of ['a', 'b', 'c']) await keep(id)
    post.mockResolvedValueOnce({ added: ['a'], known: ['c'] }).mockRejectedValue(new LinkDownError('down'))
    await deliverer().flush()
    expect(await ids()).toEqual(['b'])
  })

  it('sends all trips, and one that is held up holds up no other', async () => {
    await keep('a', 'one')
    await keep('b', 'two')
    await keep('c', 'one')
    post.mockImplementation((trip: string, events: TripEvent[]) => (trip === 'one' ? answered(404) : acknowledge(trip, events)))
    await deliverer().flush()
    expect(await ids()).toEqual(['a', 'c'])
    expect(seen.at(-1)!.state).toBe('held')
  })

  it('sends less at once when the batch is too large', async () => {
    for (let index = 0; index < 5; index += 1) await keep(String(index))
    post.mockImplementation((trip: string, events: TripEvent[]) => (events.length > 2 ? answered(413) : acknowledge(trip, events)))
    await deliverer().flush()
    expect(await ids()).toEqual([])
    expect(BATCH).toBeGreaterThan(5)
  })
})

describe('retries', () => {
  const waits = async (answer: () => Promise<never>, rounds: number) => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'Date'] })
    post.mockImplementation(answer)
    const one = deliverer()
    const times: number[] = []
    await one.flush()
    for (let round = 0; round < rounds; round += 1) {
      const before = post.mock.calls.length
      const start = Date.now()
      while (post.mock.calls.length === before) {
        await vi.advanceTimersByTimeAsync(500)
        await new Promise((resolve) => setImmediate(resolve))
      }
      times.push(Date.now() - start)
      for (let i = 0; i < 20; i += 1) await new Promise((resolve) => setImmediate(resolve))
    }
    return times
  }

  it('come later and later, up to a minute', async () => {
    outbox = memoryOutbox()
    await keep('a')
    const times = await waits(() => answered(500), 6)
    expect(times[0]).toBeLessThanOrEqual(FIRST_RETRY_MS + 500)
    expect(times[1]! / times[0]!).toBeGreaterThan(1.5)
    expect(times.at(-1)).toBeLessThanOrEqual(LAST_RETRY_MS + 500)
    expect(times.at(-1)).toBeGreaterThan(LAST_RETRY_MS - 500)
  })

  it('wait as long as the server asks', async () => {
    outbox = memoryOutbox()
    await keep('a')
    const [first] = await waits(() => answered(429, {}, { ...OURS, 'Retry-After': '30' }), 1)
    expect(first).toBeGreaterThanOrEqual(29_500)
  })

  it('do not go on after the login has ended, until there is another', async () => {
    outbox = memoryOutbox()
    await keep('a')
    post.mockRejectedValue(new SignedOutError())
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const one = deliverer()
    await one.flush()
    await vi.advanceTimersByTimeAsync(200_000)
    expect(post).toHaveBeenCalledTimes(1)
    post.mockReset().mockImplementation(acknowledge)
    await one.flush()
    expect(await ids()).toEqual([])
  })
})

describe('clocks', () => {
  it('mends what was tapped before the server clock was known', async () => {
    skew = null
    await keep('a', 't', 'me', 5000)
    skew = -600
    post.mockImplementation(acknowledge)
    await deliverer().flush()
    expect(post.mock.calls[0]![1][0].at_s).toBe(4400)
    expect(changed).toHaveBeenCalledWith('t')
  })

  it('leaves alone what was tapped by the right time', async () => {
    skew = -600
    await keep('a', 't', 'me', 5000)
    post.mockImplementation(acknowledge)
    await deliverer().flush()
    expect(post.mock.calls[0]![1][0].at_s).toBe(5000)
    expect(changed).not.toHaveBeenCalled()
  })

  it('takes a tap for one of now when the clock jumped meanwhile, and loses none', async () => {
    skew = 0
    await keep('a', 't', 'me', Date.now() / 1000 + 90_000)
    post.mockImplementation((trip: string, events: TripEvent[]) =>
      events[0]!.at_s > Date.now() / 1000 + 120 ? refusal(422, 'events[0].at_s', 'clock') : acknowledge(trip, events),
    )
    await deliverer().flush()
    expect(await ids()).toEqual([])
    expect(await refused()).toEqual([])
    expect(post.mock.calls.at(-1)![1][0].at_s).toBeCloseTo(Date.now() / 1000, 0)
  })

  it('shows a tap whose time is refused for ever as not taken', async () => {
    await keep('a')
    post.mockImplementation(() => refusal(422, 'events[0].at_s', 'clock'))
    await deliverer().flush()
    expect(await refused()).toEqual(['a'])
  })
})

describe('several at it', () => {
  it('delivers from one tab at a time', async () => {
    await keep('a')
    let held = false
    const lock = async (act: () => Promise<void>) => {
      if (held) return false
      held = true
      await act()
      held = false
      return true
    }
    let release: (value: unknown) => void = () => undefined
    post.mockImplementation(async (trip: string, events: TripEvent[]) => {
      await new Promise((resolve) => (release = resolve))
      return acknowledge(trip, events)
    })
    const first = deliverer('me', lock).flush()
    await vi.waitFor(() => expect(post).toHaveBeenCalledTimes(1))
    await deliverer('me', lock).flush()
    expect(post).toHaveBeenCalledTimes(1)
    expect(seen.at(-1)).toMatchObject({ state: 'sending', waiting: 1 })
    release(null)
    await first
    expect(await ids()).toEqual([])
  })

  it('sends nothing of another login, and says that it waits', async () => {
    await keep('a', 't', 'other')
    post.mockImplementation(acknowledge)
    await deliverer('me').flush()
    expect(post).not.toHaveBeenCalled()
    expect(await outbox.others('me')).toEqual([{ owner: 'other', count: 1 }])
    await outbox.keepTrip('other', { trip: { id: 't' } as never, events: [], after: 0 })
    expect(await outbox.keptTrip('me', 't')).toBeUndefined()
    expect(await outbox.keptTrip('other', 't')).toBeDefined()
    await deliverer('other').flush()
    expect(await ids('other')).toEqual([])
  })
})

describe('outbox', () => {
  it('keeps its order whatever the clock does', async () => {
    vi.useFakeTimers({ toFake: ['Date'], now: 2_000_000 })
    await keep('first')
    vi.setSystemTime(1_000_000)
    await keep('second')
    expect(await ids()).toEqual(['first', 'second'])
  })

  it('puts one that was not taken back as it was mended, and drops one for good only when asked', async () => {
    await keep('a')
    const [row] = await outbox.waiting('me')
    await outbox.refuse(row!, 'payload.depth_m', 'no')
    expect([await ids(), await refused()]).toEqual([[], ['a']])
    await outbox.sendAgain('a', { ...event('a'), payload: { rod_id: 'rod-2' } }, 0)
    expect([await ids(), await refused()]).toEqual([['a'], []])
    const [again] = await outbox.waiting('me')
    expect(again!.event.payload).toEqual({ rod_id: 'rod-2' })
    await outbox.refuse(again!, '', 'no')
    await outbox.drop('a')
    expect([await ids(), await refused()]).toEqual([[], []])
  })

  it('keeps all that waits when the layout gains what trips are begun from', async () => {
    globalThis.indexedDB = new IDBFactory()
    const old = await openDB('coldwake', 2, {
      upgrade(db) {
        db.createObjectStore('queue', { keyPath: 'seq', autoIncrement: true }).createIndex('owner', 'owner')
        db.createObjectStore('refused', { keyPath: 'id' }).createIndex('owner', 'owner')
        db.createObjectStore('copies', { keyPath: 'key' })
      },
    })
    await old.add('queue', { owner: 'me', tripId: 't', event: event('a'), skewS: 0 })
    await old.put('refused', { id: 'b', owner: 'me', tripId: 't', event: event('b'), field: '', message: 'no' })
    old.close()
    outbox.close()
    outbox = await openOutbox()
    expect([await ids(), await refused(), await outbox.started('me')]).toEqual([['a'], ['b'], []])
  })

  it('takes over what an earlier version of the app left waiting', async () => {
    globalThis.indexedDB = new IDBFactory()
    const old = await openDB('coldwake', 1, {
      upgrade(db) {
        db.createObjectStore('outbox', { keyPath: 'id' }).createIndex('order', 'order')
        db.createObjectStore('trips', { keyPath: 'id' })
      },
    })
    await old.put('outbox', { id: 'b', tripId: 't', order: 2, event: event('b') })
    await old.put('outbox', { id: 'a', tripId: 't', order: 1, event: event('a') })
    old.close()
    outbox.close()
    outbox = await openOutbox()
    expect(await ids('me')).toEqual(['a', 'b'])
    expect((await outbox.waiting('me')).map((row) => row.owner)).toEqual([UNKNOWN_OWNER, UNKNOWN_OWNER])
  })
})

describe('a trip that was begun without a server', () => {
  const body = { id: 't', name: 'Alone', water_id: 1, outfit_id: 1, species: 'trout', started_at_s: 900 } as const
  const begin = (id = 't') => outbox.begin({ tripId: id, owner: 'me', body: { ...body, id }, skewS: skew })

  it('is told before anything that happened on it, and once', async () => {
    const order: string[] = []
    start.mockImplementation(async () => void order.push('start'))
    post.mockImplementation(async (tripId: string, events: TripEvent[]) => {
      order.push('events')
      return acknowledge(tripId, events)
    })
    await begin()
    await keep('a')
    await deliverer().flush()
    await keep('b')
    await deliverer().flush()
    expect(order).toEqual(['start', 'events', 'events'])
    expect(await outbox.started('me')).toEqual([])
  })

  it('is told though nothing happened on it', async () => {
    start.mockResolvedValue({})
    await begin()
    await deliverer().flush()
    expect(start).toHaveBeenCalledWith(body)
    expect(await outbox.started('me')).toEqual([])
  })

  it.each([
    ['the link is down', () => Promise.reject(new LinkDownError('down')), 'down'],
    ['the login has ended', () => Promise.reject(new SignedOutError()), 'signed_out'],
    ['the server refuses it', () => refusal(422, 'water_id'), 'held'],
  ])('stays with its taps while %s', async (_why, answer, state) => {
    start.mockImplementation(answer)
    post.mockImplementation(acknowledge)
    await begin()
    await keep('a')
    await deliverer().flush()
    expect(post).not.toHaveBeenCalled()
    expect([await ids(), (await outbox.started('me')).length]).toEqual([['a'], 1])
    expect(seen.at(-1)!.state).toBe(state)
  })

  it('that is refused does not hold up the others', async () => {
    start.mockImplementation(() => refusal(422, 'water_id'))
    post.mockImplementation(acknowledge)
    await begin()
    await keep('a')
    await keep('b', 'other')
    await deliverer().flush()
    expect(await ids()).toEqual(['a'])
    expect(seen.at(-1)!.note).toContain('Alone')
  })

  it('began when it did, whatever this device took for the time', async () => {
    start.mockResolvedValue({})
    post.mockImplementation(acknowledge)
    skew = null
    await begin()
    skew = -600
    await deliverer().flush()
    expect(start).toHaveBeenCalledWith({ ...body, started_at_s: 300 })
  })
})

it('finds which event of a batch is named', () => {
  expect(namedEvent('events[3].payload.depth_m')).toEqual({ index: 3, field: 'payload.depth_m' })
  expect(namedEvent('events')).toBeNull()
  expect(new CoreError({ code: '', field: '', message: '', reason: '', limit: null, low: null, high: null }).status).toBeNull()
})

describe('what is told as waiting', () => {
  it('counts a tap that was kept while an earlier count was under way', async () => {
    const slow = deferred<void>()
    let first = true
    const counting: Outbox = {
      ...outbox,
      async waiting(name) {
        const rows = await outbox.waiting(name)
        // The first count is answered late: from before the tap.
        if (first) {
          first = false
          await slow.promise
        }
        return rows
      },
    }
    const one = makeDeliverer({
      outbox: counting,
      owner: 'me',
      post: () => Promise.reject(new LinkDownError('down')),
      start,
      skewS: () => skew,
      changed,
      progress: (now) => void seen.push(now),
      alone: async (act) => (await act(), true),
    })
    made.push(one)
    const early = one.kept()
    await keep('a')
    await one.kept()
    slow.resolve()
    await early
    expect(seen.map((now) => now.waiting)).not.toContain(0)
    expect(seen.at(-1)?.waiting).toBe(1)
  })
})

function deferred<T>() {
  let resolve!: (value: T) => void
  const promise = new Promise<T>((done) => (resolve = done))
  return { promise, resolve }
}
