<script setup lang="ts">
// What the day is planned from: water, fish, day, the surface at dawn, clarity, weather, and the schools.
import { computed, ref } from 'vue'
import { formatAge } from '@/features/trip/logic/format'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useDisplayStore } from '@/shared/units/store'
import type { Wishes } from '../composables/useDay'
import { SPECIES } from '@/shared/trade/species'

const props = defineProps<{
  waters: { id: number; name: string }[]
  words: string
  age: number | null
  trouble: string
  isTyped: boolean
  coldMorning: boolean
  hasLastProfile: boolean
}>()
const wishes = defineModel<Wishes>({ required: true })
const emit = defineEmits<{ weather: []; typed: []; lastProfile: []; file: [kind: 'weather' | 'profile', text: string] }>()

const CLARITY = [
  { value: 6, title: 'Clear' },
  { value: 2.5, title: 'Stained' },
  { value: 0.7, title: 'Muddy' },
] as const
const COLD = [
  { value: 'cover_water', title: 'Cover water' },
  { value: 'stay_slow', title: 'Stay slow' },
] as const
const COLOURS = [
  { value: 'soft_then_flash', title: 'Soft, then flash' },
  { value: 'bright_metal', title: 'Metal when bright' },
  { value: 'uv_in_silt', title: 'UV in silt' },
  { value: 'match_bait', title: 'Match the bait' },
  { value: 'thump_first', title: 'Thump first' },
] as const
const display = useDisplayStore()
const more = ref(false)
const picker = ref<HTMLInputElement | null>(null)
let picking: 'weather' | 'profile' = 'weather'
function pick(kind: 'weather' | 'profile'): void {
  picking = kind
  picker.value?.click()
}
async function picked(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file) emit('file', picking, await file.text())
}
const waterOptions = computed(() => props.waters.map(({ id, name }) => ({ value: id, title: name })))
</script>

<template>
  <div class="wishes">
    <ChoiceRow v-model="wishes.water_id" label="water" :options="waterOptions" test="water" />
    <ChoiceRow v-model="wishes.species" label="after what" :options="SPECIES" test="species" />
    <div class="pair">
      <TextField v-model="wishes.day" label="the day" type="date" test="plan-day" />
      <NumberField v-model="wishes.surface" label="surface at dawn" measure="temperature" placeholder="by month" test="plan-surface" />
    </div>
    <div class="weather">
      <span class="label">weather</span>
      <p data-test="weather-words">
        <template v-if="isTyped">Typed: {{ words || 'a usual day between the two temperatures' }}</template>
        <template v-else
          >{{ words }}<template v-if="age"> · {{ formatAge(age) }} old</template></template
        >
      </p>
      <p v-if="trouble" class="trouble" role="status" data-test="weather-trouble">{{ trouble }}</p>
      <div v-if="isTyped" class="pair">
        <NumberField v-model="wishes.air_low" label="coldest air" measure="temperature" test="air-low" />
        <NumberField v-model="wishes.air_high" label="warmest air" measure="temperature" test="air-high" />
      </div>
      <div class="acts">
        <v-btn size="small" data-test="ask-weather" @click="emit('weather')">Ask the forecast</v-btn>
        <v-btn v-if="!isTyped" size="small" data-test="type-weather" @click="emit('typed')">Type it</v-btn>
        <v-btn size="small" data-test="weather-file" @click="pick('weather')">From a file</v-btn>
        <input ref="picker" type="file" accept=".csv,text/csv,text/plain" hidden data-test="day-file" @change="picked" />
      </div>
    </div>
    <ChoiceRow v-if="coldMorning" v-model="wishes.cold_school" label="cold morning: whose way" :options="COLD" test="cold" />
    <button type="button" class="more" :aria-expanded="more" data-test="more-wishes" @click="more = !more">
      {{ more ? 'Less' : 'Profile, clarity, colours, way home' }}
    </button>
    <template v-if="more">
      <label class="profile">
        <span class="label"
          >a profile you read: {{ display.units.length }} and {{ display.units.temperature }}, oxygen in mg/l if known; one line a depth,
          from the surface down</span
        >
        <textarea v-model.lazy="wishes.profile" rows="4" placeholder="0 49&#10;20 47&#10;60 44" data-test="plan-profile" />
      </label>
      <div class="acts">
        <v-btn v-if="hasLastProfile" size="small" data-test="last-profile" @click="emit('lastProfile')">As on the last trip</v-btn>
        <v-btn size="small" data-test="profile-file" @click="pick('profile')">From a file</v-btn>
      </div>
      <ChoiceRow v-model="wishes.secchi" label="how clear" :options="CLARITY" test="clarity" />
      <ChoiceRow v-model="wishes.colour_school" label="colours: whose way" :options="COLOURS" test="colours" />
      <div class="pair">
        <NumberField v-model="wishes.way" label="way to the ramp" measure="far" placeholder="a mile" test="plan-way" />
        <NumberField v-model="wishes.home" label="speed home" measure="speed" placeholder="as usual" test="plan-home" />
      </div>
      <NumberField
        v-model="wishes.endurance"
        label="fuel or battery lasts"
        measure="hours"
        placeholder="nobody said"
        test="plan-endurance"
      />
    </template>
    <div v-if="more || wishes.species === 'striper'" class="pair">
      <NumberField v-model="wishes.current" label="current" measure="speed" placeholder="no river" test="plan-current" />
      <NumberField v-model="wishes.fell" label="fell since the chart’s level" measure="long" placeholder="0" test="plan-fell" />
    </div>
  </div>
</template>

<style scoped>
.wishes {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
}
.pair {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 8px;
}
.weather {
  display: grid;
  gap: 4px;
}
.weather p {
  margin: 0;
  font-size: 13px;
}
.trouble {
  font-weight: 650;
}
.profile {
  display: grid;
}
.profile textarea {
  border: 1px solid var(--ink-2);
  border-radius: 4px;
  padding: 6px 8px;
  background: var(--frost);
  color: var(--ink);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.acts .v-btn {
  --v-btn-height: 44px;
}
.more {
  justify-self: start;
  min-height: 44px;
  text-decoration: underline;
  color: var(--ink);
  font-size: 14px;
}
</style>
