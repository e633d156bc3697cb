import { beforeEach, describe, expect, it } from 'vitest'
import { createPinia, setActivePinia } from 'pinia'
import { show } from '@/app/show.fixture'
import type { DayTried, Phase } from '../api'
import PhaseCards from './PhaseCards.vue'
import PlanPaper from './PlanPaper.vue'

const FT = 0.3048
const MPH = 0.44704
const SIX_S = Date.UTC(2026, 3, 14, 6) / 1000
const at = (hours: number): number => SIX_S + 3600 * (hours - 6)

const coloured = (colours: string, why: string) => ({ colours, why, school: 'Bright day, bright lure' })
const lake = {
  id: 'cover_water',
  name: 'Cover water',
  school: 'Cover water',
  reason: 'Few fish are active.',
  speed_low_mps: 2.7 * MPH,
  speed_high_mps: 3.5 * MPH,
  depth_top_m: 0,
  depth_base_m: 10 * FT,
  setback_low_m: 100 * FT,
  setback_high_m: 200 * FT,
  off_bed_low_m: 0,
  off_bed_high_m: 0,
  gear: 'spoons and flies',
  caution: '',
}
const river = { ...lake, name: 'Edges of the bars', depth_top_m: 5 * FT, depth_base_m: 8 * FT, off_bed_low_m: FT, off_bed_high_m: 2 * FT }

const phase = (start: number, end: number, changes: object = {}): Phase =>
  ({
    start_s: at(start),
    end_s: at(end),
    earliest_s: at(start),
    latest_s: at(start),
    falling: false,
    depth_words: 'as the month has it',
    method: lake,
    shows: [{ from_s: at(start), show: coloured('silver', 'clear') }],
    ...changes,
  }) as unknown as Phase

const hour = (h: number) => ({
  at_s: at(h),
  surface: { middle: 10 },
  anglers: h === 8 ? [{ top_m: 3.048, base_m: 6.096 }] : [],
  wind_mps: 2.2352,
  wind_from_deg: 270,
  across_deg: h === 8 ? [12.4, 192.4] : [],
})

function day(phases: Phase[], changes: object = {}): DayTried {
  return {
    utc_offset_min: 0,
    sun: { first_light_s: at(6), sunrise_s: at(6.5), sunset_s: at(18), dark_s: at(18.5) },
    rules: ['Two rods each.'],
    view: {
      phases,
      hours: [4, 5, 6, 7, 8, 9].map(hour),
      turn_back: null,
      cautions: [],
      start_words: 'read at dawn',
      weather_words: 'as forecast',
    },
    ...changes,
  } as unknown as DayTried
}

const text = (of: { text: () => string }): string => of.text().replace(/\s+/g, ' ')

describe('the phases of a day', () => {
  beforeEach(() => setActivePinia(createPinia()))

  const cards = (phases: Phase[], atS: number | null = null) => show(PhaseCards, { day: day(phases), atS })

  it('tell how deep a lake is fished from the top, and a river from its bed in how much water', () => {
    const [ofLake, ofRiver] = cards([phase(6, 10), phase(10, 14, { method: river })])
      .findAll('[data-test=phase]')
      .map(text)
    expect(ofLake).toContain('0–10 ft down')
    expect(ofLake).not.toContain('bed')
    expect(ofRiver).toContain('1–2 ft off the bed')
    expect(ofRiver).toContain('5–8 ft of water')
    expect(ofLake).toContain('2.7–3.5 mph')
    expect(ofLake).toContain('100–200 ft back')
  })

  it('say when they begin on a warm day and on a cold one, but the first and what falls again begin as they do', () => {
    const slide = { earliest_s: at(9), latest_s: at(11) }
    const shown = cards([
      phase(6, 10, slide),
      phase(10, 12, slide),
      phase(12, 14, { earliest_s: at(11), latest_s: null }),
      phase(14, 16, { ...slide, falling: true }),
    ])
      .findAll('[data-test=phase]')
      .map(text)
    expect(shown[0]).not.toContain('begins')
    expect(shown[1]).toContain('begins 09:00 on a warm day, 11:00 on a cold one')
    expect(shown[2]).toContain('begins 11:00 on a warm day, never on a cold one')
    expect(shown[3]).not.toContain('begins')
    expect(shown[3]).toContain('the surface falling again')
  })

  it('say what to show as the light changes, and put local rules before a caution', () => {
    const shows = [
      { from_s: at(6), show: coloured('glow', 'dark') },
      { from_s: at(7), show: coloured('silver', 'clear') },
    ]
    const [one] = cards([phase(6, 10, { shows, method: { ...lake, caution: 'Too warm to release.' } })]).findAll('[data-test=phase]')
    expect(text(one!)).toContain('glow (dark), from 07:00 silver (clear).')
    expect(one!.find('.caution').text()).toBe('Too warm to release. Local rules come first.')
  })

  it('mark the one of the hour and are looked at by a press', async () => {
    const wrapper = cards([phase(6, 10), phase(10, 14)], at(10))
    const pressed = wrapper.findAll('[data-test=phase]').map((one) => one.attributes('aria-pressed'))
    expect(pressed).toEqual(['false', 'true'])
    await wrapper.findAll('[data-test=phase]')[0]!.trigger('click')
    expect(wrapper.emitted('look')).toEqual([[at(8)]])
  })

  it('say so when no hour of the forecast is fished', () => {
    expect(text(cards([]))).toContain('nothing to fish by')
  })
})

describe('the day on paper', () => {
  beforeEach(() => setActivePinia(createPinia()))

  const paper = (of: DayTried) => show(PlanPaper, { day: of, waterName: 'Sallow Tarn', species: 'trout', dayName: '14 April' })

  it('has each phase with room to write when it began', () => {
    const rows = paper(day([phase(6, 10), phase(10, 14, { method: river })]))
      .findAll('table')[0]!
      .findAll('tbody tr')
    expect(rows.map((row) => row.findAll('td').map(text).slice(0, 1))).toEqual([['06:00'], ['10:00']])
    expect(text(rows[0]!.findAll('td')[3]!)).toBe('0–10 ft')
    expect(text(rows[1]!.findAll('td')[3]!)).toBe('1–2 ft off the bed, in 5–8 ft')
    expect(text(rows[0]!.findAll('td')[6]!)).toBe('')
  })

  it('has every second hour of the light, and where anglers find them', () => {
    const [, hours] = paper(day([phase(6, 10)])).findAll('table')
    // From an hour before first light: 04:00 is too early, of 06:00 and 08:00 both are shown.
    expect(hours!.findAll('thead th').map(text)).toEqual(['hour', '06:00', '08:00'])
    const line = (name: string) =>
      hours!
        .findAll('tbody tr')
        .find((row) => row.find('th').text() === name)!
        .findAll('td')
        .map(text)
    expect(line('surface')).toEqual(['50°', '50°'])
    expect(line('they sit')).toEqual(['–', '10–20 ft'])
    expect(line('across sun')).toEqual(['–', '12° 192°'])
    expect(line('wind')).toEqual(['5.0 / 270°', '5.0 / 270°'])
  })

  it('says when to turn back and why, the rules, and that local ones come first', () => {
    const some = day([phase(6, 10)])
    const shown = text(paper({ ...some, view: { ...some.view, turn_back: { at_s: at(15), why: 'wind' } } as unknown as DayTried['view'] }))
    expect(shown).toContain('Turn back by 15:00 for the wind.')
    expect(shown).toContain('Two rods each.')
    expect(shown).toContain('Local rules and what you see on the water come before any of this.')
    expect(text(paper(some))).not.toContain('Turn back by')
  })
})
