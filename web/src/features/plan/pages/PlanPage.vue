<script setup lang="ts">
// The evening before: the trips that are open, and the next one.
import { computed, onMounted, reactive, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { getTrip, listTrips, startTrip, type NewTrip, type TripList } from '@/features/trip/api'
import { useDeliveryStore } from '@/features/trip/delivery/store'
import { makeEvent, newId } from '@/features/trip/logic/events'
import { tripDay } from '@/features/trip/logic/format'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import EmptyState from '@/shared/ui/EmptyState.vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import TextField from '@/shared/ui/TextField.vue'

const router = useRouter()
const delivery = useDeliveryStore()
const list = shallowRef<TripList | null>(null)
const error = ref<string | null>(null)
const form = reactive({
  // The day is name enough; who wants another types it.
  name: new Date().toLocaleDateString(undefined, { weekday: 'long', day: 'numeric', month: 'long' }),
  water_id: null as number | null,
  outfit_id: null as number | null,
  species: 'trout' as NewTrip['species'],
})
const SPECIES = [
  { value: 'trout', title: 'Trout' },
  { value: 'kokanee', title: 'Kokanee' },
  { value: 'striper', title: 'Striped bass' },
] as const
const open = computed(() => list.value?.trips.filter((trip) => !trip.is_ended) ?? [])
const bare = computed(() => list.value !== null && !list.value.waters.length && !list.value.outfits.length)
const named = (rows: { id: number; name: string }[]) => rows.map(({ id, name }) => ({ value: id, title: name }))

/** The trip whose end was asked for once: the second press ends it. */
const ending = ref<string | null>(null)

async function end(id: string): Promise<void> {
  error.value = null
  if (ending.value !== id) {
    ending.value = id
    return
  }
  try {
    const trip = await getTrip(id)
    // Every trip goes by its own clock.
    const nowS = delivery.nowS() - trip.clock_shift_s!
    await delivery.keep(id, makeEvent('trip_ended', {}, nowS))
    await delivery.flush()
    list.value = await listTrips()
  } catch (caught) {
    error.value = caught instanceof Error ? caught.message : String(caught)
  } finally {
    ending.value = null
  }
}

/** The same until the trip is started: pressed twice, or sent again, it is one trip. */
let tripId = newId()
const starting = ref(false)

async function start(): Promise<void> {
  error.value = null
  if (!form.name.trim() || form.water_id === null || form.outfit_id === null) {
    error.value = 'Name, water and boat are all needed to start a trip.'
    return
  }
  if (starting.value) return
  starting.value = true
  try {
    const trip = await startTrip({ ...form, id: tripId, water_id: form.water_id, outfit_id: form.outfit_id })
    tripId = newId()
    await router.push({ path: '/fish', query: { trip: trip.id } })
  } catch (caught) {
    error.value = caught instanceof Error ? caught.message : String(caught)
  } finally {
    starting.value = false
  }
}

onMounted(async () => {
  try {
    list.value = await listTrips()
    // Where the last trip went, most go again.
    const last = list.value.trips[0]
    const again = list.value.waters.find((water) => water.name === last?.water_name)
    form.water_id = (again ?? list.value.waters[0])?.id ?? null
    if (last) form.species = last.species as NewTrip['species']
    form.outfit_id = list.value.outfits[0]?.id ?? null
  } catch (caught) {
    error.value = caught instanceof Error ? caught.message : String(caught)
  }
})
</script>

<template>
  <main class="plan" data-test="plan">
    <EmptyState
      v-if="bare"
      title="Nothing set up yet"
      text="A boat with its rods, tackle from the starter locker, a water: all three in one go, then the first line."
      act="Set up the first day"
      test="set-up-first"
      @act="router.push('/first-day')"
    />
    <template v-else>
      <h1>Plan</h1>
      <ErrorNote :text="error" />
      <section v-if="open.length" class="open" aria-label="Open trips">
        <h2>Under way</h2>
        <article v-for="trip in open" :key="trip.id">
          <router-link :to="{ path: '/fish', query: { trip: trip.id } }"
            ><strong>{{ trip.name }}</strong
            ><span class="label">{{ trip.water_name }} · {{ trip.species }} · {{ tripDay(trip) }}</span></router-link
          >
          <v-btn :data-test="`end-${trip.id}`" @click="end(trip.id)">
            {{ ending === trip.id ? 'Lines in? Press again to end it' : 'End this trip' }}
          </v-btn>
        </article>
        <p><router-link to="/rig/spread">Build an opening spread</router-link> · <router-link to="/rig/card">Rig card</router-link></p>
      </section>
      <form v-if="list" @submit.prevent="start">
        <h2>Start a trip</h2>
        <TextField v-model="form.name" label="its name" maxlength="120" test="trip-name" />
        <ChoiceRow v-if="list.waters.length" v-model="form.water_id" label="water" :options="named(list.waters)" test="water" />
        <p v-else><router-link to="/locker?tab=waters">Add a water first</router-link></p>
        <ChoiceRow v-if="list.outfits.length" v-model="form.outfit_id" label="boat" :options="named(list.outfits)" test="outfit" />
        <p v-else><router-link to="/locker?tab=boats">Add a boat with its rods first</router-link></p>
        <ChoiceRow v-model="form.species" label="after what" :options="SPECIES" test="species" />
        <p class="label">Life jacket on; below about 60 °F (15 °C) the water itself is the danger. Local rules come first.</p>
        <v-btn type="submit" class="go" :disabled="starting" data-test="start-trip">Start now</v-btn>
      </form>
    </template>
  </main>
</template>

<style scoped>
.plan {
  max-width: 860px;
  margin: 0 auto;
  padding: 16px;
}
h1,
h2 {
  font-weight: 720;
  font-stretch: 90%;
}
h2 {
  font-size: 18px;
}
.open,
form {
  display: grid;
  gap: 14px;
  margin-top: 12px;
  padding: 14px 16px;
  background: var(--frost);
}
article {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
  justify-content: space-between;
  border-bottom: 1px solid var(--line);
  padding-bottom: 8px;
}
article a {
  display: grid;
  text-decoration: none;
}
article strong {
  font-size: 18px;
  text-decoration: underline;
}
article .v-btn {
  --v-btn-height: 44px;
}
a {
  color: var(--ink);
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
.go {
  --v-btn-height: var(--touch);
  justify-self: start;
  background: var(--ink);
  color: var(--frost);
}
</style>
