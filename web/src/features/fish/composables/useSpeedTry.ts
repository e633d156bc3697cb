// Trying a speed: every line moves with the finger before anything is kept.
import { ref, shallowRef, type Ref, type ShallowRef } from 'vue'
import { latestOnly } from '@/shared/core/latest'
import type { RodLine } from '../api'

export interface SpeedTry {
  tried: Ref<number | null>
  preview: ShallowRef<RodLine[] | null>
  to(speedMps: number): void
  end(): void
}

export function useSpeedTry(linesAt: (speedMps: number) => Promise<RodLine[]>, failed: (error: unknown) => void): SpeedTry {
  const tried = ref<number | null>(null)
  const preview = shallowRef<RodLine[] | null>(null)
  const ask = latestOnly(linesAt, (lines) => (preview.value = lines), failed)
  return {
    tried,
    preview,
    to(speedMps) {
      if (tried.value === speedMps) return
      tried.value = speedMps
      ask(speedMps)
    },
    end() {
      ask.cancel()
      tried.value = null
      preview.value = null
    },
  }
}
