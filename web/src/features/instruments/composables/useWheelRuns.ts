// A speedometer's wheel against GPS: a run there and one back, heard as they are sailed. What comes of them the core says.
import { computed, ref, watch } from 'vue'
import { useInstrumentsStore } from '../store'

export type RunStep = 'ready' | 'there' | 'turn' | 'back' | 'done'
interface Sample {
  ground_mps: number
  wheel_mps: number
  course_deg: number
}

export function useWheelRuns(sourceId: () => string, present: () => number) {
  const instruments = useInstrumentsStore()
  const step = ref<RunStep>('ready')
  const there = ref<Sample[]>([])
  const back = ref<Sample[]>([])
  const running = computed(() => (step.value === 'there' ? there : step.value === 'back' ? back : null))

  /** What is heard now of both, where both are: one without the other tells nothing. */
  const now = computed<Sample | null>(() => {
    const values = instruments.told?.heard?.values ?? []
    const used = (quantity: string) => values.find((value) => value.quantity === quantity && value.state === 'used')?.value
    const wheel = values.find(
      (value) => value.quantity === 'water_speed' && value.source_id === sourceId() && (value.state === 'used' || value.state === 'other'),
    )?.value
    const ground = used('ground_speed')
    const course = used('course')
    if (wheel === undefined || ground === undefined || course === undefined) return null
    return { ground_mps: ground, wheel_mps: wheel, course_deg: course }
  })

  // As often as it is asked, and not as often as the page is drawn.
  watch(
    () => instruments.told?.heard?.at_s,
    () => {
      if (running.value && now.value) running.value.value.push(now.value)
    },
  )

  function begin(): void {
    there.value = []
    back.value = []
    step.value = 'there'
  }

  /** The next step; after the last run the wheel's factor is told. */
  async function go(): Promise<number | null> {
    if (step.value === 'ready' || step.value === 'done') begin()
    else if (step.value === 'there') step.value = 'turn'
    else if (step.value === 'turn') step.value = 'back'
    else {
      step.value = 'done'
      return instruments.wheelByRuns({ there: there.value, back: back.value, present: present() })
    }
    return null
  }

  return { step, now, count: computed(() => running.value?.value.length ?? 0), go, leave: () => void (step.value = 'ready') }
}
