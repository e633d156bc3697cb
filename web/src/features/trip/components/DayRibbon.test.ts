import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import type { FishView, TripDocument } from '../api'
import DayRibbon from './DayRibbon.vue'

// jsdom lays nothing out: the ribbon's room is given.
vi.mock('@vueuse/core', async (original) => ({
  ...(await original<typeof import('@vueuse/core')>()),
  useElementSize: () => ({ width: ref(1200), height: ref(76) }),
}))

beforeEach(() => setActivePinia(createPinia()))

const DAWN = 1_744_608_000 // twenty minutes past the hour
const trip = {
  utc_offset_min: -420,
  sun: { first_light_s: DAWN, sunrise_s: DAWN + 1800, sunset_s: DAWN + 13.5 * 3600, dark_s: DAWN + 14 * 3600 },
} as TripDocument
const view = { temperatures: [{ at_s: DAWN, temperature_degc: 9 }], ribbon: [], rods: [], day: null } as unknown as FishView

function hours(nowS: number) {
  const wrapper = mount(DayRibbon, { props: { view, trip, nowS, rodIndex: () => 0 } })
  return { count: wrapper.findAll('text.middle').length, now: wrapper.find('line.now').exists() }
}

describe('DayRibbon', () => {
  it('shows the hours from first light to dark, and now', () => {
    expect(hours(DAWN + 3600)).toEqual({ count: 14, now: true })
  })

  it('goes on into the night while the trip does', () => {
    expect(hours(DAWN + 20 * 3600)).toEqual({ count: 20, now: true })
  })

  it('stays a day and a night for a trip that nobody has ended for months', () => {
    expect(hours(DAWN + 200 * 86_400)).toEqual({ count: 30, now: false })
  })
})
