// What may be said of a change: never more than the rods that were left alone bear out.
import type { FishView } from '../api'
import { formatPercent } from './format'

export function verdictWords(move: FishView['judged'][number]): string {
  if (move.lack === 'no_control')
    return 'too early to tell, for no rod fished on beside it unchanged: only going back and forth can tell it from the clock'
  const { verdict, probability } = move.result
  if (verdict === 'too_early') return move.lack === 'minutes' ? 'too early to tell, both sides need 20 rod-minutes' : 'too early to tell'
  const sure = formatPercent(verdict === 'worse' ? 1 - probability : probability)
  return `${verdict === 'better' ? 'it helped' : 'it made it worse'} (${sure}, against the rods that were left alone)`
}
