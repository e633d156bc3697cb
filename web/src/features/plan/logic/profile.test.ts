import { describe, expect, it } from 'vitest'
import { METRIC_UNITS, US_UNITS } from '@/shared/units/units'
import { readProfile, writeProfile } from './profile'

describe('a profile that is typed', () => {
  it('is read in the units of its reader', () => {
    expect(readProfile('0 10\n5, 9.5\n\n12;6', METRIC_UNITS)).toEqual({
      profile: [
        [0, 10],
        [5, 9.5],
        [12, 6],
      ],
      oxygen: [],
      bad: null,
    })
    const { profile } = readProfile('10 50', US_UNITS)
    expect(profile[0]![0]).toBeCloseTo(3.048)
    expect(profile[0]![1]).toBeCloseTo(10)
  })

  it('goes out as it comes in, oxygen where it was measured', () => {
    const { profile, oxygen } = readProfile('0 50 9.1\n10 48', US_UNITS)
    expect(oxygen).toEqual([[0, 9.1]])
    expect(writeProfile(profile, oxygen, US_UNITS)).toBe('0 50 9.1\n10 48')
    expect(writeProfile(profile, oxygen, METRIC_UNITS)).toBe('0 10 9.1\n3 8.9')
  })

  it('names the line that is none', () => {
    expect(readProfile('0 10\n5 cold', METRIC_UNITS)).toEqual({ profile: [], oxygen: [], bad: 2 })
    expect(readProfile('0 10 3 4', METRIC_UNITS).bad).toBe(1)
    expect(readProfile('', METRIC_UNITS)).toEqual({ profile: [], oxygen: [], bad: null })
  })
})
