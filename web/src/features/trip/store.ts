// The trip that is open: its view, its events on their way, and who computes.
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { LinkDownError, SignedOutError } from '@/shared/api/client'
import type { CoreCalls } from '@/shared/core/calls'
import type { CoreClient } from '@/shared/core/client'
import { takeCore } from '@/shared/core/host'
import { CoreError } from '@/shared/core/protocol'
import { NotKeptError, useDeliveryStore } from './delivery/store'
import { painted } from '@/shared/ui/painted'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { getEvents, getFish, getTrip, type FishView, type TripDocument, type TripEvent } from './api'
import { tripNowS, type TripClock } from './logic/clock'
import { makeEvent, type EventPayload, type EventType } from './logic/events'

const REFRESH_MS = 20_000
/** A core that died is started again, but not in a circle. */
const RESTART_MS = 10_000

export interface Notice {
  text: string
  field: string
  level: 'error' | 'info'
}

export const useTripStore = defineStore('trip', () => {
  const delivery = useDeliveryStore()
  const trip = shallowRef<TripDocument | null>(null)
  const view = shallowRef<FishView | null>(null)
  const coreReady = ref(false)
  const coreFailed = ref(false)
  const loadError = ref<string | null>(null)
  const notice = ref<Notice | null>(null)
  let core: CoreClient | null = null
  /** Whose turn it is: what was begun for a trip that has been left meanwhile changes nothing. */
  let turn = 0
  let restartedMs = 0
  let lastStampS = 0
  /** Looks begun, and which of them is on the screen. */
  let looks = 0
  let shown = 0
  let events: { known: TripEvent[]; after: number } = { known: [], after: 0 }
  /** What was waiting here when the trip was opened, and tapped since: under way, it may be in neither list. */
  const made = new Map<string, TripEvent>()
  /** One at a time: a tap is in the core and in the outbox, or in neither, when another looks. */
  let door: Promise<unknown> = Promise.resolve()
  let answering: { text: string } | null = null

  const pending = computed(() => delivery.progress.waiting)
  const linkDown = computed(() => delivery.linkDown)

  /** The trip's own clock, seconds: a demo or practice trip has a clock of its own, and may rest. */
  function nowS(): number {
    const now = tripNowS(trip.value, delivery.nowS())
    const rest = trip.value?.rest_after_s ?? null
    return rest === null ? now : Math.min(now, Math.max(lastEventS(), trip.value!.started_at_s) + rest)
  }

  /** A practised trip's clock as it goes now. */
  function setClock(clock: TripClock): void {
    if (trip.value) trip.value = { ...trip.value, ...clock }
  }

  function lastEventS(): number {
    return events.known.reduce((last, event) => Math.max(last, event.at_s), lastStampS)
  }

  /** The moment of a tap: no two are the same, so that they keep their order on every device. */
  function stampS(): number {
    const now = Math.max(nowS(), lastStampS + 0.001)
    // A clock that rested goes on from here.
    if (trip.value && trip.value.rest_after_s !== null) trip.value = { ...trip.value, clock_shift_s: delivery.nowS() - now }
    lastStampS = now
    return now
  }

  function alone<T>(act: () => Promise<T>): Promise<T> {
    const done = door.then(act, act)
    door = done.catch(() => undefined)
    return done
  }

  async function open(tripId: string): Promise<void> {
    close()
    const mine = ++turn
    loadError.value = null
    try {
      // The server's solution first: the page is usable before the worker is.
      const [document, fish] = await Promise.all([getTrip(tripId), getFish(tripId)])
      if (mine !== turn) return
      trip.value = document
      view.value = fish
      // Before the core takes half the processor to start, what is known is on the screen.
      await painted()
      if (mine !== turn) return
    } catch (error) {
      const away = error instanceof LinkDownError || error instanceof SignedOutError || (await delivery.isNew(tripId))
      const kept = away ? await delivery.keptTrip(tripId) : undefined
      if (mine !== turn) return
      if (!kept) {
        loadError.value = error instanceof Error ? error.message : String(error)
        return
      }
      trip.value = kept.trip
    }
    startCore(mine)
    void deliverLeft(mine, tripId)
    refresher.resume()
  }

  /** What was still waiting when the page was left is news to the server's view too. */
  async function deliverLeft(mine: number, tripId: string): Promise<void> {
    try {
      const left = (await delivery.waiting(tripId)).length
      await delivery.flush()
      if (left > 0 && mine === turn && !coreReady.value) await refresh()
    } catch (error) {
      if (mine === turn) report(error)
    }
  }

  /** Take what the server has gained; what is kept here goes on from where it stood. */
  async function fetchEvents(tripId: string): Promise<TripEvent[]> {
    if (events.after === 0) {
      const kept = await delivery.keptTrip(tripId)
      if (kept) events = { known: kept.events, after: kept.after }
    }
    let page = await getEvents(tripId, events.after)
    if (page.after < events.after) {
      // The server has been put back to an earlier copy: begin anew.
      events = { known: [], after: 0 }
      page = await getEvents(tripId, 0)
    }
    if (page.events.length > 0) {
      events = { known: [...events.known, ...page.events], after: page.after }
      if (trip.value?.id === tripId) await delivery.keepTrip({ trip: trip.value, events: events.known, after: events.after })
    }
    return page.events
  }

  /** The server's events as far as it can be asked, else the copy that is kept here. */
  async function catchUp(tripId: string): Promise<void> {
    try {
      await fetchEvents(tripId)
    } catch (error) {
      const kept = await delivery.keptTrip(tripId)
      if (!kept) throw error
      events = { known: kept.events, after: kept.after }
    }
  }

  /** All that has happened as far as is known here: acknowledged, waiting, or just under way. */
  async function allEvents(tripId: string): Promise<TripEvent[]> {
    const waiting = await delivery.waiting(tripId)
    const all = new Map(made)
    for (const event of [...waiting, ...events.known]) all.set(event.id, event)
    return [...all.values()]
  }

  function startCore(mine: number, learn = catchUp): void {
    const fresh = takeCore(
      () => restart(turn),
      // A core that was edited while it ran: of the trip there is nothing new to learn.
      () => trip.value && startCore(turn, async () => undefined),
    )
    core = fresh
    void begin(mine, fresh, learn).then(() => (mine === turn && core === fresh ? refresh() : undefined))
  }

  async function begin(mine: number, fresh: CoreClient, learn: typeof catchUp): Promise<void> {
    const stale = (): boolean => mine !== turn || core !== fresh
    const tripId = trip.value!.id
    try {
      // First what waits, then what the server has: a tap that is taken between the two is in both, never in none.
      const left = await delivery.waiting(tripId)
      if (stale()) return
      for (const event of left) made.set(event.id, event)
      await Promise.all([fresh.started, learn(tripId)])
      if (stale()) return
      await fresh.call('open', { trip: trip.value!, events: await allEvents(tripId) })
      // What was tapped meanwhile, with the door closed so that nothing slips past.
      await alone(async () => {
        if (stale()) return
        await fresh.call('merge', { events: await allEvents(tripId) })
        coreReady.value = true
        coreFailed.value = false
      })
    } catch (error) {
      if (stale()) return
      // The server answers instead; say so, for it needs the link.
      coreFailed.value = true
      if (!view.value) loadError.value = error instanceof Error ? error.message : String(error)
    }
  }

  function restart(mine: number): void {
    if (!trip.value) return
    core = null
    coreReady.value = false
    coreFailed.value = true
    if (Date.now() - restartedMs < RESTART_MS) return
    restartedMs = Date.now()
    startCore(mine)
  }

  /** Take what other devices have recorded on this trip, then show it all. */
  async function sync(): Promise<void> {
    const mine = turn
    if (coreReady.value && trip.value) {
      try {
        const fresh = await fetchEvents(trip.value.id)
        if (mine === turn && fresh.length > 0) await alone(() => core!.call('merge', { events: fresh }))
      } catch (error) {
        if (!(error instanceof LinkDownError || error instanceof SignedOutError) && mine === turn) report(error)
      }
    }
    await refresh()
  }

  /** Look when no tap is half way: what is in the core and not kept yet is shown to nobody. */
  async function refresh(): Promise<void> {
    await door
    await look()
  }

  async function look(): Promise<void> {
    const mine = turn
    if (!trip.value) return
    const ticket = ++looks
    try {
      const fresh = coreReady.value ? await core!.call('view', { now_s: nowS() }) : await getFish(trip.value.id)
      // A slow answer of the server knows less than one that was asked for after it.
      if (mine !== turn || ticket < shown) return
      shown = ticket
      view.value = fresh
    } catch (error) {
      if (!(error instanceof LinkDownError || error instanceof SignedOutError) && mine === turn) report(error)
    }
  }

  /** Record something that happened. Resolves to whether it stands. */
  async function record(type: EventType, payload: EventPayload | Record<string, never>): Promise<boolean> {
    const mine = turn
    if (!trip.value) return false
    const tripId = trip.value.id
    const event = makeEvent(type, payload, stampS())
    try {
      await alone(() => keep(mine, tripId, event))
      if (!coreReady.value) {
        await delivery.flush()
        if (mine === turn) await refresh()
      }
      return true
    } catch (error) {
      if (error instanceof NotKeptError) await takeAnew()
      report(error)
      return false
    }
  }

  /** A trip that is left meanwhile still gets the tap: the server holds it against its record. */
  async function keep(mine: number, tripId: string, event: TripEvent): Promise<void> {
    const here = mine === turn && coreReady.value
    if (here) await core!.call('add', { event })
    // The core works out the rods while the browser writes, but a tap shows only when both are done:
    // what the screen has said is kept, whatever becomes of the page in the next moment.
    const [rods] = await Promise.all([here ? core!.call('rods', { now_s: nowS() }) : null, delivery.keep(tripId, event)])
    if (mine !== turn) return
    made.set(event.id, event)
    if (rods && view.value) view.value = { ...view.value, rods }
    if (rods) await look()
  }

  /** After a refusal, or a time that was mended, the core's events are taken anew from what is kept. */
  async function takeAnew(): Promise<void> {
    const mine = turn
    if (coreReady.value && trip.value) {
      const tripId = trip.value.id
      await catchUp(tripId).catch(() => undefined)
      await alone(async () => {
        for (const row of delivery.notTaken) made.delete(row.id)
        const all = await allEvents(tripId)
        if (mine === turn && coreReady.value) await core!.call('replace', { events: all })
      }).catch(report)
    }
    await refresh()
  }

  const refresher = useIntervalFn(() => void sync(), REFRESH_MS, { immediate: false })
  useEventListener(window, 'focus', () => trip.value && void sync())

  watch(
    () => delivery.changes,
    (change) => {
      if (change.tripId === trip.value?.id) void takeAnew()
    },
  )

  watch(
    () => delivery.progress.notTaken,
    (now, before) => {
      if (now > before)
        notice.value = { level: 'error', field: '', text: 'The server has not taken a tap. It is kept in the list of those not taken.' }
    },
  )

  function report(error: unknown): void {
    const text = describeError(error, useDisplayStore().units)
    if (answering) {
      answering.text = text
      return
    }
    const field = error instanceof CoreError ? error.field.replace(/^payload\./, '') : ''
    notice.value = { level: 'error', field, text }
  }

  /** Run an act for a dialog, which shows its error itself; null when it is done. */
  async function attempt(act: () => Promise<boolean>): Promise<string | null> {
    const mine = (answering = { text: 'Not kept.' })
    try {
      return (await act()) ? null : mine.text
    } catch (error) {
      return describeError(error, useDisplayStore().units)
    } finally {
      answering = null
    }
  }

  /** A question of the core; of the server where there is no core in this browser yet, and it can be asked. */
  async function ask<K extends keyof CoreCalls>(
    name: K,
    args: CoreCalls[K]['args'],
    otherwise: (tripId: string) => Promise<CoreCalls[K]['result']>,
  ): Promise<CoreCalls[K]['result']> {
    const tripId = trip.value!.id
    await door
    return coreReady.value ? core!.call(name, args) : otherwise(tripId)
  }

  async function undo(): Promise<boolean> {
    // A tap shows on its rod before the view knows it: what was tapped last is what is taken back.
    await door
    const target = view.value?.undo_event_id
    return target ? record('undone', { event_id: target }) : false
  }

  function close(): void {
    turn += 1
    refresher.pause()
    core = null
    events = { known: [], after: 0 }
    made.clear()
    lastStampS = 0
    door = Promise.resolve()
    trip.value = null
    view.value = null
    coreReady.value = false
    coreFailed.value = false
    notice.value = null
  }

  return {
    trip,
    view,
    sync,
    coreReady,
    coreFailed,
    loadError,
    notice,
    pending,
    linkDown,
    nowS,
    setClock,
    open,
    close,
    refresh,
    record,
    ask,
    undo,
    report,
    attempt,
  }
})
