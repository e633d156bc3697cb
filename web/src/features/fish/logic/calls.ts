// What is said of a rod that is about to meet the bottom.
import { formatLength, lengthFromM, type UnitChoice } from '@/shared/units/units'
import type { BottomCall, FishView } from '@/features/trip/api'

/** How sure it is, in words: place and depth are in doubt, and so is this. */
const SURE: Record<BottomCall['sure'], string> = {
  meets: 'meets bottom',
  likely: 'will likely touch',
  may: 'may touch',
  near: 'comes near',
}

/** Those that ask for something now. */
export function urgentCalls(view: FishView): BottomCall[] {
  return (view.ahead?.calls ?? []).filter((call) => call.urgency !== 'later')
}

/** Up to a whole step, so that what is done is never too little. */
function upTo(metres: number, units: UnitChoice): string {
  const value = lengthFromM(metres, units)
  return units.length === 'ft' ? `${Math.ceil(value - 0.05)} ft` : `${Math.ceil(value * 2 - 0.05) / 2} m`
}

function say(call: BottomCall, name: string, units: UnitChoice): string {
  if (call.act === 'let_down') return `Let ${name} down ${upTo(call.by_m, units)}: it is off the bottom`
  if (call.act === 'bring_in') return `Bring ${name} in, or turn`
  return `Raise ${name} by ${upTo(call.by_m, units)}, or turn`
}

/** What to do, by when in short, and when and where in full. */
export function callWords(call: BottomCall, name: string, units: UnitChoice): { say: string; time: string; when: string } {
  const bottom = call.act === 'let_down' ? '' : `${SURE[call.sure]}, ${formatLength(call.bottom_m, units)}`
  const time = call.in_s === 0 ? 'now' : call.in_s < 100 ? `${Math.round(call.in_s / 5) * 5} s` : `${Math.round(call.in_s / 60)} min`
  const when = call.in_s === 0 ? `now${bottom && `: ${bottom}`}` : `in ${time}, ${formatLength(call.in_m, units)} on: ${bottom}`
  return { say: say(call, name, units), time, when }
}
