// Written by scripts/write_calls.py from the core's bridge (`make types`): do not edit.
import type { components } from '@/shared/api/schema'

type Schemas = components['schemas']

/** What the core answers: its arguments and its result, by the name of the call. */
export interface CoreCalls {
  /** Open a trip; return how many events it has. */
  open: { args: { trip: Schemas['Trip']; events: Schemas['Event'][] }; result: number }
  /** Add what was tapped here; return its id. */
  add: { args: { event: Schemas['Event'] }; result: string }
  /** Take what others recorded; return how many events there are. */
  merge: { args: { events: Schemas['Event'][] }; result: number }
  /** Take the events anew; return how many there are. */
  replace: { args: { events: Schemas['Event'][] }; result: number }
  /** What Fish shows. */
  view: { args: { now_s: number }; result: Schemas['FishView'] }
  /** The rods alone: what a tap is answered with at once. */
  rods: { args: { now_s: number }; result: Schemas['RodView'][] }
  /** Where all lures are at a speed that is tried. */
  lines_at: { args: { speed_mps: number; now_s?: number | null }; result: Schemas['RodLine'][] }
  /** The number that puts a lure at a depth. */
  number_for: { args: { rod_id: string; depth_m: number; speed_mps?: number | null }; result: Schemas['RodLine'] }
  /** Where a lure is with a number set. */
  where: { args: { rod_id: string; setting_m: number; speed_mps?: number | null }; result: Schemas['RodLine'] }
  /** The numbers that hold a depth at several speeds. */
  numbers_at: { args: { rod_id: string; depth_m: number; speeds_mps: number[] }; result: Schemas['NumberAtSpeed'][] }
  /** The spread from above. */
  plan: { args: { course: string; radius_m?: number | null; rate_degps?: number | null; leeway_deg?: number; now_s?: number | null }; result: Schemas['PlanView'] }
  /** An S-turn or U-turn as it unfolds. */
  manoeuvre: { args: { kind: string; toward: string; radius_m?: number | null; rate_degps?: number | null; now_s?: number | null }; result: Schemas['ManoeuvreView'] }
  /** The way back through a place where something bit. */
  back_through: { args: { now_s: number; target_id?: string | null }; result: Schemas['BackOffer'] }
  /** The smallest safe circles. */
  tightest: { args: { now_s?: number | null }; result: Schemas['TightestTurns'] }
  /** In which order lines go out and come in. */
  orders: { args: Record<string, never>; result: Schemas['LineOrders'] }
  /** The speed at which a blade swings, from its tip's beat. */
  speed_at_depth: { args: { rod_id: string; beats: number; seconds: number }; result: { speed_mps: number; doubt_mps: number } }
  /** The checks beside the boat. */
  beside: { args: Record<string, never>; result: Schemas['BesideView'] }
  /** The speed through the water behind what GPS shows, m/s. */
  through_water: { args: { gps_mps: number; course_deg: number }; result: number }
  /** What is worth recording of a fix that the device's receiver gave. */
  hear_fix: { args: { at_s: number; latitude_deg: number; longitude_deg: number; accuracy_m: number; course_deg?: number | null; speed_mps?: number | null }; result: Schemas['PositionFixed'] | null }
  /** The day by hours, where the trip took a plan along. */
  day: { args: Record<string, never>; result: Schemas['DayView'] | null }
  /** A rod on the bench. */
  bench: { args: { setup: Schemas['RodSetup']; fit?: boolean }; result: Schemas['BenchView'] }
  /** What aboard answers "a little less flash, same thump". */
  ladder: { args: { setup: Schemas['RodSetup']; flash: string; thump: string }; result: Schemas['LadderStep'][] }
  /** What aboard could hang on a rod. */
  shelf: { args: { setup: Schemas['RodSetup'] }; result: Schemas['ShelfPiece'][] }
  /** What the rules say of all rods together. */
  check_spread: { args: Record<string, never>; result: Schemas['SpreadCheck'] }
  /** The current from two runs at one throttle, straight up and straight down it. */
  current_from_runs: { args: { up_mps: number; down_mps: number; toward_deg: number }; result: Schemas['Current'] }
}
