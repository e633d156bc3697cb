// Opens the trip that a page shows, and leaves it with the page, however fast that comes.
import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue'
import { useRoute } from 'vue-router'
import { useSessionStore } from '@/features/account/store'
import { currentTrip, rememberTrip } from '../logic/currentTrip'
import { useFishStore } from '../store'

export interface OpenTrip {
  /** There is no trip to open yet. */
  empty: Ref<boolean>
}

export function useOpenTrip(opened: () => unknown = () => undefined): OpenTrip {
  const store = useFishStore()
  const session = useSessionStore()
  const route = useRoute()
  const empty = ref(false)
  let left = false

  onMounted(async () => {
    try {
      const id = await currentTrip(route.query.trip, session.username)
      if (left) return
      if (id === null) {
        empty.value = true
        return
      }
      await store.open(id)
      if (left || !store.trip) return
      rememberTrip(id, session.username)
      await opened()
    } catch (error) {
      if (left) return
      if (store.trip) store.report(error)
      else store.loadError = error instanceof Error ? error.message : String(error)
    }
  })
  onBeforeUnmount(() => {
    left = true
    store.close()
  })
  return { empty }
}
