import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { show } from '@/app/show.fixture'
import { rod, view } from '@/features/fish/components/view.fixture'
import type { TripDocument } from '@/features/trip/api'
import { useTripStore } from '@/features/trip/store'
import { usePracticeStore, type PracticeDay } from '../store'
import PracticeBar from './PracticeBar.vue'

vi.mock('vue-router', async (original) => ({ ...(await original<object>()), useRouter: () => ({ push: vi.fn() }) }))
const NOW = 10_000
const DAY = {
  trip_id: 'a',
  minutes: 90,
  taps: true,
  clock_pace: 1,
  bites: [
    { at_s: NOW - 600, rod_id: 'rod-1', kind: 'lost', length_m: null },
    { at_s: NOW - 200, rod_id: 'rod-1', kind: 'hooked', length_m: null },
    { at_s: NOW - 20, rod_id: 'rod-1', kind: 'landed', length_m: 0.381 },
    { at_s: NOW - 5, rod_id: '', kind: 'hit', length_m: null },
  ],
} as unknown as PracticeDay

async function bar(day: PracticeDay): Promise<string | null> {
  const trip = useTripStore()
  trip.trip = { id: 'a', utc_offset_min: 0 } as TripDocument
  trip.view = { ...view, now_s: NOW, rods: [{ ...rod, id: 'rod-1', name: 'Rod 1' }] }
  const practice = usePracticeStore()
  practice.go = vi.fn().mockResolvedValue(day)
  trip.sync = vi.fn()
  practice.day = day
  const wrapper = show(PracticeBar, {})
  await nextTick()
  const told = wrapper.find('[data-test=practice-bites]')
  return told.exists() ? told.text().replace(/\s+/g, ' ') : null
}

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
})

describe('PracticeBar', () => {
  it('shows what the rods do where it is tapped by hand: the latest first, and nothing that is long past', async () => {
    const told = await bar(DAY)
    expect(told).toMatch(/^The cast: the tip nods .*Rod 1: in the net, 15(\.0)? in .*Rod 1: fish on/)
    expect(told).not.toContain('came off')
  })

  it('says so where the tips are quiet, and shows nothing where bites stand in the record by themselves', async () => {
    expect(await bar({ ...DAY, bites: [] })).toBe('the tips are quiet')
    expect(await bar({ ...DAY, taps: false })).toBeNull()
  })
})
