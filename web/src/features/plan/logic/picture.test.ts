import { describe, expect, it } from 'vitest'
import { bandPieces, depthShare, depthTicks, drawn, temperatureAt } from './picture'

describe('the picture of a day', () => {
  it('gives the upper water the room it needs, top to bottom', () => {
    expect(depthShare(0, 40)).toBe(0)
    expect(depthShare(40, 40)).toBe(1)
    expect(depthShare(10, 40)).toBe(0.5)
    expect(depthShare(99, 40)).toBe(1)
  })

  it('writes depths that do not crowd, in order', () => {
    for (const deepest of [8, 24, 140, 900]) {
      const ticks = depthTicks(deepest)
      expect(ticks.length).toBeGreaterThan(1)
      expect([...ticks].sort((a, b) => a - b)).toEqual(ticks)
      const shares = ticks.map((tick) => Math.sqrt(tick / deepest))
      shares.slice(1).forEach((share, i) => expect(share - shares[i]!).toBeGreaterThan(0.07))
    }
  })

  it('joins a layer only between hours that both have it', () => {
    const hours = [
      { at_s: 0, layers: [{ top_m: 1, base_m: 3 }] },
      {
        at_s: 10,
        layers: [
          { top_m: 2, base_m: 4 },
          { top_m: 6, base_m: 8 },
        ],
      },
      { at_s: 20, layers: [] },
    ]
    expect(bandPieces(hours, (hour) => hour.layers)).toEqual([[0, 1, 3, 10, 2, 4]])
  })

  it('finds the temperature between hours and depths', () => {
    const view = {
      depths_m: [0.3, 10.3],
      hours: [{ profile_degc: [10, 5] }, { profile_degc: [14, 5] }],
    } as unknown as Parameters<typeof temperatureAt>[0]
    expect(temperatureAt(view, 0, 0.3)).toBeCloseTo(10)
    expect(temperatureAt(view, 0, 0)).toBeCloseTo(10)
    expect(temperatureAt(view, 1, 0.3)).toBeCloseTo(14)
    expect(temperatureAt(view, 0.5, 5.3)).toBeCloseTo(0.5 * 12 + 0.5 * 5)
    expect(temperatureAt(view, 0.5, 80)).toBeCloseTo(5)
  })

  it('draws over every hour that a fast finger passed', () => {
    expect(drawn([0, 0, 0, 0, 0], null, { hour: 2, value: 5 })).toEqual([0, 0, 5, 0, 0])
    expect(drawn([0, 0, 0, 0, 0], { hour: 0, value: 0 }, { hour: 4, value: 8 })).toEqual([0, 2, 4, 6, 8])
    expect(drawn([1, 1, 1, 1, 1], { hour: 3, value: 6 }, { hour: 1, value: 2 })).toEqual([1, 2, 4, 6, 1])
  })
})
