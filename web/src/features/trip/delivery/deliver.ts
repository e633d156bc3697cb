// Delivery: what waits is sent in its order, each tap exactly once, whatever answers in between.
import { tripNowS } from '../logic/clock'
import { LinkDownError, SignedOutError } from '@/shared/api/client'
import { CoreError } from '@/shared/core/protocol'
import { WORTH_S } from './clock'
import type { NotTaken, Outbox, Start, TripEvent, Waiting } from './outbox'

export const BATCH = 200
export const FIRST_RETRY_MS = 4000
export const LAST_RETRY_MS = 60_000
/** How often a wrong time is mended by the server's clock before it counts as refused. */
const MENDS = 2

export type DeliveryState = 'kept' | 'sending' | 'down' | 'signed_out' | 'held'

export interface Progress {
  state: DeliveryState
  waiting: number
  notTaken: number
  /** What holds it up, in words. */
  note: string | null
}

export interface Acknowledged {
  added: string[]
  known: string[]
}

export interface DelivererOptions {
  outbox: Outbox
  owner: string
  post: (tripId: string, events: TripEvent[]) => Promise<Acknowledged>
  /** Tell the server of a trip that was begun here; told twice, it is begun once. */
  start: (body: Start['body']) => Promise<unknown>
  skewS: () => number | null
  progress: (now: Progress, notTaken: NotTaken[]) => void
  /** Events whose time was mended, or that were refused: the trip must be taken anew. */
  changed: (tripId: string) => void
  /** Runs an act in one tab at a time; resolves to false when another tab is at it. */
  alone?: (act: () => Promise<void>) => Promise<boolean>
}

export interface Deliverer {
  /** Deliver what waits, soon; resolves when all that waited at the call is delivered or held up. */
  flush(): Promise<void>
  /** A tap was put into the outbox: resolves when it is told as waiting, and is delivered soon. */
  kept(): Promise<void>
  close(): void
}

/** One delivering tab at a time, where the browser can tell (secure origins only). */
export async function oneTab(act: () => Promise<void>): Promise<boolean> {
  if (!navigator.locks) {
    await act()
    return true
  }
  return navigator.locks.request('coldwake-delivery', { ifAvailable: true }, async (lock) => {
    if (lock) await act()
    return lock !== null
  })
}

/** The event that an answer names as "events[3].payload.depth_m", and the rest of the field. */
export function namedEvent(field: string): { index: number; field: string } | null {
  const found = /^events\[(\d+)\]\.?/.exec(field)
  return found ? { index: Number(found[1]), field: field.slice(found[0].length) } : null
}

type Outcome = 'done' | 'held'

