// The trip that is open: its view, its events on their way, and who computes.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { LinkDownError } from '@/shared/api/client'
import { createCoreClient, type CoreClient } from '@/shared/core/client'
import { CoreError } from '@/shared/core/protocol'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import {
  getEvents,
  getBeside,
  getFish,
  getLines,
  getNumber,
  getTrip,
  type FishView,
  type RodLine,
  type TripDocument,
  type TripEvent,
  getManoeuvre,
  getSpread,
  postBench,
  postLadder,
  type BenchView,
  type BesideView,
  type LadderAsked,
  type LadderStep,
  type RodSetup,
  type SpreadCheck,
  getNumbers,
  getOrders,
  getPlan,
  getTightest,
  type LineOrders,
  type ManoeuvreAsked,
  type ManoeuvreView,
  type NumberAtSpeed,
  type PlanAsked,
  type PlanView,
  type TightestTurns,
} from './api'
import { useDelivery, type Delivery } from './composables/useDelivery'
import { makeEvent, type EventPayload, type EventType } from './logic/events'
import { openOutbox, type Outbox } from './outbox'

const REFRESH_MS = 20_000

export interface Notice {
  text: string
  field: string
  level: 'error' | 'info'
}

function makeWorker(): Worker {
  return new Worker(new URL('../../shared/core/worker.ts', import.meta.url), { type: 'module' })
}

