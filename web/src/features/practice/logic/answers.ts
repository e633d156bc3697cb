// What has been said to the questions of a task so far.
import type { Schemas } from '@/shared/api/client'
import { formatLength, formatSpeed, formatTemperature, type UnitChoice } from '@/shared/units/units'
import type { Measure, Typed } from '@/shared/units/measures'

export type Ask = Schemas['Ask']
export type Fact = Schemas['Fact']
/** A key that was chosen, a number in SI as it stands in its field, or keys in their order. */
export type Said = Record<string, Typed | string[]>

const MEASURES: Partial<Record<NonNullable<Ask['quantity']>, Measure>> = { speed: 'speed', long: 'long', degrees: 'degrees' }

export function measureOf(ask: Ask): Measure {
  return MEASURES[ask.quantity ?? 'words'] ?? 'count'
}

/** Whether every question has an answer that can be sent. */
export function isComplete(asks: readonly Ask[], said: Said): boolean {
  return asks.every((ask) => {
    const one = said[ask.key]
    if (ask.kind === 'order') return Array.isArray(one) && one.length === (ask.options ?? []).length
    return ask.kind === 'number' ? typeof one === 'number' : typeof one === 'string' && one !== ''
  })
}

export function given(asks: readonly Ask[], said: Said): Schemas['Given'][] {
  return asks.map((ask) => {
    const one = said[ask.key]
    if (ask.kind === 'order') return { key: ask.key, order: one as string[] }
    return ask.kind === 'number' ? { key: ask.key, number: one as number } : { key: ask.key, choice: one as string }
  })
}

/** What a fact says, in the reader's units. */
export function factWords(fact: Fact, units: UnitChoice): string {
  const one = (value: number): string => {
    switch (fact.quantity) {
      case 'speed':
        return formatSpeed(value, units)
      case 'long':
        return formatLength(value, units)
      case 'temperature':
        return formatTemperature(value, units)
      case 'degrees':
        return `${Math.round(value)}°`
      case 'seconds':
        return `${value.toFixed(1)} s`
      default:
        return `${Math.round(value * 10) / 10}`
    }
  }
  const figures = [fact.value, fact.to].filter((value) => typeof value === 'number').map(one)
  return [fact.words, figures.join(' to ')].filter(Boolean).join(', ')
}
