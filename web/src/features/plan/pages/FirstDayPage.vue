<script setup lang="ts">
// The first day: a boat, a fish, a water, and off: what is chosen here can all be changed later in the Locker.
import { computed, onMounted, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { getCatalogue, type Catalogue } from '@/features/locker/api'
import { firstDay } from '@/features/trip/api'
import BoatAbove from '@/features/trip/components/BoatAbove.vue'
import { newId } from '@/features/trip/logic/events'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import TextField from '@/shared/ui/TextField.vue'
import { describeError } from '@/shared/units/describe'
import { settled, type Typed } from '@/shared/units/measures'
import { useDisplayStore } from '@/shared/units/store'

const router = useRouter()
const display = useDisplayStore()
const catalogue = shallowRef<Catalogue | null>(null)
const boat = ref<string | null>(null)
const species = ref<'trout' | 'kokanee' | 'striper' | null>(null)
const water = ref('')
const deepest = ref<Typed>(null)
const place = ref<{ latitude: number; longitude: number } | null>(null)
const problem = ref<string | null>(null)
const busy = ref(false)
const SPECIES = [
  { value: 'trout', title: 'Trout' },
  { value: 'kokanee', title: 'Kokanee' },
  { value: 'striper', title: 'Striped bass' },
] as const
const boats = computed(() => catalogue.value?.boats ?? [])
/** The same until it is there: pressed twice, or sent again, it is one trip. */
const tripId = newId()

onMounted(async () => {
  try {
    catalogue.value = await getCatalogue()
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
})

function here(): void {
  if (!navigator.geolocation) {
    problem.value = 'This browser tells no place. Go on without it: light is guessed until you give the place in the Locker.'
    return
  }
  navigator.geolocation.getCurrentPosition(
    ({ coords }) => (place.value = { latitude: coords.latitude, longitude: coords.longitude }),
    (error) => (problem.value = `No place from this device (${error.message}). Go on without it, or give it later in the Locker.`),
  )
}

async function start(): Promise<void> {
  problem.value = null
  if (!boat.value || !species.value || !water.value.trim()) {
    problem.value = 'Choose a boat and a fish, and name the water.'
    return
  }
  busy.value = true
  try {
    const trip = await firstDay({
      id: tripId,
      boat_name: boat.value,
      species: species.value,
      water_name: water.value,
      deepest_m: settled(deepest.value, 'Deepest'),
      utc_offset_min: -new Date().getTimezoneOffset(),
      timezone: Intl.DateTimeFormat().resolvedOptions().timeZone ?? '',
      ...(place.value ? { latitude_deg: place.value.latitude, longitude_deg: place.value.longitude } : {}),
    })
    await router.push({ path: '/fish', query: { trip: trip.id } })
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
  busy.value = false
}
</script>

<template>
  <main class="first-day" data-test="first-day">
    <h1>First day</h1>
    <p>Three things, and the first line can go out. Holders, tackle and numbers are all yours to change later.</p>
    <form @submit.prevent="start">
      <fieldset>
        <legend class="label">the boat that is most like yours</legend>
        <div class="boats">
          <label v-for="item in boats" :key="item.boat_name" class="boat" :class="{ chosen: boat === item.boat_name }">
            <input v-model="boat" type="radio" :value="item.boat_name" :data-test="`boat-${item.places.length}`" />
            <BoatAbove class="drawing" :length-m="item.boat_length_m" :places="item.places.map((p) => ({ ...p, aft_m: p.aft_m ?? 0 }))" />
            <strong>{{ item.boat_name }}</strong>
            <small>{{ item.rods.length }} rods</small>
          </label>
        </div>
      </fieldset>
      <ChoiceRow v-model="species" label="after what" :options="SPECIES" test="species" />
      <div class="water">
        <TextField v-model="water" label="the water" maxlength="120" test="water-name" />
        <NumberField v-model="deepest" label="deepest" measure="long" test="water-deepest" />
        <v-btn class="here" :disabled="place !== null" data-test="here" @click="here">
          {{ place ? 'Place taken' : 'It is where I am' }}
        </v-btn>
      </div>
      <p class="label">
        Without a place the hours of light are guessed from this clock. Life jacket on; below about 60 °F (15 °C) the water itself is the
        danger. Local rules come first.
      </p>
      <ErrorNote :text="problem" />
      <v-btn type="submit" class="go" :loading="busy" data-test="first-start">Rig the rods and start</v-btn>
    </form>
  </main>
</template>

<style scoped>
.first-day {
  max-width: 1040px;
  margin: 0 auto;
  padding: 16px;
}
h1 {
  font-size: 32px;
  font-weight: 720;
  font-stretch: 90%;
}
form {
  display: grid;
  gap: 14px;
  margin-top: 10px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
}
.boats {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 8px;
}
.boat {
  position: relative;
  display: grid;
  justify-items: center;
  padding: 8px;
  background: var(--water);
  border: 2px solid transparent;
  border-radius: 4px;
  cursor: pointer;
}
.boat.chosen {
  border-color: var(--ink);
  background: var(--frost);
}
.boat:focus-within {
  outline: 3px solid var(--ink);
}
.boat input {
  position: absolute;
  inset: 0;
  opacity: 0;
  margin: 0;
}
.drawing {
  width: 100%;
  height: 230px;
  pointer-events: none;
}
.water {
  display: grid;
  grid-template-columns: 2fr 1fr auto;
  gap: 10px;
  align-items: end;
  max-width: 720px;
}
.here {
  --v-btn-height: 48px;
}
.go {
  --v-btn-height: var(--touch);
  justify-self: start;
  background: var(--ink);
  color: var(--frost);
}
@media (max-width: 700px) {
  .boats {
    grid-template-columns: 1fr 1fr;
  }
  .drawing {
    height: 130px;
  }
  .water {
    grid-template-columns: 2fr 1fr;
  }
}
</style>
