import { describe, expect, it } from 'vitest'
import { METRIC_UNITS, US_UNITS } from '@/shared/units/units'
import type { LineNumber } from '@/features/trip/api'
import { makeEvent } from '@/features/trip/logic/events'
import { formatClock, formatDepth, formatElapsed, formatNumber, formatPercent } from '@/features/trip/logic/format'
import type { FishView } from '@/features/trip/api'
import { KEYS, keyAct } from './keys'
import { moveWords } from './moves'
import { leastCovered, placeLabels, type Box, type LabelWish } from './labels'
import { cividis, columnScale, labelsWithRoom, tickStep } from '@/features/trip/logic/scale'
import { SHAPE_POINTS } from '@/features/trip/logic/shapes'

const FT = 0.3048
const number = (kind: LineNumber['kind'], rest: Partial<LineNumber>): LineNumber => ({
  kind,
  setting_m: 0,
  colours: 0,
  rest_m: 0,
  backing_m: 0,
  ...rest,
})

const bounds: Box = { x0: 0, y0: 0, x1: 400, y1: 300 }
const wish = (id: string, x: number, y: number): LabelWish => ({ id, x, y, width: 80, height: 16 })
const meet = (a: Box, b: Box): boolean => a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1

describe('labels of the column', () => {
  it('cover neither each other nor a lure, and stay inside, however close the lures are', () => {
    const wishes = [wish('a', 200, 100), wish('b', 206, 104), wish('c', 196, 112), wish('d', 390, 20), wish('e', 6, 290)]
    const placed = [...placeLabels(wishes, { taken: [], lines: [], bounds }).values()]
    expect(placed).toHaveLength(5)
    placed.forEach((box, i) => {
      expect(box.x0 >= 0 && box.x1 <= 400 && box.y0 >= 0 && box.y1 <= 300).toBe(true)
      placed.slice(i + 1).forEach((other) => expect(meet(box, other)).toBe(false))
      wishes.forEach(({ x, y }) => expect(meet(box, { x0: x - 8, y0: y - 8, x1: x + 8, y1: y + 8 })).toBe(false))
    })
  })

  it('of two lures nearly on top of each other stand above the upper and below the lower', () => {
    const wishes = [
      { id: 'upper', x: 553, y: 141, width: 89, height: 17 },
      { id: 'lower', x: 544, y: 152, width: 67, height: 17 },
      { id: 'other', x: 486, y: 117, width: 59, height: 17 },
    ]
    const to = (x: number, y: number, end = 97) => [[x, y] as const, [794, end] as const]
    const placed = placeLabels(wishes, {
      taken: [],
      lines: [to(553, 141), to(544, 152, 143), to(486, 117), to(277, 194)],
      bounds: { x0: 74, y0: 107, x1: 852, y1: 340 },
    })
    expect(placed.get('upper')!.y1).toBeLessThan(141)
    expect(placed.get('lower')!.y0).toBeGreaterThan(152)
  })

  it('keep their place while a lure is dragged, until it is really worse', () => {
    const free = { taken: [], lines: [], bounds }
    const above = placeLabels([wish('a', 200, 150)], free)
    expect(above.get('a')!.y1).toBeLessThan(150)
    const crowded = { ...free, taken: [{ x0: 60, y0: 0, x1: 340, y1: 149 }] }
    const below = placeLabels([wish('a', 200, 150)], crowded, above)
    expect(below.get('a')!.y0).toBeGreaterThan(150)
    // Free again, it stays where it went; a fresh one would stand above.
    for (const y of [150, 152, 155]) expect(placeLabels([wish('a', 200, y)], free, below).get('a')!.y0).toBeGreaterThan(y)
    expect(placeLabels([wish('a', 200, 155)], free).get('a')!.y1).toBeLessThan(155)
  })

  it('leave a line free where there is room beside it', () => {
    const line = [
      [200, 100],
      [400, 100],
    ] as const
    const box = placeLabels([wish('a', 200, 100)], { taken: [], lines: [[...line]], bounds }).get('a')!
    expect(box.y1 < 100 || box.y0 > 100 || box.x1 < 200).toBe(true)
  })

  it('take the first of several places that covers least', () => {
    const at = (x0: number): Box => ({ x0, y0: 0, x1: x0 + 50, y1: 10 })
    expect(leastCovered([at(0), at(60), at(120)], [at(10)], [])?.x0).toBe(60)
    expect(leastCovered([at(0), at(60)], [], [])?.x0).toBe(0)
    expect(leastCovered([at(0), at(5)], [at(3)], [])).toBeNull()
  })
})

