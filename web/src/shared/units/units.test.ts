import { describe, expect, it } from 'vitest'
import { parseNumber } from './parse'
import * as units from './units'

const US = units.US_UNITS
const METRIC = units.METRIC_UNITS

describe('units', () => {
  it('shows whole feet and half metres, never false decimals', () => {
    expect(units.formatLength(44 * 0.3048, US)).toBe('44 ft')
    expect(units.formatLength(13.31, METRIC)).toBe('13.5 m')
    expect(units.formatLength(13.02, METRIC)).toBe('13 m')
    expect(units.formatLength(-0.01, US)).toBe('0 ft')
  })

  it('never shows a doubt of nothing', () => {
    expect(units.formatDoubt(0.01, US)).toBe('± 1')
    expect(units.formatDoubt(0.61, US)).toBe('± 2')
    expect(units.formatDoubt(0.01, METRIC)).toBe('± 0.5')
  })

  it('converts by the exact definitions', () => {
    // International mile 1609.344 m, nautical mile 1852 m.
    expect(units.speedToMps(1, US)).toBeCloseTo(1609.344 / 3600, 12)
    expect(units.speedToMps(1, { ...US, speed: 'kn' })).toBeCloseTo(1852 / 3600, 12)
    expect(units.temperatureFromC(100, US)).toBeCloseTo(212, 12)
    expect(units.fishLengthToM(13, US)).toBeCloseTo(0.3302, 12)
    expect(units.fishLengthToM(33, METRIC)).toBeCloseTo(0.33, 12)
  })

  it('weighs small tackle in eighths of an ounce, or in grams', () => {
    const ounce = 0.028349523125
    expect([0, 3 / 8, 0.5, 1, 1.74].map((weight) => units.formatWeight(weight * ounce, US))).toEqual([
      '0 oz',
      '⅜ oz',
      '½ oz',
      '1 oz',
      '1¾ oz',
    ])
    expect(units.formatWeight(0.0106, METRIC)).toBe('11 g')
  })

  it.each([US, METRIC])('gives back what was put in', (choice) => {
    expect(units.lengthFromM(units.lengthToM(7.3, choice), choice)).toBeCloseTo(7.3, 12)
    expect(units.speedFromMps(units.speedToMps(1.8, choice), choice)).toBeCloseTo(1.8, 12)
    expect(units.temperatureToC(units.temperatureFromC(9.4, choice), choice)).toBeCloseTo(9.4, 12)
  })

  it('reads what people type and says no to what is no number', () => {
    expect([' 1.8 ', '1,8', '.5', '-2', '40'].map(parseNumber)).toEqual([1.8, 1.8, 0.5, -2, 40])
    expect(['', 'abc', '1.8.2', '1e5', 'NaN', '∞', '1 8'].map(parseNumber)).toEqual(Array(7).fill(null))
  })
})
