import { describe, expect, it } from 'vitest'
import { tripNowS } from './clock'

describe('the clock of a trip', () => {
  it('is the wall’s but for its shift', () => {
    expect(tripNowS({ clock_shift_s: 100 }, 1000)).toBe(900)
    expect(tripNowS(null, 1000)).toBe(1000)
  })

  it('goes at its own pace from the moment at which the shift held, and stands at none', () => {
    const fast = { clock_shift_s: 100, clock_set_s: 1000, clock_pace: 20 }
    expect(tripNowS(fast, 1000)).toBe(900)
    expect(tripNowS(fast, 1003)).toBe(960)
    expect(tripNowS({ ...fast, clock_pace: 0 }, 1003)).toBe(900)
  })
})
