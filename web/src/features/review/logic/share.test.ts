import { describe, expect, it } from 'vitest'
import { US_UNITS } from '@/shared/units/units'
import type { Season } from '../api'
import { cardOf, pageOf } from './share'

const day = (change: object) => ({
  trip_id: 'a',
  name: 'Secret cove at dawn',
  water_name: 'Hidden <Mere>',
  day: '2025-04-10',
  minutes: 600,
  hits: 5,
  landed: 3,
  kept: 1,
  cast_landed: 0,
  warm_first_degc: null,
  warm_last_degc: 10,
  marks_m: null,
  fished_m: 3.048,
  best: 'copper spoon',
  ...change,
})
const season = (...days: object[]): Season => ({ species: 'trout', days: days.map(day) }) as unknown as Season

describe('a season to give away', () => {
  it('adds up its days and names its best', () => {
    const card = cardOf(season({}, { day: '2026-05-02', landed: 7, hits: 9, best: 'pink hoochie', cast_landed: 2 }), false, US_UNITS)
    expect(card.title).toBe('trout, 2025 to 2026')
    expect(card.figures.map((figure) => figure.value)).toEqual(['2', '20', '14', '10', '2'])
    expect(card.months).toEqual([
      { name: 'Apr', landed: 3 },
      { name: 'May', landed: 7 },
    ])
    expect(card.lines[0]).toBe('Best day: 7 landed at a surface of 50 °F, biting at 10 ft.')
    expect(card.lines).toContain('2 of them were cast to, not trolled.')
  })

  it('says no place unless it is chosen, and no name of a trip at all', () => {
    const without = cardOf(season({}), false, US_UNITS)
    expect(JSON.stringify(without)).not.toContain('Mere')
    const chosen = cardOf(season({}), true, US_UNITS)
    expect(chosen.lines).toContain('On Hidden <Mere>.')
    expect(JSON.stringify(chosen)).not.toContain('cove')
  })

  it('is a page that stands alone, with nothing in it that is markup by accident', () => {
    const card = { ...cardOf(season({}), false, US_UNITS), title: 'trout <b>&' }
    const page = pageOf(card, '<svg></svg>')
    expect(page).toContain('trout &lt;b&gt;&amp;')
    expect(page).toContain('<th>landed in Apr</th><td>3</td>')
    expect(page).not.toContain('http')
  })

  it('is one of nothing for a season of one day without fish', () => {
    const card = cardOf(season({ landed: 0, hits: 0, kept: 0, best: '', minutes: 0 }), false, US_UNITS)
    expect(card.lines).toEqual([])
    expect(card.figures[0]).toEqual({ value: '1', label: 'day' })
  })
})
