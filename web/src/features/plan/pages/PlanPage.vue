<script setup lang="ts">
// The user's trips: open one, take it out in open formats, or start a new one.
import { onMounted, reactive, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { useDeliveryStore } from '@/features/trip/delivery/store'
import { getTrip, listTrips, startTrip, type NewTrip, type TripList } from '@/features/trip/api'
import { makeEvent, newId } from '@/features/trip/logic/events'

const router = useRouter()
const delivery = useDeliveryStore()
const list = shallowRef<TripList | null>(null)
const error = ref<string | null>(null)
const form = reactive({
  name: '',
  water_id: null as number | null,
  outfit_id: null as number | null,
  species: 'trout' as NewTrip['species'],
})
const SPECIES = [
  { value: 'trout', title: 'Trout' },
  { value: 'kokanee', title: 'Kokanee' },
  { value: 'striper', title: 'Striped bass' },
]

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

/** The day at the water: an evening trip is not tomorrow's. */
function day(trip: TripList['trips'][number]): string {
  return new Date((trip.started_at_s + trip.utc_offset_min * 60) * 1000).toISOString().slice(0, 10)
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
    form.water_id = list.value.waters[0]?.id ?? null
    form.outfit_id = list.value.outfits[0]?.id ?? null
  } catch (caught) {
    error.value = caught instanceof Error ? caught.message : String(caught)
  }
})
</script>

<template>
  <main class="trips" data-test="trips">
    <h1>Trips</h1>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
    <ul v-if="list?.trips.length">
      <li v-for="trip in list.trips" :key="trip.id">
        <router-link :to="{ path: '/fish', query: { trip: trip.id } }"
          ><strong>{{ trip.name }}</strong></router-link
        >
        <span class="label">{{ trip.water_name }} · {{ trip.species }} · {{ day(trip) }} · {{ trip.is_ended ? 'over' : 'open' }}</span>
        <button v-if="!trip.is_ended" class="end" :data-test="`end-${trip.id}`" @click="end(trip.id)">
          {{ ending === trip.id ? 'Lines in? Press again to end it' : 'End this trip' }}
        </button>
        <a :href="`/api/trips/${trip.id}/export.csv`" data-test="export-csv">events as CSV</a>
        <a :href="`/api/trips/${trip.id}/export.json`" data-test="export-json">whole trip as JSON</a>
      </li>
    </ul>
    <p v-else-if="list">No trip yet. Start the first one below.</p>
    <div v-if="list && (!list.waters.length || !list.outfits.length)" class="first" data-test="set-up-first">
      <p>A trip needs a boat and a water. Set up once, in this order:</p>
      <ol>
        <li v-if="!list.outfits.length"><router-link to="/locker?tab=boats">a boat with its rods</router-link></li>
        <li><router-link to="/locker?tab=tackle">tackle, from the starter locker, counted aboard</router-link></li>
        <li v-if="!list.waters.length"><router-link to="/locker?tab=waters">a water</router-link></li>
      </ol>
    </div>
    <form v-else-if="list" @submit.prevent="start">
      <h2>Start a trip</h2>
      <v-text-field v-model="form.name" label="Name" maxlength="120" />
      <v-select v-model="form.water_id" label="Water" :items="list.waters" item-title="name" item-value="id" />
      <v-select v-model="form.outfit_id" label="Boat" :items="list.outfits" item-title="name" item-value="id" />
      <v-select v-model="form.species" label="Fish" :items="SPECIES" />
      <p class="label">Life jacket on; below about 60 °F (15 °C) the water itself is the danger. Local rules come first.</p>
      <v-btn type="submit" class="go" :disabled="starting">Start now</v-btn>
    </form>
  </main>
</template>

<style scoped>
.end {
  min-height: 44px;
  padding: 0 8px;
  font-weight: 640;
  border: 1px solid var(--ink);
  border-radius: 4px;
}
.trips {
  max-width: 860px;
  margin: 0 auto;
  padding: 16px;
}
h1,
h2 {
  font-weight: 720;
  font-stretch: 90%;
}
ul {
  list-style: none;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  align-items: center;
  min-height: 56px;
  border-bottom: 1px solid var(--line);
}
a {
  color: var(--ink);
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
.first ol {
  padding-left: 24px;
}
.first li {
  display: list-item;
  border: 0;
}
form {
  display: grid;
  gap: 12px;
  max-width: 420px;
  margin-top: 24px;
}
.go {
  height: var(--touch) !important;
  background: var(--ink);
  color: var(--frost);
}
.error {
  color: var(--now);
  font-weight: 700;
}
</style>
