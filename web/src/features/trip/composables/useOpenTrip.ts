// Opens the trip that a page shows. It stays open from page to page: going from one to another asks nothing anew.
import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue'
import { useRoute } from 'vue-router'
import { useSessionStore } from '@/features/account/store'
import { currentTrip, rememberTrip } from '../logic/currentTrip'
import { useTripStore } from '../store'

export interface OpenTrip {
  /** There is no trip to open yet. */
  empty: Ref<boolean>
}

export function useOpenTrip(opened: () => unknown = () => undefined): OpenTrip {
  const store = useTripStore()
  const session = useSessionStore()
  const route = useRoute()
  const empty = ref(false)
  let left = false

  onMounted(async () => {
    try {
      const asked = route.query.trip
      if (store.trip && (!asked || asked === store.trip.id)) {
        void store.refresh()
        await opened()
        return
      }
      const id = await currentTrip(asked, session.username)
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
    store.notice = null
    // What never opened is asked for anew by the next page.
    if (!store.trip) store.close()
  })
  return { empty }
}
