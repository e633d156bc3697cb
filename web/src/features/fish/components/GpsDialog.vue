<script setup lang="ts">
// What GPS shows, turned into what the lures feel; and the way to the current and the wind.
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import { ref, watch } from 'vue'
import { latestOnly } from '@/shared/core/latest'
import { describeError } from '@/shared/units/describe'
import { parseNumber } from '@/shared/units/parse'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed, speedToMps } from '@/shared/units/units'
import type { FishView } from '@/features/trip/api'
import CompassPoints from './CompassPoints.vue'

const props = defineProps<{
  view: FishView
  throughWater: (gpsMps: number, courseDeg: number) => Promise<number>
  setSpeed: (speedMps: number) => Promise<string | null>
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ current: []; wind: [] }>()

const display = useDisplayStore()
const typed = ref('')
const course = ref(0)
const found = ref<number | null>(null)
const error = ref<string | null>(null)

const ask = latestOnly(
  (asked: { gps: number; course: number }) => props.throughWater(asked.gps, asked.course),
  (answer) => {
    found.value = answer
    error.value = null
  },
  (caught) => {
    found.value = null
    error.value = describeError(caught, display.units)
  },
)
watch(
  open,
  (now) => {
    if (!now) return
    typed.value = ''
    found.value = null
    error.value = null
    const view = props.view
    // Where the boat goes now; else up the current, or into the wind: there it matters most.
    course.value = view.wind?.course_deg ?? view.passes?.up_course_deg ?? view.wind?.wind.from_deg ?? 0
  },
  { immediate: true },
)
watch([typed, course], () => {
  if (typed.value.trim() === '') return
  const value = parseNumber(typed.value)
  if (value === null) {
    found.value = null
    error.value = `GPS: “${typed.value}” is no number. Type one, such as 2.8.`
  } else ask({ gps: speedToMps(value, display.units), course: course.value })
})

async function set(): Promise<void> {
  if (found.value === null) return
  error.value = await props.setSpeed(found.value)
  if (error.value === null) open.value = false
}
</script>

<template>
  <entry-sheet v-model="open" title="Speed by GPS" data-test="gps-dialog">
    <v-card-text>
      <label class="row"
        ><input v-model="typed" inputmode="decimal" aria-label="Speed by GPS" data-test="gps-speed" /><span class="label"
          >{{ display.units.speed }} shown, going toward</span
        ></label
      >
      <CompassPoints v-model="course" label="Going toward" />
      <p v-if="found !== null" class="found" data-test="gps-found">
        The lures feel <strong>{{ formatSpeed(found, display.units) }}</strong>
      </p>
      <p v-else-if="!error" class="label">
        A current carries boat and lures alike, wind pushes the boat alone: with either noted, GPS is not what the lures feel.
      </p>
      <p v-if="error" class="error" role="alert">{{ error }}</p>
    </v-card-text>
    <v-card-actions class="answers">
      <v-btn class="big" data-test="to-current" @click="emit('current')">Current …</v-btn>
      <v-btn class="big" data-test="to-wind" @click="emit('wind')">Wind …</v-btn>
      <v-btn class="big" @click="open = false">Cancel</v-btn>
      <v-btn class="big solid" :disabled="found === null" data-test="gps-set" @click="set">Set it</v-btn>
    </v-card-actions>
  </entry-sheet>
</template>

<style scoped src="./dialog.css"></style>
<style scoped>
.found {
  font-size: 18px;
}
.found strong {
  font-size: 26px;
}
.answers {
  flex-wrap: wrap;
}
</style>
