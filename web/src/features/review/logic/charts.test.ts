import { describe, expect, it } from 'vitest'
import { US_UNITS } from '@/shared/units/units'
import type { Bar, SeasonDay, Trend } from '../api'
import { daysOption, trendOption } from './charts'

const inks = { ink: '#000', soft: '#444', line: '#ccc', paper: '#fff' }
const bar = (name: string, rate: number, rate_high: number, is_thin = false): Bar => ({
  name,
  low: null,
  high: null,
  minutes: 600,
  hits: 3,
  hooked: 2,
  landed: 1,
  rate,
  rate_low: 0,
  rate_high,
  is_thin,
})
const trend: Trend = {
  axis: 'colour',
  bars: [bar('pink', 1, 2), bar('silver', 0.2, 9, true)],
  best: 0,
  probability: 0.9,
  said: 'leans',
  unknown_min: 0,
}
const day = (change: Partial<SeasonDay>): SeasonDay => ({
  trip_id: null,
  name: '',
  water_name: '',
  day: '2026-04-14',
  minutes: 60,
  hits: 0,
  landed: 0,
  kept: 0,
  cast_landed: 0,
  warm_first_degc: null,
  warm_last_degc: null,
  marks_m: null,
  fished_m: null,
  best: '',
  ...change,
})

describe('the charts of a season', () => {
  it('stand the first bar on top, and are no wider for what fished too little', () => {
    const option = trendOption(trend, US_UNITS, inks) as unknown as { yAxis: { data: string[] }; xAxis: { max: number } }
    expect(option.yAxis.data).toEqual(['silver', 'pink'])
    expect(option.xAxis.max).toBeCloseTo(3.2)
  })

  it('draw both pictures of the days over the same time, each value where it was read', () => {
    const days = [day({ day: '2026-04-01', warm_last_degc: 10 }), day({ day: '2026-04-14', fished_m: 3.048, landed: 2 })]
    const { xAxis, series } = daysOption(days, US_UNITS, inks) as unknown as {
      xAxis: { min: number; max: number }[]
      series: { data: unknown[] }[]
    }
    expect(xAxis[0]!.min).toBe(xAxis[1]!.min)
    expect(xAxis[0]!.max).toBe(xAxis[1]!.max)
    expect(series.map((one) => one.data)).toEqual([
      [
        ['2026-04-01', 0],
        ['2026-04-14', 2],
      ],
      [['2026-04-01', 50]],
      [['2026-04-14', 10]],
      // As many bars below as above: they widen what they stand on.
      [
        ['2026-04-01', 0],
        ['2026-04-14', 0],
      ],
    ])
  })
})
