import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, reactive } from 'vue'

const trip = reactive({
  trip: { id: 'a' } as { id: string } | null,
  view: { ended: false },
  coreReady: true,
  ask: vi.fn(),
  record: vi.fn(),
})
vi.mock('./store', () => ({ useTripStore: () => trip }))
const { useFollowingStore } = await import('./following')

let hear: (fix: unknown) => void
let fail: (failure: unknown) => void
const cleared = vi.fn()
const coords = { latitude: 44, longitude: -115, accuracy: 5, heading: NaN, speed: null }
const told = { latitude_deg: 44, longitude_deg: -115, course_deg: 30 }

beforeEach(() => {
  setActivePinia(createPinia())
  Object.assign(trip, { trip: { id: 'a' }, view: { ended: false }, coreReady: true })
  trip.ask.mockReset().mockResolvedValue(told)
  trip.record.mockReset().mockResolvedValue(true)
  cleared.mockReset()
  Object.defineProperty(navigator, 'geolocation', {
    configurable: true,
    value: {
      clearWatch: cleared,
      watchPosition: (heard: typeof hear, failed: typeof fail) => {
        hear = heard
        fail = failed
        return 7
      },
    },
  })
})

describe('the boat followed by this device', () => {
  it('records what the core says is new, heard by the clock that never rests', async () => {
    vi.spyOn(Date, 'now').mockReturnValue(500_000)
    useFollowingStore().start()
    hear({ coords })
    await vi.waitFor(() => expect(trip.record).toHaveBeenCalledWith('position_fixed', told))
    expect(trip.ask.mock.calls[0]!.slice(0, 2)).toEqual([
      'hear_fix',
      { at_s: 500, latitude_deg: 44, longitude_deg: -115, accuracy_m: 5, course_deg: null, speed_mps: null },
    ])
  })

  it('records nothing that says nothing new, nor on a trip that has ended', async () => {
    useFollowingStore().start()
    trip.ask.mockResolvedValue(null)
    hear({ coords })
    await vi.waitFor(() => expect(trip.ask).toHaveBeenCalledOnce())
    trip.view = { ended: true }
    hear({ coords })
    await nextTick()
    expect(trip.ask).toHaveBeenCalledOnce()
    expect(trip.record).not.toHaveBeenCalled()
  })

  it('stops for another trip', async () => {
    const following = useFollowingStore()
    following.start()
    trip.trip = { id: 'b' }
    await nextTick()
    expect(following.on).toBe(false)
    expect(cleared).toHaveBeenCalledWith(7)
  })

  it('says why it does not go on, and goes on after a gap', async () => {
    const following = useFollowingStore()
    following.start()
    fail({ code: 3, PERMISSION_DENIED: 1 })
    expect(following.on).toBe(true)
    expect(following.problem).toContain('No place')
    hear({ coords })
    await vi.waitFor(() => expect(following.problem).toBeNull())
    fail({ code: 1, PERMISSION_DENIED: 1 })
    expect(following.on).toBe(false)
    expect(following.problem).toContain('not allowed')
  })
})