export const useFishStore = defineStore('fish', () => {
  const trip = shallowRef<TripDocument | null>(null)
  const view = shallowRef<FishView | null>(null)
  const coreReady = ref(false)
  const coreFailed = ref(false)
  const loadError = ref<string | null>(null)
  const notice = ref<Notice | null>(null)
  const delivery = shallowRef<Delivery | null>(null)
  let core: CoreClient | null = null
  let outbox: Outbox | null = null
  let recording = 0
  /** How many records were begun, and the latest of them: the core starts from all or none. */
  let records = 0
  let latestRecord: Promise<unknown> = Promise.resolve()
  let answering: { text: string } | null = null
  let refresher: ReturnType<typeof setInterval> | undefined

  const pending = computed(() => delivery.value?.pending.value ?? 0)
  const linkDown = computed(() => delivery.value?.linkDown.value ?? false)

  /** The trip's own clock, seconds: a demo or practice trip has a clock of its own. */
  function nowS(): number {
    return Date.now() / 1000 - (trip.value?.clock_shift_s ?? 0)
  }

  async function open(tripId: string): Promise<void> {
    close()
    loadError.value = null
    outbox = await openOutbox()
    try {
      // The server's solution first: the page is usable before the worker is.
      const [document, fish] = await Promise.all([getTrip(tripId), getFish(tripId)])
      trip.value = document
      view.value = fish
    } catch (error) {
      const kept = error instanceof LinkDownError ? await outbox.keptTrip(tripId) : undefined
      if (!kept) {
        loadError.value = error instanceof Error ? error.message : String(error)
        return
      }
      trip.value = kept.trip
    }
    delivery.value = useDelivery({ tripId, outbox, refused: onRefused })
    core = createCoreClient({ makeWorker })
    void startCore(tripId)
    void deliverLeft(tripId, delivery.value)
    refresher = setInterval(() => void sync(), REFRESH_MS)
    window.addEventListener('focus', sync)
  }

  /** What was still waiting when the page was left is news to the server's view too. */
  async function deliverLeft(tripId: string, mine: Delivery): Promise<void> {
    const left = (await outbox!.waiting(tripId)).length
    await mine.flush()
    if (left > 0 && delivery.value === mine && !coreReady.value) await refresh()
  }

  async function allEvents(tripId: string): Promise<TripEvent[]> {
    const waiting = await outbox!.waiting(tripId)
    try {
      const { events } = await getEvents(tripId)
      await outbox!.keepTrip(trip.value!, events)
      return [...events, ...waiting]
    } catch (error) {
      const kept = error instanceof LinkDownError ? await outbox!.keptTrip(tripId) : undefined
      if (!kept) throw error
      return [...kept.events, ...waiting]
    }
  }

  async function startCore(tripId: string): Promise<void> {
    const mine = core!
    try {
      await mine.started
      await mine.call('open', { trip: trip.value, events: [] })
      // A tap while the events travel is not among them: take them again until none was made.
      for (let seen = -1; seen !== records;) {
        seen = records
        await latestRecord
        await mine.call('replace', { events: await allEvents(tripId) })
      }
      if (core !== mine) return
      coreReady.value = true
      await refresh()
    } catch (error) {
      if (core !== mine) return
      // The server answers instead; say so, for it needs the link.
      coreFailed.value = true
      if (!view.value) loadError.value = error instanceof Error ? error.message : String(error)
    }
  }

  /** Take what other devices have recorded on this trip, then show it all. */
  async function sync(): Promise<void> {
    if (coreReady.value && trip.value && recording === 0) {
      try {
        const events = await allEvents(trip.value.id)
        // A tap in the meantime is not in what was fetched: leave it for the next round.
        if (recording === 0 && coreReady.value) await core!.call('replace', { events })
      } catch (error) {
        if (!(error instanceof LinkDownError)) report(error)
      }
    }
    await refresh()
  }

  async function refresh(): Promise<void> {
    if (!trip.value) return
    try {
      view.value = coreReady.value ? await core!.call<FishView>('view', { now_s: nowS() }) : await getFish(trip.value.id)
    } catch (error) {
      if (!(error instanceof LinkDownError)) report(error)
    }
  }

  /** Record something that happened. Resolves to whether it stands. */
  function record(type: EventType, payload: EventPayload | Record<string, never>): Promise<boolean> {
    records += 1
    const done = keep(type, payload)
    latestRecord = done
    return done
  }

  async function keep(type: EventType, payload: EventPayload | Record<string, never>): Promise<boolean> {
    if (!trip.value || !delivery.value) return false
    const event = makeEvent(type, payload, nowS())
    recording += 1
    try {
      if (coreReady.value) {
        await core!.call('add', { event })
        await delivery.value.send(event)
        await refresh()
      } else {
        await delivery.value.send(event)
        await delivery.value.flush()
        await refresh()
      }
      return true
    } catch (error) {
      report(error)
      return false
    } finally {
      recording -= 1
    }
  }

  function onRefused(_: TripEvent, error: CoreError): void {
    notice.value = {
      level: 'error',
      field: error.field.replace(/^events\[\d+\]\./, ''),
      text: `Not kept. ${describeError(error, useDisplayStore().units)}`,
    }
    void reload()
  }

  /** After a refusal the browser's own events are taken anew from what is kept. */
  async function reload(): Promise<void> {
    if (coreReady.value && trip.value) {
      await core!.call('replace', { events: await allEvents(trip.value.id) })
    }
    await refresh()
  }

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
    } finally {
      answering = null
    }
  }

  function linesAt(speedMps: number): Promise<RodLine[]> {
    return coreReady.value ? core!.call<RodLine[]>('lines_at', { speed_mps: speedMps, now_s: nowS() }) : getLines(trip.value!.id, speedMps)
  }

  function numberFor(rodId: string, depthM: number): Promise<RodLine> {
    return coreReady.value
      ? core!.call<RodLine>('number_for', { rod_id: rodId, depth_m: depthM })
      : getNumber(trip.value!.id, { rod_id: rodId, depth_m: depthM })
  }

  function planFor(asked: PlanAsked): Promise<PlanView> {
    return coreReady.value ? core!.call<PlanView>('plan', { ...asked, now_s: nowS() }) : getPlan(trip.value!.id, asked)
  }

  function manoeuvreFor(asked: ManoeuvreAsked): Promise<ManoeuvreView> {
    return coreReady.value ? core!.call<ManoeuvreView>('manoeuvre', { ...asked, now_s: nowS() }) : getManoeuvre(trip.value!.id, asked)
  }

  function lineOrders(): Promise<LineOrders> {
    return coreReady.value ? core!.call<LineOrders>('orders', {}) : getOrders(trip.value!.id)
  }

  function benchFor(setup: RodSetup): Promise<BenchView> {
    return coreReady.value ? core!.call<BenchView>('bench', { setup }) : postBench(trip.value!.id, setup)
  }

  function checkSpread(): Promise<SpreadCheck> {
    return coreReady.value ? core!.call<SpreadCheck>('check_spread', {}) : getSpread(trip.value!.id)
  }

  function ladderFor(asked: LadderAsked): Promise<LadderStep[]> {
    return coreReady.value ? core!.call<LadderStep[]>('ladder', { ...asked }) : postLadder(trip.value!.id, asked)
  }

  function beside(): Promise<BesideView> {
    return coreReady.value ? core!.call<BesideView>('beside', {}) : getBeside(trip.value!.id)
  }

  function numbersAt(rodId: string, depthM: number, speedsMps: number[]): Promise<NumberAtSpeed[]> {
    return coreReady.value
      ? core!.call<NumberAtSpeed[]>('numbers_at', { rod_id: rodId, depth_m: depthM, speeds_mps: speedsMps })
      : getNumbers(trip.value!.id, { rod_id: rodId, depth_m: depthM, speed_mps: speedsMps })
  }

  function tightestTurns(): Promise<TightestTurns> {
    return coreReady.value ? core!.call<TightestTurns>('tightest', { now_s: nowS() }) : getTightest(trip.value!.id)
  }

  /** The current from two runs at one throttle: what the GPS showed going up and going down. */
  async function currentFromRuns(upMps: number, downMps: number, towardDeg: number): Promise<{ speed_mps: number; toward_deg: number }> {
    if (!coreReady.value)
      throw new Error('Type the current itself: finding it needs the computation in this browser, which is not running.')
    return core!.call('current_from_runs', { up_mps: upMps, down_mps: downMps, toward_deg: towardDeg })
  }

  /** What the lures feel of a speed that GPS shows on a course. */
  async function throughWater(gpsMps: number, courseDeg: number): Promise<number> {
    if (!coreReady.value) throw new Error('This needs the computation in this browser: wait until it is ready.')
    return core!.call('through_water', { gps_mps: gpsMps, course_deg: courseDeg })
  }

  /** The speed at which a blade swings, from its tip's beat. */
  async function speedAtDepth(rodId: string, beats: number, seconds: number): Promise<{ speed_mps: number; doubt_mps: number }> {
    if (!coreReady.value) throw new Error('Reading the speed from the beat needs the computation in this browser: wait until it is ready.')
    return core!.call('speed_at_depth', { rod_id: rodId, beats, seconds })
  }

  async function setDepth(rodId: string, depthM: number): Promise<boolean> {
    try {
      const line = await numberFor(rodId, depthM)
      return await record('line_set', { rod_id: rodId, setting_m: line.number.setting_m, wanted_depth_m: depthM })
    } catch (error) {
      report(error)
      return false
    }
  }

  async function undo(): Promise<boolean> {
    const target = view.value?.undo_event_id
    return target ? record('undone', { event_id: target }) : false
  }

  function close(): void {
    clearInterval(refresher)
    window.removeEventListener('focus', sync)
    core?.close()
    delivery.value?.close()
    core = null
    delivery.value = null
    trip.value = null
    view.value = null
    coreReady.value = false
    coreFailed.value = false
    notice.value = null
  }

  return {
    trip,
    view,
    coreReady,
    coreFailed,
    loadError,
    notice,
    pending,
    linkDown,
    nowS,
    open,
    close,
    refresh,
    record,
    linesAt,
    numberFor,
    planFor,
    manoeuvreFor,
    lineOrders,
    numbersAt,
    speedAtDepth,
    benchFor,
    checkSpread,
    ladderFor,
    beside,
    currentFromRuns,
    throughWater,
    tightestTurns,
    setDepth,
    undo,
    report,
    attempt,
  }
})
