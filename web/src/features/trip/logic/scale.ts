// The side view's scale: true where it fits, and honest about it where depth has to be stretched.

export interface ColumnScale {
  /** Pixels per metre behind the boat and below the surface. */
  along: number
  down: number
  /** How much depth is stretched against distance; 1 is true to scale. */
  stretch: number
}

export interface ColumnExtent {
  widthPx: number
  heightPx: number
  longestTrailM: number
  bottomM: number
}

const MOST_STRETCH = 20

/** Fit the longest line and the bottom into the picture. */
export function columnScale(extent: ColumnExtent): ColumnScale {
  const along = extent.widthPx / Math.max(extent.longestTrailM, 10)
  const fits = extent.heightPx / Math.max(extent.bottomM, 2)
  // Deep water under short lines: both axes shrink together. Shallow under long: depth stretches.
  if (fits <= along) return { along: fits, down: fits, stretch: 1 }
  const stretch = Math.min(fits / along, MOST_STRETCH)
  return { along, down: along * stretch, stretch: Math.round(stretch * 10) / 10 }
}

export interface LabelWish {
  id: string
  y: number
}

/** Which labels have room at their own height, the most wanted first: where many crowd, the rest go without. */
export function labelsWithRoom(wishes: LabelWish[], gap: number): Set<string> {
  const kept: LabelWish[] = []
  for (const wish of wishes) if (kept.every((other) => Math.abs(other.y - wish.y) >= gap)) kept.push(wish)
  return new Set(kept.map((wish) => wish.id))
}

const CIVIDIS = ['#00204d', '#31446b', '#666970', '#958f78', '#cbba69', '#ffea46']

/** Colour of a temperature on the perceptually even map, coldest 0 to warmest 1. */
export function cividis(share: number): string {
  const at = Math.min(Math.max(share, 0), 1) * (CIVIDIS.length - 1)
  const index = Math.min(Math.floor(at), CIVIDIS.length - 2)
  const rest = at - index
  const channel = (hex: string, i: number) => parseInt(hex.slice(1 + 2 * i, 3 + 2 * i), 16)
  const mixed = [0, 1, 2].map((i) => Math.round(channel(CIVIDIS[index]!, i) * (1 - rest) + channel(CIVIDIS[index + 1]!, i) * rest))
  return `rgb(${mixed.join(',')})`
}

/** A round step for an axis with about `count` ticks. */
export function tickStep(span: number, count: number): number {
  const rough = span / Math.max(count, 1)
  const power = 10 ** Math.floor(Math.log10(rough))
  return ([1, 2, 5].find((factor) => factor * power >= rough) ?? 10) * power
}
