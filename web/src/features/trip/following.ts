// The boat followed by this device's receiver: what says something new is recorded, as the core judges.
import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { useTripStore } from './store'

export const useFollowingStore = defineStore('following', () => {
  const trip = useTripStore()
  const on = ref(false)
  /** Why it does not go on, in words. */
  const problem = ref<string | null>(null)
  /** What the receiver said last, new or not. */
  const heard = shallowRef<{ at_s: number; accuracy_m: number; latitude_deg: number; longitude_deg: number } | null>(null)
  let watching: number | null = null

  async function hear({ coords }: GeolocationPosition): Promise<void> {
    problem.value = null
    heard.value = {
      at_s: Date.now() / 1000,
      accuracy_m: coords.accuracy,
      latitude_deg: coords.latitude,
      longitude_deg: coords.longitude,
    }
    const tripId = trip.trip?.id
    // Without the core there is nobody to say what is new; the next fix comes in a second.
    if (!tripId || !trip.coreReady || trip.view?.ended) return
    try {
      const fix = await trip.ask(
        'hear_fix',
        {
          // Only what lies between fixes counts; the trip's own clock may rest.
          at_s: Date.now() / 1000,
          latitude_deg: coords.latitude,
          longitude_deg: coords.longitude,
          accuracy_m: coords.accuracy,
          course_deg: Number.isFinite(coords.heading) ? coords.heading : null,
          speed_mps: Number.isFinite(coords.speed) ? coords.speed : null,
        },
        () => Promise.resolve(null),
      )
      if (fix && on.value && trip.trip?.id === tripId) await trip.record('position_fixed', fix)
    } catch (error) {
      problem.value = error instanceof Error ? error.message : String(error)
    }
  }

  function fail(failure: GeolocationPositionError): void {
    if (failure.code === failure.PERMISSION_DENIED) {
      stop()
      problem.value = 'This device is not allowed to say where it is: allow it for this page, then try again.'
    } else problem.value = 'No place from this device just now: the last one is reckoned on, and its circle grows.'
  }

  function start(): void {
    problem.value = null
    if (!navigator.geolocation) {
      problem.value = 'This browser tells no place: it does so only on an address with a lock.'
      return
    }
    on.value = true
    watching = navigator.geolocation.watchPosition((fix) => void hear(fix), fail, {
      enableHighAccuracy: true,
      maximumAge: 2000,
      timeout: 30_000,
    })
  }

  function stop(): void {
    if (watching !== null) navigator.geolocation.clearWatch(watching)
    watching = null
    on.value = false
  }

  // Another trip is another boat, another day.
  watch(
    () => trip.trip?.id,
    (_now, before) => before !== undefined && stop(),
  )

  return { on, problem, heard, start, stop }
})
