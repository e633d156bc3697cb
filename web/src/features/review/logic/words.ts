// A season in words: what a bar is called, and the one sentence above its chart.
import { fishLengthUnit, formatFishLength, lengthFromM, speedFromMps, temperatureFromC, type UnitChoice } from '@/shared/units/units'
import type { Ledger } from '@/features/trip/api'
import type { Bar, Trend } from '../api'

export const AXIS_NAMES: Record<Trend['axis'], string> = {
  temperature: 'surface temperature',
  depth: 'depth of the lure',
  hour: 'hour of the day',
  colour: 'colour',
  lure: 'lure',
  leader: 'leader behind the attractor',
  attractor: 'attractor',
  setback: 'setback',
  kind: 'kind of rig',
  speed: 'speed through the water',
}
export const KIND_NAMES: Record<Ledger['rows'][number]['kind'], string> = {
  flat: 'flat line',
  weighted: 'weight in line',
  dropper: 'dropper',
  leadcore: 'leadcore',
  downrigger: 'downrigger',
  stacked: 'second line on the cable',
  slider: 'slider',
}
const SAID: Record<Trend['said'], string> = {
  stands_apart: 'It stands apart from the rest.',
  leans: 'It leans that way; more days will tell.',
  nothing: 'None stands apart so far: that is what luck looks like as well.',
  too_little: '',
}

const plain = (value: number): string => `${Math.round(value * 10) / 10}`

/** What a bar is called, in the reader's units. */
export function barName(axis: Trend['axis'], bar: Bar, units: UnitChoice): string {
  if (bar.low === null || bar.high === null)
    return axis === 'kind' ? (KIND_NAMES[bar.name as keyof typeof KIND_NAMES] ?? bar.name) : bar.name
  const ends = [bar.low, bar.high]
  if (axis === 'temperature') return `${ends.map((end) => plain(temperatureFromC(end, units))).join('–')} ${units.temperature}`
  if (axis === 'hour') return `${bar.low}:00–${bar.high}:00`
  if (axis === 'speed') return `${ends.map((end) => plain(speedFromMps(end, units))).join('–')} ${units.speed}`
  if (axis === 'leader') {
    const [low, high] = ends.map((end) => formatFishLength(end, units).split(' ')[0])
    return `${low}–${high} ${fishLengthUnit(units)}`
  }
  return `${ends.map((end) => plain(lengthFromM(end, units))).join('–')} ${units.length}`
}

const hours = (minutes: number): string => `${Math.round(minutes / 60)} rod-hour${Math.round(minutes / 60) === 1 ? '' : 's'}`

/** The sentence above a chart: the best, how sure, and out of how much. */
export function trendSentence(trend: Trend, units: UnitChoice): string {
  const best = trend.best === null ? undefined : trend.bars[trend.best]
  if (!best || trend.said === 'too_little') {
    return `Too little to tell by ${AXIS_NAMES[trend.axis]}: at least two of its bars must have fished five rod-hours, and one had a hit.`
  }
  const rate = (value: number): string => value.toFixed(1)
  const apart = trend.said === 'nothing' ? '' : ` ${Math.round(100 * trend.probability)} % sure that it is above the rest.`
  return (
    `Most hits a rod-hour: ${barName(trend.axis, best, units)}, ${rate(best.rate)} (${rate(best.rate_low)} to ${rate(best.rate_high)}), ` +
    `${best.hits} hit${best.hits === 1 ? '' : 's'} in ${hours(best.minutes)}. ${SAID[trend.said]}${apart}`
  )
}
