// A decision of a practised day, in words.
import type { Schemas } from '@/shared/api/client'
import { formatFishLength, formatLength, formatSpeed, type UnitChoice } from '@/shared/units/units'

export type Decision = Schemas['Decision']
type Side = Schemas['Side']

/** What was changed on the first of its rods: every dial that reads otherwise afterwards. */
export function changedWords(decision: Decision, units: UnitChoice): string {
  const [before, after] = [decision.before[0]!, decision.after[0]!]
  const dials: [keyof Side, (side: Side) => string][] = [
    ['speed_mps', (side) => formatSpeed(side.speed_mps, units)],
    ['depth_m', (side) => `${formatLength(side.depth_m, units)} down`],
    ['setback_m', (side) => `${formatLength(side.setback_m, units)} back`],
    ['colour', (side) => side.colour],
    ['lure', (side) => side.lure],
    ['leader_m', (side) => (side.leader_m === null ? 'no leader' : `a leader of ${formatFishLength(side.leader_m, units)}`)],
  ]
  const said = dials.map(([, words]) => [words(before), words(after)]).filter(([one, other]) => one !== other)
  return said.map(([one, other]) => `${one} to ${other}`).join(', ') || 'a little'
}

export function worth(decision: Decision): number {
  return decision.changed.at(-1)! - decision.stayed.at(-1)!
}

/** The two sides as lines over a width and a height, the greater of both ends at the top. */
export function sidePaths(decision: Decision, width: number, height: number): { stayed: string; changed: string } {
  const most = Math.max(decision.stayed.at(-1)!, decision.changed.at(-1)!, 0.1)
  const path = (hits: readonly number[]): string =>
    hits
      .map((value, i) => `${((i / Math.max(hits.length - 1, 1)) * width).toFixed(1)},${((1 - value / most) * height).toFixed(1)}`)
      .join(' ')
  return { stayed: path(decision.stayed), changed: path(decision.changed) }
}
