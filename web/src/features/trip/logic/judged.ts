// What may be said of a change: never more than the rods that were left alone bear out.
import type { FishView } from '../api'
import { formatPercent } from './format'

type Judged = FishView['judged'][number]

export function verdictWords(move: Judged): string {
  if (move.lack === 'no_control')
    return 'too early to tell, for no rod fished on beside it unchanged: only going back and forth can tell it from the clock'
  const { verdict, probability, alike } = move.result
  if (verdict === 'too_early') return `too early to tell${soon(move)}`
  if (verdict === 'no_difference')
    return `no difference seen (${formatPercent(alike)} that it earns neither twice nor half, against the rods that were left alone)`
  const sure = formatPercent(verdict === 'worse' ? 1 - probability : probability)
  return `${verdict === 'better' ? 'it helped' : 'it made it worse'} (${sure}, against the rods that were left alone)`
}

/** When it can be told, if it goes on as it has since the change. */
function soon(move: Judged): string {
  if (move.ended) return ', and it was changed again'
  if (move.lack === 'minutes') return ', both sides need 20 rod-minutes'
  return move.more_min ? `; at this rate some ${move.more_min} min more` : '; at this rate not within four hours'
}

/** The numbers behind it: what was changed, and what the clock did to the rods that were not. */
export function verdictNumbers(move: Judged): string {
  const told = `Changed: ${rate(move.before)} before, ${rate(move.after)} since.`
  const { control_before: before, control: since } = move
  if (!since.minutes || !before.minutes) return told
  const bite = before.hits ? since.hits / since.minutes / (before.hits / before.minutes) : 0
  return `${told} Left alone: ${rate(before)} before, ${rate(since)} since${bite ? `: the bite itself × ${bite.toFixed(1)}` : ''}.`
}

const rate = ({ hits, minutes }: Judged['after']): string => `${hits} ${hits === 1 ? 'hit' : 'hits'} in ${Math.round(minutes)} rod-min`