/** Deliver a login's taps until they are all acknowledged or shown as not taken. */
export function makeDeliverer(options: DelivererOptions): Deliverer {
  const { outbox, owner, post, start, skewS, progress, changed, alone = oneTab } = options
  const mends = new Map<string, number>()
  let running: Promise<void> | null = null
  let next: Promise<void> | null = null
  let told = 0
  let closed = false
  let delayMs = FIRST_RETRY_MS
  let timer: ReturnType<typeof setTimeout> | undefined

  async function tell(state: DeliveryState, note: string | null = null): Promise<void> {
    const ticket = ++told
    const [rows, refused] = [await outbox.waiting(owner), await outbox.notTaken(owner)]
    // Counted before a later look was begun: a tap kept meanwhile would be told as delivered.
    if (closed || ticket !== told) return
    progress(
      {
        state: rows.length === 0 && state !== 'signed_out' ? 'kept' : state,
        waiting: rows.length,
        notTaken: refused.length,
        note,
      },
      refused,
    )
  }

  /** Set right the times that were tapped by a clock which was wrong, or whose error was unknown. */
  async function mendTimes(rows: Waiting[]): Promise<Waiting[]> {
    const now = skewS()
    if (now === null) return rows
    const wrong = rows.filter((row) => Math.abs(now - (row.skewS ?? 0)) > WORTH_S)
    if (wrong.length === 0) return rows
    const mended = wrong.map((row) => moved(row, now - (row.skewS ?? 0), now))
    await outbox.retime(mended)
    for (const tripId of new Set(mended.map((row) => row.tripId))) changed(tripId)
    return rows.map((row) => mended.find((other) => other.seq === row.seq) ?? row)
  }

  function moved(row: Waiting, byS: number, skew: number | null): Waiting {
    return { ...row, skewS: skew, event: { ...row.event, at_s: row.event.at_s + byS } }
  }

  /** A time that the server says cannot be. By its clock it is mended; where that was known already,
   * it was the device's clock that jumped: the tap counts as made now, the latest it can be. */
  async function putTimeRight(row: Waiting, message: string): Promise<void> {
    const tried = (mends.get(row.event.id) ?? 0) + 1
    mends.set(row.event.id, tried)
    const [mended] = await mendTimes([row])
    if (mended !== row) return
    if (tried > MENDS) return refuse(row, 'at_s', message)
    const kept = await outbox.keptTrip(row.owner, row.tripId)
    const nowS = tripNowS(kept?.trip, Date.now() / 1000 + (skewS() ?? 0))
    await outbox.retime([moved(row, nowS - row.event.at_s, skewS() ?? 0)])
    changed(row.tripId)
  }

  async function refuse(row: Waiting, field: string, message: string): Promise<void> {
    await outbox.refuse(row, field, message)
    await tell('sending')
    changed(row.tripId)
  }

  /** A trip that was begun here is told first: what happened on it has nowhere to go before. */
  async function tellStart(tripId: string): Promise<{ outcome: Outcome; note: string | null }> {
    const begun = (await outbox.started(owner)).find((row) => row.tripId === tripId)
    if (!begun) return { outcome: 'done', note: null }
    const now = skewS()
    const wrong = now !== null && Math.abs(now - (begun.skewS ?? 0)) > WORTH_S
    const at_s = begun.body.started_at_s! + (wrong ? now - (begun.skewS ?? 0) : 0)
    try {
      await start({ ...begun.body, started_at_s: at_s })
    } catch (error) {
      if (!(error instanceof CoreError)) throw error
      return { outcome: 'held', note: `the trip “${begun.body.name}” is not taken: ${error.message}` }
    }
    await outbox.begun(tripId)
    return { outcome: 'done', note: null }
  }

  /** Send one trip's taps until none is left or something holds them up. */
  async function deliverTrip(tripId: string): Promise<{ outcome: Outcome; note: string | null }> {
    let size = BATCH
    const begun = await tellStart(tripId)
    if (begun.outcome === 'held') return begun
    for (;;) {
      const rows = await mendTimes((await outbox.waiting(owner)).filter((row) => row.tripId === tripId).slice(0, size))
      if (rows.length === 0 || closed) return { outcome: 'done', note: null }
      await tell('sending')
      try {
        const answer = await post(
          tripId,
          rows.map((row) => row.event),
        )
        const taken = new Set([...answer.added, ...answer.known])
        const acknowledged = rows.filter((row) => taken.has(row.event.id))
        if (acknowledged.length === 0) throw new LinkDownError('The answer acknowledged nothing.')
        await outbox.remove(acknowledged.map((row) => row.seq))
      } catch (error) {
        if (!(error instanceof CoreError)) throw error
        const named = error.status === 409 || error.status === 422 ? namedEvent(error.field) : null
        const row = named ? rows[named.index] : undefined
        if (named && row) {
          // All or none: the one at fault goes to the list, and the rest is offered again.
          if (error.code === 'clock') await putTimeRight(row, error.message)
          else await refuse(row, named.field, error.message)
        } else if (error.status === 413 && size > 1) size = Math.ceil(rows.length / 2)
        else return { outcome: 'held', note: error.message }
      }
    }
  }

  async function deliverAll(): Promise<void> {
    const trips = new Set([...(await outbox.started(owner)), ...(await outbox.waiting(owner))].map((row) => row.tripId))
    let note: string | null = null
    // A trip that is held up does not hold up the others.
    for (const tripId of trips) {
      const done = await deliverTrip(tripId)
      if (done.outcome === 'held') note = done.note
    }
    if (note === null) {
      delayMs = FIRST_RETRY_MS
      await tell('kept')
    } else {
      await tell('held', note)
      retry(null)
    }
  }

  function retry(afterMs: number | null): void {
    if (closed) return
    clearTimeout(timer)
    timer = setTimeout(() => void flush(), Math.max(afterMs ?? 0, delayMs))
    delayMs = Math.min(delayMs * 2, LAST_RETRY_MS)
  }

  async function run(): Promise<void> {
    clearTimeout(timer)
    try {
      const mine = await alone(deliverAll)
      if (!mine) {
        // Another tab delivers: look again soon what is left.
        await tell('sending')
        retry(null)
      }
    } catch (error) {
      if (error instanceof SignedOutError) return tell('signed_out', error.message)
      await tell('down', error instanceof Error ? error.message : String(error))
      retry(error instanceof LinkDownError ? error.retryAfterMs : null)
    }
  }

  function flush(): Promise<void> {
    if (closed) return Promise.resolve()
    if (running) {
      // This one may have looked at what waits for the last time: only the next is sure to see all of it.
      next ??= running.then(() => {
        next = null
        return flush()
      })
      return next
    }
    running = run()
      .catch(() => retry(null))
      .finally(() => (running = null))
    return running
  }

  const online = (): void => {
    delayMs = FIRST_RETRY_MS
    void flush()
  }
  window.addEventListener('online', online)

  return {
    flush,
    async kept() {
      await tell('sending')
      void flush()
    },
    close() {
      closed = true
      clearTimeout(timer)
      window.removeEventListener('online', online)
    },
  }
}
