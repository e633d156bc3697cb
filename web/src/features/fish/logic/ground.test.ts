import { describe, expect, it } from 'vitest'
import type { Frame, PlanView, Tangle } from '@/features/trip/api'
import { fromBoat, nearestMoment, START, steadyWays, tangleSpot, waysOf } from './ground'

const rod = (behind_m: number, side_m: number): PlanView['rods'][number] => ({
  rod_id: 'a',
  tip_side_m: 0,
  place: { behind_m, side_m },
  speed_mps: 1,
  depth_m: 3,
  depth_change_m: 0,
  clearance_m: 5,
  settle_s: 0,
  path: [
    { behind_m: 0, side_m: 0 },
    { behind_m, side_m },
  ],
})

describe('from the boat to the water', () => {
  it('lays astern against the heading and starboard to the right of it', () => {
    // Heading turned a quarter to starboard: astern is to port of the first course, starboard is back along it.
    const turned = { ahead: 10, starboard: 2, turned: 90 }
    const astern = fromBoat(turned, 5, 0)
    expect(astern.ahead).toBeCloseTo(10)
    expect(astern.starboard).toBeCloseTo(-3)
    const aside = fromBoat(turned, 0, 4)
    expect(aside.ahead).toBeCloseTo(6)
    expect(aside.starboard).toBeCloseTo(2)
    expect(fromBoat(START, 7, -1)).toEqual({ ahead: -7, starboard: -1 })
  })

  it('draws a steady turn as circles about one middle, on the side that is turned to', () => {
    for (const side of [-1, 1] as const) {
      const { boat, lures } = steadyWays([rod(20, side)], 50, side)
      const away = (spot: { ahead: number; starboard: number }): number => Math.hypot(spot.ahead, spot.starboard - 50 * side)
      for (const spot of boat) expect(away(spot)).toBeCloseTo(50)
      const lure = lures.get('a')!
      for (const spot of lure) expect(away(spot)).toBeCloseTo(Math.hypot(20, 49))
      // Both end where boat and lure are now, and come from astern.
      expect(boat.at(-1)!.ahead).toBeCloseTo(0)
      expect(lure.at(-1)!.ahead).toBeCloseTo(-20)
      expect(lure.at(-1)!.starboard).toBeCloseTo(side)
      expect(boat.at(-2)!.ahead).toBeLessThan(0)
      expect(lure.at(-2)!.ahead).toBeLessThan(-20)
    }
  })

  it('draws a straight run as straight lines', () => {
    const { boat } = steadyWays([rod(20, 0)], null, 1)
    expect(boat.every((spot) => spot.starboard === 0)).toBe(true)
    expect(boat.at(-1)!.ahead - boat[0]!.ahead).toBeGreaterThan(20)
  })

  it('follows each lure through the frames of a turn', () => {
    const frame = (turned_deg: number, ahead_m: number): Frame => ({ at_s: 0, turned_deg, ahead_m, starboard_m: 0, rods: [rod(10, 0)] })
    const { boat, lures } = waysOf([frame(0, 0), frame(180, 30)])
    expect(boat.map((spot) => spot.ahead)).toEqual([0, 30])
    // Turned right round, the lure is ahead of the boat, seen along the first course.
    expect(lures.get('a')!.map((spot) => Math.round(spot.ahead))).toEqual([-10, 40])
  })

  it('puts a tangle where the lines are, and finds the moment that is pointed at', () => {
    const tangle = { rod_ids: ['a', 'b'], distance_m: 0.2, behind_m: 18 } as Tangle
    expect(tangleSpot(START, [rod(20, 3)], tangle)).toEqual({ ahead: -18, starboard: 3 })
    const way = [0, 10, 20].map((ahead) => ({ ahead, starboard: 0 }))
    expect(nearestMoment(way, { ahead: 12, starboard: 4 })).toBe(1)
  })
})
