// Kinds of quantity, as people write them: from SI to a text that can be typed, and back.
import { parseNumber } from './parse'
import {
  ballFromKg,
  ballToKg,
  ballUnit,
  farFromM,
  farToM,
  farUnit,
  fishLengthToM,
  fishLengthUnit,
  lengthFromM,
  lengthToM,
  speedFromMps,
  speedToMps,
  tackleLengthFromM,
  tackleWeightFromKg,
  tackleWeightToKg,
  tackleWeightUnit,
  temperatureFromC,
  temperatureToC,
  type UnitChoice,
} from './units'

export type Measure =
  'short' | 'long' | 'far' | 'weight' | 'ball' | 'speed' | 'temperature' | 'warmth' | 'minutes' | 'hours' | 'degrees' | 'share' | 'count'

/** What stands in a number field: a quantity in SI, nothing, or what was typed and is no number. */
export type Typed = number | null | string

interface Kind {
  unit: (units: UnitChoice) => string
  from: (si: number, units: UnitChoice) => number
  to: (shown: number, units: UnitChoice) => number
  /** How many figures say enough; nothing is kept of the rounding. */
  figures: number
}

const plain = { unit: () => '', from: (value: number) => value, to: (value: number) => value }
/** A difference of temperatures: degrees of the reader's scale for one of SI's. */
const perK = (units: UnitChoice): number => (units.temperature === '°F' ? 1.8 : 1)
const KINDS: Record<Measure, Kind> = {
  short: { unit: fishLengthUnit, from: tackleLengthFromM, to: fishLengthToM, figures: 4 },
  far: { unit: farUnit, from: farFromM, to: farToM, figures: 3 },
  long: { unit: (units) => units.length, from: lengthFromM, to: lengthToM, figures: 4 },
  weight: { unit: tackleWeightUnit, from: tackleWeightFromKg, to: tackleWeightToKg, figures: 4 },
  ball: { unit: ballUnit, from: ballFromKg, to: ballToKg, figures: 3 },
  speed: { unit: (units) => units.speed, from: speedFromMps, to: speedToMps, figures: 3 },
  temperature: { unit: (units) => units.temperature, from: temperatureFromC, to: temperatureToC, figures: 4 },
  warmth: {
    unit: (units) => units.temperature,
    from: (k, units) => k * perK(units),
    to: (shown, units) => shown / perK(units),
    figures: 3,
  },
  minutes: { unit: () => 'min', from: (s) => s / 60, to: (min) => min * 60, figures: 4 },
  hours: { unit: () => 'h', from: (min) => min / 60, to: (h) => Math.round(h * 60), figures: 4 },
  degrees: { ...plain, unit: () => '°', figures: 9 },
  share: { ...plain, figures: 3 },
  count: { ...plain, figures: 6 },
}

export function unitOf(measure: Measure, units: UnitChoice): string {
  return KINDS[measure].unit(units)
}

/** A quantity as a text that could have been typed. */
export function shownIn(si: number, measure: Measure, units: UnitChoice): string {
  const { from, figures } = KINDS[measure]
  return String(Number(from(si, units).toPrecision(figures)))
}

/** What was typed, in SI; null when it is no number. */
export function readIn(typed: string, measure: Measure, units: UnitChoice): number | null {
  const value = parseNumber(typed)
  return value === null ? null : KINDS[measure].to(value, units)
}

/** The quantity in a field, or an error that names what was to be typed there. */
export function settled(value: Typed, what: string): number {
  if (typeof value === 'number') return value
  throw new Error(value === null || value.trim() === '' ? `${what} is needed.` : `${what}: “${value}” is no number.`)
}
