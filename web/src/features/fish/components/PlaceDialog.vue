<script setup lang="ts">
// Where the boat is and the course it makes: typed, or from this phone.
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import { ref, watch } from 'vue'
import { useFollowingStore } from '@/features/trip/following'
import { parseNumber } from '@/shared/units/parse'

const props = defineProps<{
  note: (latitudeDeg: number, longitudeDeg: number, courseDeg: number) => Promise<string | null>
  last: { latitude: number; longitude: number; course: number } | null
}>()
const open = defineModel<boolean>({ required: true })

const following = useFollowingStore()
const latitude = ref('')
const longitude = ref('')
const course = ref('')
const error = ref<string | null>(null)
const waiting = ref(false)

watch(
  open,
  (now) => {
    if (!now) return
    error.value = null
    latitude.value = props.last ? props.last.latitude.toFixed(5) : ''
    longitude.value = props.last ? props.last.longitude.toFixed(5) : ''
    course.value = props.last ? String(Math.round(props.last.course)) : ''
  },
  { immediate: true },
)

function fromPhone(): void {
  if (!navigator.geolocation) {
    error.value = 'This browser tells no place: type it from a chart or map.'
    return
  }
  waiting.value = true
  navigator.geolocation.getCurrentPosition(
    (fix) => {
      waiting.value = false
      latitude.value = fix.coords.latitude.toFixed(5)
      longitude.value = fix.coords.longitude.toFixed(5)
      if (fix.coords.heading !== null && !Number.isNaN(fix.coords.heading)) course.value = String(Math.round(fix.coords.heading))
    },
    (failure) => {
      waiting.value = false
      error.value = `The phone gave no place (${failure.message}): type it, or try again under open sky.`
    },
    { enableHighAccuracy: true, timeout: 20_000 },
  )
}

async function commit(): Promise<void> {
  const values = [latitude.value, longitude.value, course.value].map((text) => parseNumber(text))
  const bad = values.findIndex((value) => value === null)
  if (bad >= 0) {
    error.value = `${['Latitude', 'Longitude', 'Course'][bad]}: type a number of degrees${bad === 1 ? ', west is negative' : ''}.`
    return
  }
  error.value = await props.note(values[0]!, values[1]!, values[2]!)
  if (error.value === null) open.value = false
}
</script>

<template>
  <entry-sheet v-model="open" title="Where the boat is" data-test="place-dialog">
    <v-card-text>
      <div class="sources">
        <v-btn class="big" :loading="waiting" data-test="from-phone" @click="fromPhone">Once from here</v-btn>
        <v-btn class="big" data-test="follow" @click="following.on ? following.stop() : following.start()">
          {{ following.on ? 'Stop following' : 'Follow this phone' }}
        </v-btn>
      </div>
      <p class="label" role="status" data-test="following">
        <template v-if="following.problem">{{ following.problem }}</template>
        <template v-else-if="following.on"
          >Followed while this page is open: each turn is noted, and a straight way by the minute.</template
        >
      </p>
      <div class="fields">
        <label>
          <input v-model="latitude" inputmode="decimal" aria-label="Latitude" data-test="latitude" />
          <span class="label">latitude, degrees, south negative</span>
        </label>
        <label>
          <input v-model="longitude" inputmode="decimal" aria-label="Longitude" data-test="longitude" />
          <span class="label">longitude, degrees, west negative</span>
        </label>
        <label>
          <input v-model="course" inputmode="decimal" aria-label="Course over ground" data-test="course" />
          <span class="label">course over ground, degrees from north</span>
        </label>
      </div>
      <p class="label">It is reckoned on from here for a quarter of an hour. A help for the lines, never for navigation.</p>
      <p v-if="error" class="error" role="alert">{{ error }}</p>
    </v-card-text>
    <v-card-actions>
      <v-btn class="big" @click="open = false">Cancel</v-btn>
      <v-btn class="big solid" data-test="place-save" @click="commit">Save</v-btn>
    </v-card-actions>
  </entry-sheet>
</template>

<style scoped>
.sources {
  display: flex;
  gap: 8px;
  margin-bottom: 6px;
}
.fields {
  display: flex;
  flex-direction: column;
  gap: 4px;
  margin: 4px 0;
}
input {
  width: 100%;
  font-size: 24px;
  color: var(--ink);
  border-bottom: 2px solid var(--ink);
  min-height: 44px;
}
.big {
  min-height: var(--touch);
  flex: 1;
}
</style>