describe('format', () => {
  it('writes numbers as they are counted on the water', () => {
    expect(formatNumber(number('counter', { setting_m: 44 * FT }), US_UNITS)).toBe('44 ft cable')
    expect(formatNumber(number('line_out', { setting_m: 100 * FT }), US_UNITS)).toBe('100 ft out')
    expect(formatNumber(number('colours', { colours: 3, rest_m: 12 * FT }), US_UNITS)).toBe('3 colours + 12 ft')
    expect(formatNumber(number('colours', { colours: 1, rest_m: 0.02 }), US_UNITS)).toBe('1 colour')
    expect(formatNumber(number('colours', { colours: 10, backing_m: 30 }), METRIC_UNITS)).toBe('10 colours + 30 m backing')
  })

  it('writes depths with their doubt', () => {
    expect(formatDepth({ depth_m: 44 * FT, doubt_m: 2 * FT, shallow_m: 42 * FT, deep_m: 46 * FT, at_surface: false }, US_UNITS)).toBe(
      '44 ft ± 2',
    )
    expect(formatDepth({ depth_m: 44 * FT, doubt_m: null, shallow_m: null, deep_m: null, at_surface: false }, US_UNITS)).toBe('44 ft')
    expect(formatDepth({ depth_m: 0, doubt_m: 1, shallow_m: 0, deep_m: 2, at_surface: true }, US_UNITS)).toBe('at the surface')
    // A lopsided band says both of its ends.
    expect(formatDepth({ depth_m: 25 * FT, doubt_m: 6 * FT, shallow_m: 19 * FT, deep_m: 32 * FT, at_surface: false }, US_UNITS)).toBe(
      '25 ft, 19–32',
    )
  })

  it('writes clocks', () => {
    expect(formatElapsed(1000, 1000 + 61)).toBe('1 min')
    expect(formatElapsed(1000, 1000 + 80 * 60)).toBe('1 h 20')
    expect(formatElapsed(null, 0)).toBe('–')
    // 2026-04-14 17:40 UTC at UTC-7.
    expect(formatClock(Date.UTC(2026, 3, 14, 17, 40) / 1000, -420)).toBe('10:40')
  })

  it('never writes a certainty', () => {
    expect([0, 0.5, 1].map(formatPercent)).toEqual(['1 %', '50 %', '99 %'])
  })
})

describe('scale', () => {
  it('is true to scale where the water is deep for its length', () => {
    const scale = columnScale({ widthPx: 600, heightPx: 300, longestTrailM: 30, bottomM: 40 })
    expect(scale.along).toBe(scale.down)
    expect(scale.down * 40).toBeCloseTo(300)
  })

  it('says how much depth is stretched where it is shallow', () => {
    const scale = columnScale({ widthPx: 600, heightPx: 300, longestTrailM: 60, bottomM: 15 })
    expect(scale.stretch).toBeCloseTo(scale.down / scale.along, 1)
    expect(scale.down * 15).toBeLessThanOrEqual(300.001)
    expect(columnScale({ widthPx: 600, heightPx: 300, longestTrailM: 120, bottomM: 1 }).stretch).toBe(20)
  })

  it('gives a label to the most wanted of those that crowd, and to all that stand apart', () => {
    const kept = labelsWithRoom(
      [
        { id: 'newest', y: 12 },
        { id: 'beside it', y: 20 },
        { id: 'apart', y: 96 },
        { id: 'one gap off', y: 86 },
      ],
      10,
    )
    expect([...kept]).toEqual(['newest', 'apart', 'one gap off'])
  })

  it('runs the temperature map from its first colour to its last, clamped', () => {
    expect(cividis(0)).toBe('rgb(0,32,77)')
    expect(cividis(1)).toBe('rgb(255,234,70)')
    expect(cividis(9)).toBe(cividis(1))
  })

  it('chooses round steps', () => {
    expect([62, 18, 140, 3].map((span) => tickStep(span, 6))).toEqual([20, 5, 50, 0.5])
  })
})

describe('the next move in words', () => {
  it('says what to do, that nothing is worth it, or that the day is done', () => {
    const move = { answer: { title: 'Change Port to gold', change: {} } }
    const words = (view: object): string => moveWords(view as FishView, US_UNITS)
    expect(words({ move, ended: false })).toBe('Change Port to gold')
    expect(words({ move: null, ended: false })).toBe('Keep fishing')
    expect(words({ move: null, ended: true })).toBe('The trip is over')
  })
})

describe('events', () => {
  it('makes a new id each time and keeps the time to the millisecond', () => {
    const one = makeEvent('hit', { rod_id: 'rod-1' }, 12.34567)
    const two = makeEvent('hit', { rod_id: 'rod-1' }, 12.34567)
    expect(one.id).not.toBe(two.id)
    expect(one.id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
    expect(one.at_s).toBe(12.346)
  })
})

describe('keys', () => {
  const press = (key: string, more = {}) => ({ key, ctrlKey: false, metaKey: false, altKey: false, ...more })

  it('has one key for every act', () => {
    expect(new Set(KEYS.map((key) => key.key)).size).toBe(KEYS.length)
    expect(keyAct(press('h'), false)?.act).toBe('hit')
    expect(keyAct(press('6'), false)?.act).toBe('rod')
    expect(keyAct(press('='), false)?.act).toBe('faster')
  })

  it('leaves fields and the browser their own keys', () => {
    expect(keyAct(press('h'), true)).toBeNull()
    expect(keyAct(press('r', { ctrlKey: true }), false)).toBeNull()
    expect(keyAct(press('F5'), false)).toBeNull()
  })
})

it('has a shape of its own for every rod', () => {
  const shapes = Object.values(SHAPE_POINTS)
  expect(new Set(shapes).size).toBe(shapes.length)
  expect(shapes.length).toBe(7)
})
