// Where the labels of the column stand: none over another, over a lure or, as far as there is room, over a line.

export interface Box {
  x0: number
  y0: number
  x1: number
  y1: number
}

export type Point = readonly [number, number]

export interface LabelWish {
  id: string
  /** What is labelled. */
  x: number
  y: number
  /** Of the label. */
  width: number
  height: number
}

export interface Surroundings {
  /** What must stay free. */
  taken: Box[]
  /** What should not be crossed. */
  lines: Point[][]
  bounds: Box
}

const CLEAR = 11
const LEVELS = [0, -12, 12, -20, 20, -32, 32, -46, 46, -62, 62]
const SAMPLE = 5

const overlap = (a: Box, b: Box): number =>
  Math.max(Math.min(a.x1, b.x1) - Math.max(a.x0, b.x0), 0) * Math.max(Math.min(a.y1, b.y1) - Math.max(a.y0, b.y0), 0)

const clamp = (value: number, low: number, high: number): number => Math.min(Math.max(value, low), high)

const area = (box: Box): number => (box.x1 - box.x0) * (box.y1 - box.y0)

/** About how much of a line runs through a box, in samples of a few pixels. */
function crossed(line: Point[], box: Box): number {
  let inside = 0
  for (let i = 1; i < line.length; i += 1) {
    const [ax, ay] = line[i - 1]!
    const [bx, by] = line[i]!
    if (Math.max(ax, bx) < box.x0 || Math.min(ax, bx) > box.x1 || Math.max(ay, by) < box.y0 || Math.min(ay, by) > box.y1) continue
    const steps = Math.max(Math.ceil(Math.hypot(bx - ax, by - ay) / SAMPLE), 1)
    for (let step = 0; step < steps; step += 1) {
      const share = (step + 0.5) / steps
      const x = ax + share * (bx - ax)
      const y = ay + share * (by - ay)
      if (x >= box.x0 && x <= box.x1 && y >= box.y0 && y <= box.y1) inside += 1
    }
  }
  return inside
}

function candidates({ x, y, width, height }: LabelWish): Box[] {
  const at = (x0: number, middle: number): Box => ({ x0, y0: middle - height / 2, x1: x0 + width, y1: middle + height / 2 })
  const beside = LEVELS.flatMap((dy) => [at(x + CLEAR + 7, y + dy), at(x - CLEAR - 7 - width, y + dy)])
  const over = LEVELS.filter((dy) => Math.abs(dy) >= 20).map((dy) => at(x - width / 2, y + dy))
  return [...beside, ...over]
}

/** A label in its place; `seat` says which of the places about its lure. */
export interface Seated extends Box {
  seat: number
}

/** So much better another place must be before a label leaves its own: while a lure is dragged it must not jump about. */
const SETTLED = 70

/**
 * Place labels one after the other, the shallowest first, each where it disturbs least and is still near; `before` says
 * where they stood.
 */
export function placeLabels(wishes: LabelWish[], around: Surroundings, before?: Map<string, Seated>): Map<string, Seated> {
  const lures = wishes.map(({ x, y }) => ({ x0: x - CLEAR, y0: y - CLEAR, x1: x + CLEAR, y1: y + CLEAR }))
  const taken = [...around.taken, ...lures]
  const placed = new Map<string, Seated>()
  for (const wish of [...wishes].sort((a, b) => a.y - b.y)) {
    const cost = (box: Box): number => {
      const outside = area(box) - overlap(box, around.bounds)
      const covered = taken.reduce((sum, other) => sum + overlap(box, other), 0)
      const cut = around.lines.reduce((sum, line) => sum + crossed(line, box), 0)
      // A tie that runs past another lure would say its depth of that one.
      const tie = [[wish.x, wish.y] as const, [clamp(wish.x, box.x0, box.x1), clamp(wish.y, box.y0, box.y1)] as const]
      const past = lures.reduce((sum, lure, i) => (wishes[i]!.id === wish.id ? sum : sum + crossed(tie, lure)), 0)
      const away = Math.hypot((box.x0 + box.x1) / 2 - wish.x, 2 * ((box.y0 + box.y1) / 2 - wish.y))
      return 50 * outside + 10 * covered + 25 * cut + 400 * past + away
    }
    const own = before?.get(wish.id)?.seat
    const best = candidates(wish).reduce<{ box: Seated; cost: number } | null>((found, box, seat) => {
      const mine = cost(box) - (seat === own ? SETTLED : 0)
      return found && found.cost <= mine ? found : { box: { ...box, seat }, cost: mine }
    }, null)!
    placed.set(wish.id, best.box)
    taken.push(best.box)
  }
  return placed
}

/** Which of some boxes covers least; none where every one of them would cover something that is taken. */
export function leastCovered(boxes: Box[], taken: Box[], lines: Point[][]): Box | null {
  const covered = (box: Box): number => taken.reduce((sum, other) => sum + overlap(box, other), 0)
  const cost = (box: Box): number => 10 * covered(box) + 25 * lines.reduce((sum, line) => sum + crossed(line, box), 0)
  const best = boxes.reduce((least, box) => (cost(box) < cost(least) ? box : least))
  return covered(best) > 0.05 * area(best) ? null : best
}
