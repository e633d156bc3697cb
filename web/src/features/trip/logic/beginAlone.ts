// A trip begun where there is no server, from what was carried along.
import type { Schemas } from '@/shared/api/client'
import type { Kit, TripDocument, TripEvent } from '../api'
import { makeEvent } from './events'

export interface Wish {
  id: string
  name: string
  water_id: number
  outfit_id: number
  species: Schemas['NewTrip']['species']
}

export interface BegunAlone {
  trip: TripDocument
  /** What the server is told of it later. */
  body: Schemas['NewTrip']
  /** What was left on the rods: they are as they were. */
  events: TripEvent[]
}

/** The trip as the server would have begun it, of the parts that it gave along. Throws what is lacking. */
export function beginAlone(kit: Kit, wish: Wish, nowS: number): BegunAlone {
  const water = kit.waters.find((item) => item.id === wish.water_id)
  const boat = kit.outfits.find((item) => item.id === wish.outfit_id)
  if (!water) throw new Error('This water was not carried along: choose another, or begin with a link.')
  if (!boat) throw new Error('This boat was not carried along: choose another, or begin with a link.')
  const day = water.days.find((item) => item.day === dayAt(nowS, item.utc_offset_min))
  if (!day) throw new Error('What was carried along is too old for today: open the app once with a link.')
  const plan = kit.plans.find((item) => item.water_id === water.id && item.species === wish.species && item.day === day.day)
  return {
    trip: {
      id: wish.id,
      name: wish.name,
      water_name: water.name,
      species: wish.species,
      started_at_s: nowS,
      utc_offset_min: day.utc_offset_min,
      bottom_m: water.bottom_m,
      outfit: boat.outfit,
      sun: day.sun,
      clock_shift_s: 0,
      rest_after_s: null,
      readings: boat.readings,
      chart: water.chart,
      // What an earlier version carried along knows of none.
      keep_out: (water as Partial<typeof water>).keep_out ?? [],
      rules: water.rules,
      plan: plan?.plan ?? null,
      earlier: water.earlier[wish.species] ?? [],
    },
    body: { ...wish, started_at_s: nowS, outfit: boat.outfit, plan_id: plan?.id ?? null },
    events: boat.rigged.map((setup) => makeEvent('rod_rigged', setup, nowS)),
  }
}

function dayAt(nowS: number, utcOffsetMin: number): string {
  return new Date((nowS + utcOffsetMin * 60) * 1000).toISOString().slice(0, 10)
}
