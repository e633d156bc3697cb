// The only place in the front end where SI becomes what people read, and back.

export type LengthUnit = 'ft' | 'm'
export type TemperatureUnit = '°F' | '°C'
export type SpeedUnit = 'mph' | 'km/h' | 'kn'

export interface UnitChoice {
  length: LengthUnit
  temperature: TemperatureUnit
  speed: SpeedUnit
}

export const FOOT_M = 0.3048
const INCH_M = 0.0254
const SPEED_MPS: Record<SpeedUnit, number> = { mph: 0.44704, 'km/h': 1 / 3.6, kn: 1852 / 3600 }

export const US_UNITS: UnitChoice = { length: 'ft', temperature: '°F', speed: 'mph' }
export const METRIC_UNITS: UnitChoice = { length: 'm', temperature: '°C', speed: 'km/h' }

/** Length of one step that a hand can set: a foot, or a quarter of a metre. */
export function stepM(units: UnitChoice): number {
  return units.length === 'ft' ? FOOT_M : 0.25
}

export function lengthFromM(metres: number, units: UnitChoice): number {
  return units.length === 'ft' ? metres / FOOT_M : metres
}

export function lengthToM(value: number, units: UnitChoice): number {
  return units.length === 'ft' ? value * FOOT_M : value
}

export function speedFromMps(mps: number, units: UnitChoice): number {
  return mps / SPEED_MPS[units.speed]
}

export function speedToMps(value: number, units: UnitChoice): number {
  return value * SPEED_MPS[units.speed]
}

export function temperatureFromC(degc: number, units: UnitChoice): number {
  return units.temperature === '°F' ? degc * 1.8 + 32 : degc
}

export function temperatureToC(value: number, units: UnitChoice): number {
  return units.temperature === '°F' ? (value - 32) / 1.8 : value
}

/** Whole feet, or metres to the half: never a false decimal. */
export function formatLength(metres: number, units: UnitChoice, withUnit = true): string {
  const text = units.length === 'ft' ? String(Math.round(metres / FOOT_M)) : (Math.round(metres * 2) / 2).toFixed(1).replace('.0', '')
  const shown = text === '-0' ? '0' : text
  return withUnit ? `${shown} ${units.length}` : shown
}

/** A depth with its doubt; the doubt is never shown as nothing. */
export function formatDoubt(metres: number, units: UnitChoice): string {
  const value = lengthFromM(metres, units)
  return units.length === 'ft' ? `± ${Math.max(1, Math.round(value))}` : `± ${Math.max(0.5, Math.round(value * 2) / 2)}`
}

export function formatSpeed(mps: number, units: UnitChoice, withUnit = true): string {
  const text = speedFromMps(mps, units).toFixed(1)
  return withUnit ? `${text} ${units.speed}` : text
}

/** A speed as a hand sets it: the nearest tenth, and so many tenths on. */
export function tenthOfSpeed(mps: number, units: UnitChoice, tenthsOn = 0): number {
  const tenths = Math.round(Number((speedFromMps(mps, units) * 10).toFixed(6))) + tenthsOn
  return speedToMps(Math.max(tenths / 10, 0.1), units)
}

export function formatTemperature(degc: number, units: UnitChoice, withUnit = true): string {
  const value = temperatureFromC(degc, units)
  const text = units.temperature === '°F' ? value.toFixed(1).replace(/\.0$/, '') : value.toFixed(1)
  return withUnit ? `${text} ${units.temperature}` : text
}

const EIGHTHS = ['', '⅛', '¼', '⅜', '½', '⅝', '¾', '⅞']

/** A small weight of tackle: ounces to the eighth, or whole grams. */
export function formatWeight(kilograms: number, units: UnitChoice): string {
  const value = tackleWeightFromKg(kilograms, units)
  if (units.length !== 'ft') return `${Math.round(value)} g`
  const eighths = Math.round(value * 8)
  const whole = Math.floor(eighths / 8)
  return `${whole || eighths % 8 === 0 ? whole : ''}${EIGHTHS[eighths % 8]} oz`
}

/** Length of a fish: inches, or whole centimetres. */
export function fishLengthToM(value: number, units: UnitChoice): number {
  return units.length === 'ft' ? value * INCH_M : value / 100
}

/** A fish's length in the reader's unit, rounded as a board is read. */
export function formatFishLength(metres: number, units: UnitChoice): string {
  const value = metres / fishLengthToM(1, units)
  return `${Number(value.toFixed(1))} ${fishLengthUnit(units)}`
}

export function fishLengthUnit(units: UnitChoice): string {
  return units.length === 'ft' ? 'in' : 'cm'
}

/** A short length of tackle: inches, or centimetres. */
export function tackleLengthFromM(metres: number, units: UnitChoice): number {
  return units.length === 'ft' ? metres / INCH_M : metres * 100
}

/** The smallest length of tackle that a hand can tie to: half an inch, or a centimetre; an arrow key's step is twice that. */
export function tieStepM(units: UnitChoice): number {
  return units.length === 'ft' ? INCH_M / 2 : 0.01
}

/** How thick a line is: thousandths of an inch, or hundredths of a millimetre. */
export function formatThickness(metres: number, units: UnitChoice): string {
  return units.length === 'ft' ? `${(metres / INCH_M).toFixed(3)} in` : `${(metres * 1000).toFixed(2)} mm`
}

/** A weight of tackle: ounces, or grams. */
const OUNCE_KG = 0.028349523125

export function tackleWeightFromKg(kilograms: number, units: UnitChoice): number {
  return units.length === 'ft' ? kilograms / OUNCE_KG : kilograms * 1000
}

export function tackleWeightToKg(value: number, units: UnitChoice): number {
  return units.length === 'ft' ? value * OUNCE_KG : value / 1000
}

export function tackleWeightUnit(units: UnitChoice): string {
  return units.length === 'ft' ? 'oz' : 'g'
}

/** A downrigger ball: pounds, or kilograms. */
const POUND_KG = 0.45359237

export function ballFromKg(kilograms: number, units: UnitChoice): number {
  return units.length === 'ft' ? kilograms / POUND_KG : kilograms
}

export function ballToKg(value: number, units: UnitChoice): number {
  return units.length === 'ft' ? value * POUND_KG : value
}

export function ballUnit(units: UnitChoice): string {
  return units.length === 'ft' ? 'lb' : 'kg'
}

/** A way over water: miles, nautical where speed is in knots, or kilometres. */
const MILE_M = 1609.344
const farM = (units: UnitChoice): number => (units.speed === 'kn' ? 1852 : units.speed === 'mph' ? MILE_M : 1000)

export function farFromM(metres: number, units: UnitChoice): number {
  return metres / farM(units)
}

export function farToM(value: number, units: UnitChoice): number {
  return value * farM(units)
}

export function farUnit(units: UnitChoice): string {
  return { kn: 'nmi', mph: 'mi', 'km/h': 'km' }[units.speed]
}
