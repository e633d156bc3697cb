// Dragging a lure: the number follows the finger, the latest answer wins, the last one is kept.
import { ref, shallowRef, type Ref, type ShallowRef } from 'vue'
import { CoreError } from '@/shared/core/protocol'
import { latestOnly } from '@/shared/core/latest'
import { describeError } from '@/shared/units/describe'
import type { UnitChoice } from '@/shared/units/units'
import type { RodLine } from '@/features/trip/api'

export interface LureDrag {
  rodId: Ref<string | null>
  line: ShallowRef<RodLine | null>
  problem: Ref<string | null>
  start(rodId: string): void
  to(depthM: number): void
  finish(): Promise<void>
  cancel(): void
}

export interface LureDragOptions {
  numberFor: (rodId: string, depthM: number) => Promise<RodLine>
  setDepth: (rodId: string, depthM: number) => Promise<boolean>
  units: () => UnitChoice
}

export function useLureDrag(options: LureDragOptions): LureDrag {
  const rodId = ref<string | null>(null)
  const line = shallowRef<RodLine | null>(null)
  const problem = ref<string | null>(null)
  let wanted: number | null = null

  const ask = latestOnly(
    ({ rod, depth }: { rod: string; depth: number }) => options.numberFor(rod, depth),
    (answer) => {
      line.value = answer
      problem.value = null
    },
    (error, { rod }) => {
      problem.value = describeError(error, options.units())
      // Stop at the deepest the line can do, so that letting go keeps what can be had.
      if (error instanceof CoreError && error.limit !== null && error.limit > 0) {
        wanted = error.limit
        options.numberFor(rod, error.limit).then(
          (answer) => (line.value = rodId.value === rod ? answer : line.value),
          () => undefined,
        )
      }
    },
  )

  function reset(): void {
    rodId.value = null
    line.value = null
    problem.value = null
    wanted = null
  }

  return {
    rodId,
    line,
    problem,
    start(rod) {
      reset()
      rodId.value = rod
    },
    to(depthM) {
      if (rodId.value === null) return
      wanted = depthM
      ask({ rod: rodId.value, depth: depthM })
    },
    async finish() {
      ask.cancel()
      const rod = rodId.value
      const depth = wanted
      if (rod !== null && depth !== null) await options.setDepth(rod, depth)
      reset()
    },
    cancel() {
      ask.cancel()
      reset()
    },
  }
}
