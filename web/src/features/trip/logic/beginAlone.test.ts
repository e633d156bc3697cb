import { describe, expect, it } from 'vitest'
import type { Kit } from '../api'
import { beginAlone } from './beginAlone'

const NOON_S = Date.UTC(2026, 3, 14, 19) / 1000
const sun = { first_light_s: 1, sunrise_s: 2, sunset_s: 3, dark_s: 4 }
const kit = {
  made_at_s: NOON_S - 86_400,
  waters: [
    {
      id: 7,
      name: 'Tarn',
      bottom_m: 20,
      chart: null,
      keep_out: [{ id: 'ring' }],
      rules: null,
      days: [
        { day: '2026-04-13', utc_offset_min: -420, sun: { ...sun, dark_s: 9 } },
        { day: '2026-04-14', utc_offset_min: -420, sun },
      ],
      earlier: { trout: [{ name: 'Then', at_s: 0, like: 1, shown: [] }] },
    },
  ],
  outfits: [{ id: 3, name: 'Boat', outfit: { rods: [] }, readings: [], rigged: [{ rod_id: 'rod-1' }] }],
  plans: [
    { id: 'p1', water_id: 7, species: 'trout', day: '2026-04-15', plan: { secchi_m: 1 } },
    { id: 'p2', water_id: 7, species: 'trout', day: '2026-04-14', plan: { secchi_m: 2 } },
  ],
} as unknown as Kit
const wish = { id: 'x', name: 'Alone', water_id: 7, outfit_id: 3, species: 'trout' } as const

describe('beginning a trip without a server', () => {
  it('takes the light, the plan and the lesson of its day and water along', () => {
    const { trip, body, events } = beginAlone(kit, wish, NOON_S)
    expect(trip).toMatchObject({ water_name: 'Tarn', sun, plan: { secchi_m: 2 }, utc_offset_min: -420, started_at_s: NOON_S })
    expect(trip.earlier).toHaveLength(1)
    expect(trip.keep_out).toEqual([{ id: 'ring' }])
    expect(body).toMatchObject({ id: 'x', plan_id: 'p2', started_at_s: NOON_S, outfit: { rods: [] } })
    expect(events.map((event) => [event.type, event.at_s])).toEqual([['rod_rigged', NOON_S]])
  })

  it('begins from what an earlier version carried along', () => {
    const before = { ...kit.waters[0]!, keep_out: undefined } as unknown as Kit['waters'][0]
    expect(beginAlone({ ...kit, waters: [before] }, wish, NOON_S).trip.keep_out).toEqual([])
  })

  it('goes by the day at the water, not by the one in Greenwich', () => {
    // 23:00 of the 14th at the water is the 15th by UTC.
    expect(beginAlone(kit, wish, NOON_S + 11 * 3600).trip.sun).toEqual(sun)
  })

  it('takes no plan of another fish, and says what was not carried along', () => {
    expect(beginAlone(kit, { ...wish, species: 'kokanee' }, NOON_S).trip.plan).toBeNull()
    expect(() => beginAlone(kit, { ...wish, water_id: 8 }, NOON_S)).toThrow('water was not carried')
    expect(() => beginAlone(kit, { ...wish, outfit_id: 8 }, NOON_S)).toThrow('boat was not carried')
    expect(() => beginAlone(kit, wish, NOON_S + 40 * 86_400)).toThrow('too old')
  })
})
