// From a planned day to a trip: kept, opened again, given to the trip that is under way, or taken along on a new one.
import { computed, nextTick, ref, type Ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Water } from '@/features/locker/api'
import { startTrip, takePlan, type NewTrip, type TripList } from '@/features/trip/api'
import { useDeliveryStore } from '@/features/trip/delivery/store'
import { beginAlone } from '@/features/trip/logic/beginAlone'
import { newId } from '@/features/trip/logic/events'
import { tripDay } from '@/features/trip/logic/format'
import { LinkDownError } from '@/shared/api/client'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { getPlan, savePlan } from '../api'
import type { DayPlanning } from './useDay'

export interface TripStartOptions {
  planning: DayPlanning
  list: Ref<TripList | null>
  water: Ref<Water | null>
  error: Ref<string | null>
  /** Whether what the wishes say is to be computed when they change. */
  ready: Ref<boolean>
  /** A day was kept: the list of them is old. */
  kept: () => Promise<void>
}

export function useTripStart({ planning, list, water, error, ready, kept }: TripStartOptions) {
  const router = useRouter()
  const display = useDisplayStore()
  const { wishes, day } = planning
  const form = ref({
    // The day is name enough; who wants another types it.
    name: new Date().toLocaleDateString(undefined, { weekday: 'long', day: 'numeric', month: 'long' }),
    outfit_id: null as number | null,
  })
  /** The same until the trip is started: pressed twice, or sent again, it is one trip with one plan. */
  let tripId = newId()
  let takenId = newId()
  const planId = ref(newId())
  const starting = ref(false)
  const delivery = useDeliveryStore()
  /** Waters for which there was no room to carry them along. */
  const leftOut = ref<string[]>([])
  /** Since when what is carried along is, where no server answers. */
  const alone = ref<string | null>(null)
  /** What was done, said in a few words. */
  const done = ref('')
  /** The open trip that the day on this page is a day for. */
  const underWay = computed(
    () =>
      list.value?.trips.find(
        (trip) =>
          !trip.is_ended &&
          trip.water_name === water.value?.name &&
          trip.species === wishes.species &&
          tripDay({ ...trip, started_at_s: trip.now_s }) === wishes.day,
      ) ?? null,
  )

  /** Keep the day as it stands; say whether that went well. */
  async function keep(): Promise<boolean> {
    error.value = null
    done.value = ''
    if (starting.value) return false
    starting.value = true
    try {
      const body = planning.asked(false)
      if (!body) throw new Error('Give water and surface temperature first: the day is computed from them.')
      await savePlan(planId.value, body)
      done.value = 'Kept.'
      await kept()
      return true
    } catch (caught) {
      error.value = describeError(caught, display.units)
      return false
    } finally {
      starting.value = false
    }
  }

  async function give(): Promise<void> {
    const trip = underWay.value
    if (!trip || !(await keep())) return
    try {
      await takePlan(trip.id, { id: takenId, plan_id: planId.value })
      takenId = newId()
      await router.push({ path: '/fish', query: { trip: trip.id } })
    } catch (caught) {
      error.value = describeError(caught, display.units)
    }
  }

  async function reopen(id: string): Promise<void> {
    error.value = null
    done.value = ''
    ready.value = false
    try {
      planning.reopen(await getPlan(id))
      planId.value = id
    } catch (caught) {
      error.value = describeError(caught, display.units)
    }
    // What the wishes now say has been computed: only a change from here on asks anew.
    await nextTick()
    ready.value = true
  }

  /** Without a server a trip begins from what was carried along; says whether it did. */
  async function startAlone(): Promise<boolean> {
    try {
      const kit = await delivery.carried()
      if (!kit || wishes.water_id === null || form.value.outfit_id === null) return false
      const { species, water_id } = wishes
      const wish = { id: tripId, name: form.value.name.trim(), water_id, outfit_id: form.value.outfit_id, species }
      const { trip, body, events } = beginAlone(kit, wish, delivery.nowS())
      await delivery.begin({ trip, events: [], after: 0 }, body)
      for (const event of events) await delivery.keep(trip.id, event)
      tripId = newId()
      await router.push({ path: '/fish', query: { trip: trip.id } })
    } catch (caught) {
      error.value = describeError(caught, display.units)
    }
    return true
  }

  /** What the page is when no server answers: waters and boats that were carried along. */
  async function beginFromKit(): Promise<boolean> {
    const kit = await delivery.carried()
    if (!kit) return false
    const bare = (rows: readonly { id: number; name: string }[]) => rows.map(({ id, name }) => ({ id, name }))
    list.value = { trips: [], waters: bare(kit.waters), outfits: bare(kit.outfits) }
    wishes.water_id = kit.waters[0]?.id ?? null
    form.value.outfit_id = kit.outfits[0]?.id ?? null
    leftOut.value = kit.left_out ?? []
    alone.value = new Date(kit.made_at_s * 1000).toLocaleDateString(undefined, { weekday: 'long', day: 'numeric', month: 'long' })
    return true
  }

  async function start(): Promise<void> {
    error.value = null
    if (!form.value.name.trim() || wishes.water_id === null || form.value.outfit_id === null) {
      error.value = 'Name, water and boat are all needed to start a trip.'
      return
    }
    if (starting.value) return
    starting.value = true
    try {
      const body = day.value ? planning.asked(false) : null
      if (body) await savePlan(planId.value, body)
      const sent: NewTrip = {
        id: tripId,
        name: form.value.name,
        water_id: wishes.water_id,
        outfit_id: form.value.outfit_id,
        species: wishes.species,
        ...(body ? { plan_id: planId.value } : {}),
      }
      const trip = await startTrip(sent)
      tripId = newId()
      planId.value = newId()
      await router.push({ path: '/fish', query: { trip: trip.id } })
    } catch (caught) {
      if (!(caught instanceof LinkDownError) || !(await startAlone())) error.value = describeError(caught, display.units)
    } finally {
      starting.value = false
    }
  }

  return { form, planId, starting, alone, leftOut, done, underWay, keep, give, reopen, beginFromKit, start }
}
