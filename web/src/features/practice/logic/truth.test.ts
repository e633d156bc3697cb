import { describe, expect, it } from 'vitest'
import { FOOT_M, METRIC_UNITS, US_UNITS } from '@/shared/units/units'
import type { TruthView } from '../store'
import { clockOf, depthOption, perRodHour, speedOption } from './truth'

const inks = { ink: '#000', soft: '#444', line: '#ccc', paper: '#fff' }
const view = {
  truth: { minutes: [0, 10], deep_m: [20 * FOOT_M, 30 * FOOT_M], shallow_m: [1, 2], speed_mps: [0.5, 1] },
  day: { minutes: 20 },
  fished: [[2, 18, 10 * FOOT_M, 3]],
  speeds: [
    [-1, 0.5],
    [12, 0.8],
  ],
} as unknown as TruthView

describe('what was hidden', () => {
  it('tells time from the beginning of the day', () => {
    expect(clockOf(0)).toBe('6:30')
    expect(clockOf(35)).toBe('7:05')
  })

  it('stands beside what was fished, in the reader’s units', () => {
    const { series } = depthOption(view, US_UNITS, inks) as unknown as { series: { name: string; data: number[][] }[] }
    expect(series[0]!.data[1]![1]).toBeCloseTo(30)
    expect(series[2]!.data[0]![2]).toBeCloseTo(10)
    expect(series[2]!.data[0]!.slice(0, 2)).toEqual([2, 18])
  })

  it('draws the speed that was set until the end', () => {
    const { series } = speedOption(view, METRIC_UNITS, inks) as unknown as { series: { data: number[][] }[] }
    expect(series[1]!.data).toEqual([
      [0, 1.8],
      [12, 2.88],
      [20, 2.88],
    ])
  })

  it('knows no rate of a rod that was never out', () => {
    expect(perRodHour(3, 0)).toBeNull()
    expect(perRodHour(3, 90)).toBe(2)
  })
})
