// Trying a speed: every line moves with the finger before anything is kept.
import { ref, shallowRef, type Ref, type ShallowRef } from 'vue'
import { latestOnly } from '@/shared/core/latest'
import type { RodLine } from '@/features/trip/api'

/** A speed and its lines are painted together, once; but no finger waits longer than this for its thumb. */
const TOGETHER_MS = 34

export interface SpeedTry {
  tried: Ref<number | null>
  preview: ShallowRef<RodLine[] | null>
  to(speedMps: number): void
  /** Let go; of one speed only, where it is given and no other has been tried since. */
  end(of?: number): void
}

export function useSpeedTry(linesAt: (speedMps: number) => Promise<RodLine[]>, failed: (error: unknown) => void): SpeedTry {
  const tried = ref<number | null>(null)
  const preview = shallowRef<RodLine[] | null>(null)
  let wanted: number | null = null
  let late: ReturnType<typeof setTimeout> | undefined

  function show(speedMps: number | null): void {
    clearTimeout(late)
    late = undefined
    tried.value = speedMps
  }

  const ask = latestOnly(
    linesAt,
    (lines, speedMps) => {
      preview.value = lines
      if (speedMps === wanted) show(speedMps)
    },
    failed,
  )
  return {
    tried,
    preview,
    to(speedMps) {
      if (wanted === speedMps) return
      wanted = speedMps
      late ??= setTimeout(() => show(wanted), TOGETHER_MS)
      ask(speedMps)
    },
    end(of) {
      if (of !== undefined && wanted !== of) return
      ask.cancel()
      wanted = null
      show(null)
      preview.value = null
    },
  }
}
