// Simulated days: the one that is fished goes on as long as somebody looks.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, take, type Schemas } from '@/shared/api/client'

export type Lesson = Schemas['Lesson']
export type PracticeDay = Schemas['PracticeDay']
export type TruthView = Schemas['TruthView']
export type Score = Schemas['Score']
export type Who = 'fixed' | 'habit' | 'advisor' | 'oracle'

export const usePracticeStore = defineStore('practice', () => {
  const day = shallowRef<PracticeDay | null>(null)
  const busy = ref(false)
  /** Whether the next move is shown on the day that is fished. */
  const advice = computed(() => day.value?.advice ?? true)

  async function go(tripId: string, pace?: number): Promise<PracticeDay> {
    busy.value = true
    try {
      const body = pace === undefined ? {} : { pace }
      day.value = await take(api.POST('/api/practice/{trip_id}/', { params: { path: { trip_id: tripId } }, body }))
      return day.value
    } finally {
      busy.value = false
    }
  }

  const list = (): Promise<PracticeDay[]> => take(api.GET('/api/practice/'))

  const lessons = (): Promise<Lesson[]> => take(api.GET('/api/practice/lessons/'))

  const start = (asked: Schemas['NewPractice']): Promise<PracticeDay> => take(api.POST('/api/practice/', { body: asked }))

  async function drop(tripId: string): Promise<void> {
    await take(api.DELETE('/api/practice/{trip_id}/', { params: { path: { trip_id: tripId } } }))
  }

  const truth = (tripId: string): Promise<TruthView> =>
    take(api.GET('/api/practice/{trip_id}/truth/', { params: { path: { trip_id: tripId } } }))

  const score = (tripId: string, who: Who): Promise<Score> =>
    take(api.GET('/api/practice/{trip_id}/score/', { params: { path: { trip_id: tripId }, query: { who } } }))

  return { day, busy, advice, go, list, lessons, start, drop, truth, score }
})
