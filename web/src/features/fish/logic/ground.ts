// The water seen from above: what the core says from the boat, laid out on the water that the boat goes over.
import type { Frame, PlanView, Tangle } from '@/features/trip/api'

/** A place on the water, m: along the course on which the turn begins, and to starboard of it. */
export interface Spot {
  ahead: number
  starboard: number
}

/** Where the boat's transom is, and its heading, degrees to starboard of that course. */
export interface Pose extends Spot {
  turned: number
}

export function fromBoat(pose: Pose, behindM: number, sideM: number): Spot {
  const angle = (pose.turned * Math.PI) / 180
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  return { ahead: pose.ahead - behindM * cos - sideM * sin, starboard: pose.starboard - behindM * sin + sideM * cos }
}

export const START: Pose = { ahead: 0, starboard: 0, turned: 0 }

export const poseOf = (frame: Pick<Frame, 'ahead_m' | 'starboard_m' | 'turned_deg'>): Pose => ({
  ahead: frame.ahead_m,
  starboard: frame.starboard_m,
  turned: frame.turned_deg,
})

type Rod = PlanView['rods'][number]

/** The ways that boat and lures go: through a manoeuvre frame by frame, on a circle in a steady turn. */
export interface Ways {
  boat: Spot[]
  lures: Map<string, Spot[]>
}

export function waysOf(frames: Frame[]): Ways {
  const lures = new Map<string, Spot[]>()
  for (const frame of frames) {
    for (const { rod_id, place } of frame.rods) {
      if (place) lures.set(rod_id, [...(lures.get(rod_id) ?? []), fromBoat(poseOf(frame), place.behind_m, place.side_m)])
    }
  }
  return { boat: frames.map(poseOf), lures }
}

/** In a steady turn each goes on a circle about one middle; straight on, along the course. */
export function steadyWays(rods: Rod[], radiusM: number | null, side: -1 | 1): Ways {
  const astern = Math.max(30, ...rods.map((rod) => rod.place?.behind_m ?? 0)) * 1.15
  const way = ({ ahead, starboard }: Spot, back = astern): Spot[] => {
    if (radiusM === null)
      return [
        { ahead: ahead - back, starboard },
        { ahead, starboard },
      ]
    const offset = starboard - side * radiusM
    const from = Math.atan2(ahead, -side * offset)
    const ring = Math.hypot(ahead, offset)
    const sweep = Math.min(back / ring, Math.PI)
    return Array.from({ length: 33 }, (_, i) => {
      const angle = from - sweep + (sweep * i) / 32
      return { ahead: ring * Math.sin(angle), starboard: side * radiusM - side * ring * Math.cos(angle) }
    })
  }
  const lures = rods.flatMap((rod) => {
    if (!rod.place) return []
    return [[rod.rod_id, way(fromBoat(START, rod.place.behind_m, rod.place.side_m), 0.35 * astern)] as const]
  })
  return { boat: way(START), lures: new Map(lures) }
}

/** Where two lines come nearest: on one of them, as far behind as the core says. */
export function tangleSpot(pose: Pose, rods: Rod[], tangle: Tangle): Spot {
  const path = rods.find((rod) => rod.rod_id === tangle.rod_ids[0])?.path ?? []
  const nearest = path.reduce<(typeof path)[number] | null>(
    (best, at) => (best && Math.abs(best.behind_m - tangle.behind_m) <= Math.abs(at.behind_m - tangle.behind_m) ? best : at),
    null,
  )
  return fromBoat(pose, tangle.behind_m, nearest?.side_m ?? 0)
}

/** Which moment of a turn is nearest to a place that is pointed at. */
export function nearestMoment(boat: Spot[], at: Spot): number {
  const away = boat.map((spot) => Math.hypot(spot.ahead - at.ahead, spot.starboard - at.starboard))
  return away.indexOf(Math.min(...away))
}
