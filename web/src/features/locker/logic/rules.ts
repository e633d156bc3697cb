// What was read of how many fish may be kept, as it is typed, and back.
import { settled, type Typed } from '@/shared/units/measures'
import type { WaterRules } from '../api'

export type SpeciesRules = NonNullable<WaterRules['by_species']>[number]
type FishRules = Omit<SpeciesRules, 'species'>

/** The numbers as they stand in their fields: an empty one says nothing. */
export interface FishForm {
  bag: Typed
  possession: Typed
  baitCounts: boolean
  least: Typed
  longest: Typed
  slotLow: Typed
  slotHigh: Typed
  from: string
  to: string
}

export function fishForm(known: FishRules | null | undefined): FishForm {
  return {
    bag: known?.bag_most ?? null,
    possession: known?.possession_most ?? null,
    baitCounts: known?.bait_counts ?? false,
    least: known?.least_m ?? null,
    longest: known?.longest_m ?? null,
    slotLow: known?.slot_low_m ?? null,
    slotHigh: known?.slot_high_m ?? null,
    from: known?.season_from ?? '',
    to: known?.season_to ?? '',
  }
}

/** A number that may be left out. */
export const said = (value: Typed, what: string): number | null => (value === null || value === '' ? null : settled(value, what))

export function fishRules(form: FishForm, whose = ''): FishRules {
  const of = (what: string) => (whose ? `${whose}: ${what.toLowerCase()}` : what)
  return {
    bag_most: said(form.bag, of('Most fish')),
    possession_most: said(form.possession, of('In possession')),
    bait_counts: form.baitCounts,
    least_m: said(form.least, of('Shortest')),
    longest_m: said(form.longest, of('Longest')),
    slot_low_m: said(form.slotLow, of('Slot from')),
    slot_high_m: said(form.slotHigh, of('Slot to')),
    season_from: form.from.trim(),
    season_to: form.to.trim(),
  }
}
