import { describe, expect, it } from 'vitest'
import { METRIC_UNITS, US_UNITS } from '@/shared/units/units'
import { factWords, given, isComplete, measureOf, type Ask } from './answers'

const options = [
  { key: 'a', words: 'one' },
  { key: 'b', words: 'other' },
]
const ASKS: Ask[] = [
  { key: 'what', label: 'It is', kind: 'choice', options },
  { key: 'speed', label: 'Speed', kind: 'number', quantity: 'speed' },
  { key: 'order', label: 'Order', kind: 'order', options },
]

describe('answers to a task', () => {
  it('are complete when every question has one that can be sent', () => {
    const said = { what: 'a', speed: 0.8, order: ['b', 'a'] }
    expect(isComplete(ASKS, said)).toBe(true)
    expect(isComplete(ASKS, { ...said, what: '' })).toBe(false)
    expect(isComplete(ASKS, { ...said, speed: 'fast' })).toBe(false)
    expect(isComplete(ASKS, { ...said, speed: null })).toBe(false)
    expect(isComplete(ASKS, { ...said, order: ['b'] })).toBe(false)
    expect(given(ASKS, said)).toEqual([
      { key: 'what', choice: 'a' },
      { key: 'speed', number: 0.8 },
      { key: 'order', order: ['b', 'a'] },
    ])
  })

  it('are typed in the measure that is asked', () => {
    expect(ASKS.map(measureOf)).toEqual(['count', 'speed', 'count'])
    expect(measureOf({ key: 'c', label: '', kind: 'number', quantity: 'long' })).toBe('long')
  })

  it('follow facts in the units of the reader', () => {
    expect(factWords({ label: 'They share', quantity: 'speed', value: 0.44704, to: 0.89408 }, US_UNITS)).toBe('1.0 mph to 2.0 mph')
    expect(factWords({ label: 'Marks', quantity: 'long', value: 10 }, METRIC_UNITS)).toBe('10 m')
    expect(factWords({ label: 'Marks', quantity: 'long', value: 3.048 }, US_UNITS)).toBe('10 ft')
    expect(factWords({ label: 'Sky', quantity: 'words', words: 'calm' }, US_UNITS)).toBe('calm')
    expect(factWords({ label: 'Lean', quantity: 'degrees', value: 12.4 }, US_UNITS)).toBe('12°')
    expect(factWords({ label: 'On', quantity: 'seconds', value: 3.25 }, US_UNITS)).toBe('3.3 s')
    expect(factWords({ label: 'Rod', words: 'a spoon', quantity: 'speed', value: 0.44704, to: 0.89408 }, US_UNITS)).toBe(
      'a spoon, 1.0 mph to 2.0 mph',
    )
  })
})
