import { describe, expect, it } from 'vitest'
import { CoreError } from '@/shared/core/protocol'
import { describeError } from './describe'
import { METRIC_UNITS, US_UNITS } from './units'

const made = (rest: Partial<CoreError>) =>
  new CoreError({
    code: 'invalid_input',
    field: '',
    message: 'wrong',
    reason: '',
    limit: null,
    low: null,
    high: null,
    ...rest,
    status: undefined,
  })

describe('describeError', () => {
  it('says bounds in the units of the reader', () => {
    const speed = made({ field: 'events[0].payload.speed_mps', low: 0.044704, high: 4.4704 })
    expect(describeError(speed, US_UNITS)).toBe('Speed: set 0.1 mph to 10.0 mph.')
    expect(describeError(speed, METRIC_UNITS)).toBe('Speed: set 0.2 km/h to 16.1 km/h.')
    const cold = made({ field: 'payload.temperature_degc', low: -1, high: 40 })
    expect(describeError(cold, US_UNITS)).toBe('Temperature: set 30.2 °F to 104 °F.')
  })

  it('says how deep a line can go', () => {
    const deep = made({ code: 'too_deep', field: 'depth_m', limit: 4.2672 })
    expect(describeError(deep, US_UNITS)).toBe('Depth: cannot be reached at this speed; deepest is 14 ft.')
    expect(describeError(made({ code: 'too_shallow', field: 'depth_m', limit: 3 }), METRIC_UNITS)).toContain('shallowest is 3 m')
  })

  it('says what the bound is', () => {
    const bottom = made({ field: 'payload.wanted_depth_m', high: 18.9, reason: 'bottom' })
    expect(describeError(bottom, US_UNITS)).toBe('Depth: at most 62 ft, the bottom.')
    expect(
      describeError(made({ field: 'setting_m', high: 90, reason: 'reel', message: 'nothing to read a reason from' }), METRIC_UNITS),
    ).toBe('Line out: at most 90 m, the length on the reel.')
  })

  it('names the row or the reading, and says its value in the units of the reader', () => {
    const air = made({ field: 'row 2.air', message: "row 2.air ('x') must be a number" })
    expect(describeError(air, US_UNITS)).toBe("Row 2, air ('x') must be a number")
    const up = made({ field: 'profile[2].depth_m', message: 'profile[2].depth_m (3.048) must be deeper than the reading before it' })
    expect(describeError(up, US_UNITS)).toBe('Profile 3, depth (10 ft) must be deeper than the reading before it')
    expect(describeError(up, METRIC_UNITS)).toContain('Profile 3, depth (3 m) must be')
    const wide = made({ field: 'row 7.latitude', low: -85, high: 85 })
    expect(describeError(wide, US_UNITS)).toBe('Row 7, latitude: set -85 to 85.')
  })

  it('passes on what it does not know', () => {
    expect(describeError(new Error('link down'), US_UNITS)).toBe('link down')
    expect(describeError(made({ field: 'lure_id', message: 'lure_id must be aboard' }), US_UNITS)).toBe('lure_id must be aboard')
  })
})
