// The next move in a few words.
import { formatLength, formatSpeed, type UnitChoice } from '@/shared/units/units'
import type { FishView } from '@/features/trip/api'

/** What to do, with its number in the reader's units; or that nothing is worth doing. */
export function moveWords(view: FishView, units: UnitChoice): string {
  const answer = view.move?.answer
  if (!answer) return view.ended ? 'The trip is over' : 'Keep fishing'
  const { speed_changed: speed, line_set: line } = answer.change
  if (speed) return `${answer.title} to ${formatSpeed(speed.speed_mps, units)}`
  const rod = view.rods.find((candidate) => candidate.id === answer.rod_id)
  if (line && rod) {
    // A line of its own depth is let out; any other is set to one.
    const depth = line.wanted_depth_m
    return depth ? `Set ${rod.name} to ${formatLength(depth, units)}` : `Let ${rod.name} out to ${formatLength(line.setting_m, units)}`
  }
  return answer.title
}
