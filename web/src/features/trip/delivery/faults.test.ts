// The tab is killed, or the answer is lost, at every step there is: nothing is lost and nothing is there twice.
import { IDBFactory } from 'fake-indexeddb'
import 'fake-indexeddb/auto'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { LinkDownError } from '@/shared/api/client'
import { CoreError } from '@/shared/core/protocol'
import { makeDeliverer } from './deliver'
import { openOutbox, type Outbox, type Start, type TripEvent } from './outbox'

const error = (status: number, field: string, code = 'invalid_input') =>
  new CoreError({ code, field, message: 'no', reason: '', limit: null, low: null, high: null, status } as never)
const tap = (id: string, type = 'hit'): TripEvent => ({ id, at_s: 1000, type: type as TripEvent['type'], payload: { rod_id: 'rod-1' } })
const ALONE = { id: 'alone', name: 'Alone', water_id: 1, outfit_id: 1, species: 'trout', started_at_s: 900 } as const

/** A server as it keeps what it is told: each key once, all of a batch or none. */
class Server {
  trips = new Map<string, number>([['other', 1]])
  events: string[] = []
  homeless: string[] = []
  times = new Map<string, number>()
  async start(body: Start['body']): Promise<void> {
    if (!this.trips.has(body.id!)) this.trips.set(body.id!, body.started_at_s!)
  }
  async post(tripId: string, events: TripEvent[]): Promise<{ added: string[]; known: string[] }> {
    if (!this.trips.has(tripId)) {
      this.homeless.push(...events.map((event) => event.id))
      throw error(404, '')
    }
    if (events.length > 2) throw error(413, '')
    const bad = events.findIndex((event) => event.id.startsWith('bad'))
    if (bad >= 0) throw error(422, `events[${bad}].payload.depth_m`)
    const added = events.filter((event) => !this.events.includes(event.id)).map((event) => event.id)
    this.events.push(...added)
    events.forEach((event) => this.times.set(event.id, event.at_s))
    return { added, known: events.map((event) => event.id).filter((id) => !added.includes(id)) }
  }
}

type Fault = 'before' | 'after' | 'answer lost'
const OURS = ['waiting', 'remove', 'retime', 'refuse', 'notTaken', 'started', 'begun', 'keptTrip'] as const

let outbox: Outbox
let server: Server
/** A browser and a server anew: a trip begun without a link, six taps on two trips, one of them refused. */
async function anew(): Promise<void> {
  globalThis.indexedDB = new IDBFactory()
  outbox = await openOutbox()
  server = new Server()
  await outbox.begin({ tripId: 'alone', owner: 'me', body: ALONE, skewS: null })
  for (const [id, tripId] of [
    ['a', 'alone'],
    ['bad-b', 'alone'],
    ['c', 'other'],
    ['d', 'alone'],
    ['e', 'alone'],
    ['f', 'other'],
  ] as const) {
    await outbox.put({ owner: 'me', tripId, event: tap(id), skewS: null })
  }
}
beforeEach(anew)
afterEach(() => outbox.close())

/** One delivery that comes to its end, or to the step at which it is stopped; returns how many steps it took. */
async function deliver(stopAt: number, fault: Fault): Promise<number> {
  let steps = 0
  let isDead = false
  const never = new Promise<never>(() => undefined)
  const through = async <T>(isServer: boolean, act: () => Promise<T>): Promise<T> => {
    if (isDead) return never
    const here = ++steps === stopAt
    if (!here) {
      const answer = await act()
      return isDead ? never : answer
    }
    if (fault === 'answer lost' && isServer) {
      await act()
      throw new LinkDownError('lost')
    }
    isDead = true
    if (fault === 'after') await act()
    return never
  }
  const watched = { ...outbox } as Outbox
  for (const name of OURS) {
    const real = outbox[name] as (...all: unknown[]) => Promise<unknown>
    ;(watched[name] as unknown) = (...all: unknown[]) => through(false, () => real(...all))
  }
  const one = makeDeliverer({
    outbox: watched,
    owner: 'me',
    post: (tripId, events) => through(true, () => server.post(tripId, events)),
    start: (body) => through(true, () => server.start(body)),
    skewS: () => -600,
    changed: () => undefined,
    progress: () => undefined,
    alone: async (act) => (await act(), true),
  })
  let isDone = false
  void one.flush().then(() => (isDone = true))
  while (!isDone && !isDead) await new Promise((resolve) => setTimeout(resolve, 0))
  one.close()
  // What the dead tab had on its way to its own disk arrives.
  await new Promise((resolve) => setTimeout(resolve, 5))
  return steps
}

async function check(): Promise<void> {
  expect(server.homeless).toEqual([])
  expect([...server.events].sort()).toEqual(['a', 'c', 'd', 'e', 'f'])
  expect(server.events.filter((id) => 'ade'.includes(id))).toEqual(['a', 'd', 'e'])
  expect(await outbox.waiting('me')).toEqual([])
  expect(await outbox.started('me')).toEqual([])
  expect((await outbox.notTaken('me')).map((row) => [row.id, row.field])).toEqual([['bad-b', 'payload.depth_m']])
  // Ten minutes off by this device's clock, mended once and not twice.
  expect(server.trips.get('alone')).toBe(300)
  expect([...new Set(server.times.values())]).toEqual([400])
}

describe('stopped at any step of delivery', () => {
  it('takes a good many steps when nothing stops it', async () => {
    expect(await deliver(Infinity, 'before')).toBeGreaterThan(25)
    await check()
  })

  it.each(['before', 'after', 'answer lost'] as const)('%s the step: all is delivered once by the next tab', async (fault) => {
    const steps = await deliver(Infinity, 'before')
    for (let stopAt = 1; stopAt <= steps; stopAt += 1) {
      outbox.close()
      await anew()
      await deliver(stopAt, fault)
      await deliver(Infinity, 'before')
      await check()
    }
  })
})
