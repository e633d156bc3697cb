import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { show } from '@/app/show.fixture'
import { view } from '@/features/fish/components/view.fixture'
import type { TripDocument } from '@/features/trip/api'

const asked: number[] = []
vi.mock('@/features/trip/api', async (original) => ({
  ...(await original<object>()),
  getFishAt: async (_id: string, at: number) => (asked.push(at), { ...view, now_s: at }),
  getPlan: async () => ({ rods: [], tangles: [] }),
}))
vi.mock('./TripTrack.vue', () => ({ default: { template: '<i />' } }))
vi.mock('./LateEntry.vue', () => ({ default: { template: '<i />' } }))
const TripScrub = (await import('./TripScrub.vue')).default

const BEGIN = 1_000_000
const trip = { id: 'a', started_at_s: BEGIN, utc_offset_min: 0, outfit: { boat_length_m: 5 } } as unknown as TripDocument

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
  asked.length = 0
})

describe('TripScrub', () => {
  it('looks at the last that happened, and at no moment after it: on a trip under way none has been', async () => {
    const last = BEGIN + 605.5
    const read = { at_s: last, depth_m: 0, temperature_degc: 9 }
    const wrapper = show(TripScrub, {
      trip,
      view: { ...view, ribbon: [], marks: [], temperatures: [read] },
      rodIndex: () => 0,
    })
    await vi.waitFor(() => expect(asked).toEqual([last]))
    await wrapper.get('[data-test=scrub-at]').setValue('10')
    await vi.waitFor(() => expect(asked.at(-1)).toBe(BEGIN + 600))
  })
})
