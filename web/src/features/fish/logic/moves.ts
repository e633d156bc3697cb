// The next move in a few words.
import type { UnitChoice } from '@/shared/units/units'
import type { FishView } from '@/features/trip/api'
import { answerWords } from '@/features/trip/logic/moves'

/** What to do, with its number in the reader's units; or that nothing is worth doing. */
export function moveWords(view: FishView, units: UnitChoice): string {
  if (view.move) return answerWords(view.move.answer, units)
  return view.ended ? 'The trip is over' : 'Keep fishing'
}
