<script setup lang="ts">
// What was sounded on a trip: looked at, and added to the water's chart when the user says so.
import { shallowRef, ref, watch } from 'vue'
import { getDaySoundings, type DaySoundings } from '@/features/trip/api'
import { addSurvey, type Looked } from '@/features/waters/api'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'

const props = defineProps<{ tripId: string }>()
const display = useDisplayStore()
const found = shallowRef<DaySoundings | null>(null)
const looked = shallowRef<Looked | null>(null)
const problem = ref<string | null>(null)
const busy = ref(false)

async function attempt(act: () => Promise<void>): Promise<void> {
  problem.value = null
  busy.value = true
  try {
    await act()
  } catch (error) {
    problem.value = describeError(error, display.units)
  } finally {
    busy.value = false
  }
}

async function look(): Promise<void> {
  const tripId = props.tripId
  found.value = looked.value = null
  const now = await getDaySoundings(tripId)
  if (tripId === props.tripId) found.value = now
}
watch(
  () => props.tripId,
  () => void attempt(look),
  { immediate: true },
)

const send = (take: boolean) =>
  attempt(async () => {
    const { water_id, name, text, below_m } = found.value!
    looked.value = await addSurvey(water_id!, { name, format: 'csv', unit: 'm', swap: false, text, below_m, take })
    if (take) await look()
  })
</script>

<template>
  <section v-if="found && (found.count || found.unplaced)" class="soundings" aria-label="Soundings of the day" data-test="day-soundings">
    <p>
      <b>{{ found.count }}</b> {{ found.count === 1 ? 'depth was' : 'depths were' }} sounded where the place was known<template
        v-if="found.count"
        >, within {{ formatLength(found.doubt_m, display.units) }}</template
      ><template v-if="found.unplaced">; {{ found.unplaced }} without a place</template>.
      <template v-if="found.taken">They are in the chart.</template>
      <template v-else-if="found.water_id === null">The water is gone from the locker.</template>
    </p>
    <template v-if="found.count && !found.taken && found.water_id !== null">
      <template v-if="looked">
        <p>
          {{ formatLength(looked.shallowest_m, display.units, false) }}–{{ formatLength(looked.deepest_m, display.units) }}, the water
          {{ formatLength(found.below_m, display.units) }} under the chart’s level.
          <template v-for="odd in looked.oddities" :key="odd.kind"
            ><b>{{ odd.count }}</b> {{ odd.text }}.
          </template>
        </p>
        <v-btn :disabled="busy" data-test="take-soundings" @click="send(true)">Add them to the chart</v-btn>
      </template>
      <v-btn v-else :disabled="busy" data-test="look-soundings" @click="send(false)">Look at them for the chart</v-btn>
    </template>
    <ErrorNote :text="problem" />
  </section>
</template>

<style scoped>
.soundings {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
}
</style>
