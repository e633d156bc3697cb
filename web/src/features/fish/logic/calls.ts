// What is said of a rod that is about to meet the bottom.
import { formatLength, lengthFromM, type UnitChoice } from '@/shared/units/units'
import type { BottomCall, FishView, KeepOut } from '@/features/trip/api'

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

const inTime = (seconds: number): string => (seconds < 100 ? `${Math.round(seconds / 5) * 5} s` : `${Math.round(seconds / 60)} min`)

/** What to do, by when in short, and when and where in full. */
export function callWords(call: BottomCall, name: string, units: UnitChoice): { say: string; time: string; when: string } {
  const bottom = call.act === 'let_down' ? '' : `${SURE[call.sure]}, ${formatLength(call.bottom_m, units)}`
  const time = call.in_s === 0 ? 'now' : inTime(call.in_s)
  const when = call.in_s === 0 ? `now${bottom && `: ${bottom}`}` : `in ${time}, ${formatLength(call.in_m, units)} on: ${bottom}`
  return { say: say(call, name, units), time, when }
}

/** Closed water or a hazard: what it is and how near, and by whose word. */
export function keepOutWords(one: KeepOut, units: UnitChoice): { say: string; why: string } {
  const { feature } = one
  const kind = feature.kind === 'hazard' ? 'keep off' : 'closed water'
  const edge = formatLength(Math.abs(one.beyond_m), units)
  const round = `place within ${formatLength(one.place_doubt_m, units)}`
  const say = {
    inside: `Inside ${feature.name}: turn out of it`,
    may_be_inside: `May be inside ${feature.name}: turn away`,
    ahead: `${feature.name} in ${inTime(one.in_s)}: turn before it`,
  }[one.state]
  const where = one.state === 'inside' ? `${edge} past its edge` : `${edge} off`
  const read = feature.rule ? ` “${feature.rule}”, as you read it on ${feature.entered_on}: ${feature.origin}.` : ''
  return { say, why: `${kind}, ${where}, ${round}.${read}` }
}
