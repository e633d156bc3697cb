import { describe, expect, it } from 'vitest'
import { FOOT_M, METRIC_UNITS, US_UNITS } from '@/shared/units/units'
import type { Bar, Trend } from '../api'
import { barName, trendSentence } from './words'

const bar = (change: Partial<Bar>): Bar => ({
  name: '',
  low: null,
  high: null,
  minutes: 600,
  hits: 12,
  hooked: 8,
  landed: 6,
  rate: 1.2,
  rate_low: 0.8,
  rate_high: 1.7,
  is_thin: false,
  ...change,
})
const trend = (change: Partial<Trend>): Trend => ({
  axis: 'depth',
  bars: [bar({ low: 5 * FOOT_M, high: 10 * FOOT_M }), bar({ low: 10 * FOOT_M, high: 15 * FOOT_M, hits: 1, rate: 0.1 })],
  best: 0,
  probability: 0.964,
  said: 'stands_apart',
  unknown_min: 0,
  ...change,
})

describe('bars and their sentence', () => {
  it('are called in the reader’s units', () => {
    expect(barName('depth', bar({ low: 5 * FOOT_M, high: 10 * FOOT_M }), US_UNITS)).toBe('5–10 ft')
    expect(barName('depth', bar({ low: 4, high: 6 }), METRIC_UNITS)).toBe('4–6 m')
    expect(barName('temperature', bar({ low: 80 / 9, high: 10 }), US_UNITS)).toBe('48–50 °F')
    expect(barName('speed', bar({ low: 0.1 / 0.36, high: 0.2 / 0.36 }), METRIC_UNITS)).toBe('1–2 km/h')
    expect(barName('leader', bar({ low: 1.5 * FOOT_M, high: 2 * FOOT_M }), US_UNITS)).toBe('18–24 in')
    expect(barName('hour', bar({ low: 6, high: 7 }), US_UNITS)).toBe('6:00–7:00')
    expect(barName('kind', bar({ name: 'stacked' }), US_UNITS)).toBe('second line on the cable')
    expect(barName('colour', bar({ name: 'pink' }), US_UNITS)).toBe('pink')
  })

  it('say the best, how sure, and out of how much', () => {
    expect(trendSentence(trend({}), US_UNITS)).toBe(
      'Most hits a rod-hour: 5–10 ft, 1.2 (0.8 to 1.7), 12 hits in 10 rod-hours. It stands apart from the rest. 96 % sure that it is above the rest.',
    )
  })

  it('draw no certainty out of three fish', () => {
    expect(trendSentence(trend({ said: 'nothing' }), US_UNITS)).toContain('None stands apart so far')
    expect(trendSentence(trend({ said: 'nothing' }), US_UNITS)).not.toContain('sure')
    expect(trendSentence(trend({ said: 'too_little', best: null }), US_UNITS)).toContain('Too little to tell by depth of the lure')
  })
})
