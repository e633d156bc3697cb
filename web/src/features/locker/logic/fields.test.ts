import { describe, expect, it } from 'vitest'
import { METRIC_UNITS, US_UNITS } from '@/shared/units/units'
import { readIn, shownIn, type Measure } from '@/shared/units/measures'
import { blank, fieldsOf, get, KIND_TITLES, put } from './fields'
import type { PieceKind } from '../api'

describe('properties by path', () => {
  it('changes a copy and leaves the first as it was', () => {
    const before = { name: 'x', works: { low_mps: 1 } }
    const after = put(before, 'works.high_mps', 2)
    expect(after).toEqual({ name: 'x', works: { low_mps: 1, high_mps: 2 } })
    expect(before.works).toEqual({ low_mps: 1 })
  })

  it('leaves out what was emptied, and the group that has nothing left', () => {
    expect(put({ name: 'x', works: { low_mps: 1 } }, 'works.low_mps', undefined)).toEqual({ name: 'x' })
    expect(put({ name: 'x', flash: 0.5 }, 'flash', undefined)).toEqual({ name: 'x' })
    expect(get({}, 'works.low_mps')).toBeUndefined()
  })
})

describe('typed figures', () => {
  it('are read by the exact definitions', () => {
    // Inch 25.4 mm, ounce 28.349523125 g, mile 1609.344 m.
    expect(readIn('4', 'short', US_UNITS)).toBeCloseTo(0.1016, 12)
    expect(readIn('0,5', 'weight', US_UNITS)).toBeCloseTo(0.0141747615625, 12)
    expect(readIn('1.5', 'speed', US_UNITS)).toBeCloseTo((1.5 * 1609.344) / 3600, 12)
    expect(readIn('25', 'minutes', US_UNITS)).toBe(1500)
    expect(readIn('4 in', 'short', US_UNITS)).toBeNull()
  })

  it.each(['short', 'long', 'weight', 'speed', 'minutes', 'share'] as Measure[])('come back as they were typed: %s', (measure) => {
    for (const units of [US_UNITS, METRIC_UNITS]) expect(shownIn(readIn('2.5', measure, units)!, measure, units)).toBe('2.5')
  })
})

describe('forms', () => {
  it.each(Object.keys(KIND_TITLES) as PieceKind[])('have a name and no field twice: %s', (kind) => {
    const paths = fieldsOf(kind, blank(kind)).map((field) => field.path)
    expect(paths).toContain('name')
    expect(new Set(paths).size).toBe(paths.length)
  })

  it('ask a plug for its lip and leadcore for its core, and nobody else', () => {
    const paths = (kind: PieceKind, properties: Record<string, unknown>) => fieldsOf(kind, properties).map((field) => field.path)
    expect(paths('lure', { kind: 'plug' })).toContain('lip')
    expect(paths('lure', { kind: 'spoon' })).not.toContain('lip')
    expect(paths('line', { kind: 'leadcore' })).toContain('core_length_m')
    expect(paths('line', { kind: 'flat' })).not.toContain('core_length_m')
  })
})
