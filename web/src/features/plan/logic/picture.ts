// Where things stand in the picture of a day: hours along, depth down. No rule of the trade in here.
import type { DayView } from '../api'

export interface Span {
  first: number
  last: number
}

/** Depth down the picture, as a share: the upper water has the room that it needs. */
export const depthShare = (depthM: number, deepestM: number): number => Math.sqrt(Math.min(Math.max(depthM, 0), deepestM) / deepestM)

/** Depths that are written beside the picture, in the reader's own unit. */
export function depthTicks(deepest: number): number[] {
  const ticks = [2, 5, 10, 20, 40, 60, 80, 120, 160, 240, 320, 480, 640, 960].filter((tick) => tick < 0.93 * deepest)
  // Where they crowd, every other one goes.
  const shares = (list: number[]) => list.map((tick) => Math.sqrt(tick / deepest))
  return ticks.filter((_, i) => i === ticks.length - 1 || shares(ticks)[i + 1]! - shares(ticks)[i]! > 0.07)
}

export interface Layer {
  top_m: number
  base_m: number
}

/** Quadrilaterals between neighbouring hours that both have a layer: [x0, top0, base0, x1, top1, base1]. */
export function bandPieces<T extends { at_s: number }>(hours: readonly T[], layers: (hour: T) => readonly Layer[]): number[][] {
  const pieces: number[][] = []
  hours.slice(1).forEach((hour, i) => {
    const before = hours[i]!
    layers(hour).forEach((layer, nth) => {
      const old = layers(before)[nth]
      if (old) pieces.push([before.at_s, old.top_m, old.base_m, hour.at_s, layer.top_m, layer.base_m])
    })
  })
  return pieces
}

/** Temperature of the column at an hour's share along and a depth's share down, between those that are known. */
export function temperatureAt(view: Pick<DayView, 'hours' | 'depths_m'>, along: number, depthM: number): number {
  const { hours, depths_m: depths } = view
  const at = along * (hours.length - 1)
  const i = Math.min(Math.floor(at), hours.length - 2)
  let k = depths.findIndex((depth) => depth >= depthM)
  if (k === -1) k = depths.length - 1
  const below = depths[k]!
  const above = depths[Math.max(k - 1, 0)]!
  const down = below === above ? 0 : Math.min(Math.max((depthM - above) / (below - above), 0), 1)
  const mixed = (row: readonly number[]) => row[Math.max(k - 1, 0)]! * (1 - down) + row[k]! * down
  const share = at - i
  return mixed(hours[i]!.profile_degc) * (1 - share) + mixed(hours[i + 1]!.profile_degc) * share
}

/** A value dragged over the hours: those between the last place and this one get what lies between. */
export function drawn(
  values: readonly number[],
  from: { hour: number; value: number } | null,
  to: { hour: number; value: number },
): number[] {
  const next = [...values]
  const start = from ?? to
  const [low, high] = [Math.min(start.hour, to.hour), Math.max(start.hour, to.hour)]
  for (let hour = low; hour <= high; hour += 1) {
    const share = to.hour === start.hour ? 1 : (hour - start.hour) / (to.hour - start.hour)
    if (hour >= 0 && hour < next.length) next[hour] = start.value + share * (to.value - start.value)
  }
  return next
}
