// The lines at the speeds next to this one, before a finger asks for them.
import { watch } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { tenthOfSpeed } from '@/shared/units/units'
import { useQuestions } from '../questions'
import { useTripStore } from '../store'

/** How far from the speed the lines are solved ahead of a drag, and with what pause between. */
const TENTHS = 8
const PAUSE_MS = 60

/**
 * Ask for the lines beside the speed whenever they change, nearest first: the core keeps what it solved, and a fresh
 * interpreter, slow at first, warms up where nobody waits.
 */
export function useLookAhead(): void {
  const trip = useTripStore()
  const display = useDisplayStore()
  const { linesAt } = useQuestions()
  const lines = () => {
    const { view } = trip
    if (!trip.coreReady || !view) return null
    return JSON.stringify([trip.trip?.id, view.speed_mps, view.rods.map((rod) => [rod.setup, rod.line?.number, rod.line?.depth_m])])
  }

  watch(
    lines,
    async (now, _before, onCleanup) => {
      let stale = now === null
      onCleanup(() => (stale = true))
      const from = trip.view?.speed_mps ?? 0
      for (let step = 1; step <= 2 * TENTHS; step += 1) {
        if (!stale) await new Promise((resolve) => setTimeout(resolve, PAUSE_MS))
        if (stale) return
        const tenths = Math.ceil(step / 2) * (step % 2 ? -1 : 1)
        await linesAt(tenthOfSpeed(from, display.units, tenths)).catch(() => undefined)
      }
    },
    { immediate: true },
  )
}
