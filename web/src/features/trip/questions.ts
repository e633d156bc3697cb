// What a place asks of the open trip while a finger drags or a sheet is open: the core answers, or the server.
import {
  getBack,
  getBeside,
  getLines,
  getManoeuvre,
  getNumber,
  getNumbers,
  getOrders,
  getPlan,
  getSpread,
  getTightest,
  postBench,
  postLadder,
  postShelf,
  type LadderAsked,
  type ManoeuvreAsked,
  type PlanAsked,
  type RodSetup,
} from './api'
import { useTripStore } from './store'

/** Some questions have no answer at the server: they say what they wait for. */
function needsCore(why: string): () => Promise<never> {
  return () => Promise.reject(new Error(`${why} needs the computation in this browser: wait until it is ready.`))
}

export function useQuestions() {
  const trip = useTripStore()
  const { ask } = trip

  const linesAt = (speedMps: number) => ask('lines_at', { speed_mps: speedMps, now_s: trip.nowS() }, (id) => getLines(id, speedMps))
  const numberFor = (rodId: string, depthM: number) => {
    const asked = { rod_id: rodId, depth_m: depthM }
    return ask('number_for', asked, (id) => getNumber(id, asked))
  }
  return {
    linesAt,
    numberFor,
    plan: (asked: PlanAsked) => ask('plan', { ...asked, now_s: trip.nowS() }, (id) => getPlan(id, asked)),
    manoeuvre: (asked: ManoeuvreAsked) => ask('manoeuvre', { ...asked, now_s: trip.nowS() }, (id) => getManoeuvre(id, asked)),
    orders: () => ask('orders', {}, getOrders),
    back: (targetId?: string) => ask('back_through', { now_s: trip.nowS(), target_id: targetId ?? null }, (id) => getBack(id, targetId)),
    tightest: () => ask('tightest', { now_s: trip.nowS() }, getTightest),
    numbersAt: (rodId: string, depthM: number, speedsMps: number[]) =>
      ask('numbers_at', { rod_id: rodId, depth_m: depthM, speeds_mps: speedsMps }, (id) =>
        getNumbers(id, { rod_id: rodId, depth_m: depthM, speed_mps: speedsMps }),
      ),
    bench: (setup: RodSetup) => ask('bench', { setup, fit: true }, (id) => postBench(id, setup)),
    shelf: (setup: RodSetup) => ask('shelf', { setup }, (id) => postShelf(id, setup)),
    checkSpread: () => ask('check_spread', {}, getSpread),
    ladder: (asked: LadderAsked) => ask('ladder', asked, (id) => postLadder(id, asked)),
    beside: () => ask('beside', {}, getBeside),
    /** The current from two runs at one throttle: what the GPS showed going up and going down. */
    currentFromRuns: (upMps: number, downMps: number, towardDeg: number) =>
      ask('current_from_runs', { up_mps: upMps, down_mps: downMps, toward_deg: towardDeg }, needsCore('Finding the current')),
    /** What the lures feel of a speed that GPS shows on a course. */
    throughWater: (gpsMps: number, courseDeg: number) =>
      ask('through_water', { gps_mps: gpsMps, course_deg: courseDeg }, needsCore('The speed through the water')),
    /** The speed at which a blade swings, from its tip's beat. */
    speedAtDepth: (rodId: string, beats: number, seconds: number) =>
      ask('speed_at_depth', { rod_id: rodId, beats, seconds }, needsCore('Reading the speed from the beat')),
    /** Put a rod's lure at a depth: its number is found, and kept. */
    async setDepth(rodId: string, depthM: number): Promise<boolean> {
      try {
        const line = await numberFor(rodId, depthM)
        return await trip.record('line_set', { rod_id: rodId, setting_m: line.number.setting_m, wanted_depth_m: depthM })
      } catch (error) {
        trip.report(error)
        return false
      }
    },
  }
}
