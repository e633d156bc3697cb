<script setup lang="ts">
// The electrolysis test: read, told, and kept with its history.
import { computed, ref } from 'vue'
import type { SpreadCheck, TripDocument } from '@/features/trip/api'
import { formatClock } from '@/features/trip/logic/format'
import { parseNumber } from '@/shared/units/parse'
import SelectField from '@/shared/ui/SelectField.vue'

const props = defineProps<{
  spread: SpreadCheck
  trip: TripDocument
  note: (placeId: string, volts: number) => Promise<string | null>
}>()

const cables = computed(() => props.trip.outfit.places.filter((place) => place.kind === 'downrigger'))
const chosen = ref<string | null>(null)
const volts = ref('')
const error = ref<string | null>(null)
const nameOf = (id: string): string => props.trip.outfit.places.find((place) => place.id === id)?.name ?? id

async function keep(): Promise<void> {
  const value = parseNumber(volts.value)
  const place = chosen.value ?? cables.value[0]?.id
  if (value === null || !place) {
    error.value = `Volts: “${volts.value}” is no number. Type one, such as 0.6.`
    return
  }
  error.value = await props.note(place, value)
  if (error.value === null) volts.value = ''
}
</script>

<template>
  <details v-if="cables.length" class="volts" data-test="voltage">
    <summary>
      Cable voltage<template v-if="spread.voltages[0]">: {{ spread.voltages[0].reading.volts.toFixed(2) }} V</template>
    </summary>
    <p class="label">Cable in the water at trolling speed, against the boat's metal. {{ spread.voltage_schools }}</p>
    <div class="row">
      <SelectField
        class="cable"
        :model-value="chosen ?? cables[0]?.id ?? null"
        label="Which cable"
        silent
        :items="cables.map((place) => ({ value: place.id, title: place.name }))"
        @update:model-value="chosen = $event"
      />
      <input v-model="volts" inputmode="decimal" aria-label="Volts" placeholder="V" data-test="volts" @keydown.enter="keep" />
      <v-btn class="keep" data-test="keep-volts" @click="keep">Keep</v-btn>
    </div>
    <p v-if="error" class="error" role="alert">{{ error }}</p>
    <p
      v-for="item in spread.voltages.slice(0, 4)"
      :key="`${item.at_s}${item.place_id}`"
      :class="{ error: item.reading.verdict === 'negative' }"
    >
      {{ formatClock(item.at_s, trip.utc_offset_min) }} {{ nameOf(item.place_id) }}: {{ item.reading.volts.toFixed(2) }} V.
      {{ item.reading.words }}
    </p>
  </details>
</template>

<style scoped>
.volts {
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  font-weight: 640;
  cursor: pointer;
}
.row {
  display: flex;
  gap: 6px;
  margin: 6px 0;
}
.cable {
  flex: 1;
}
input {
  min-height: 44px;
  min-width: 0;
  flex: 1;
  color: var(--ink);
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 0 6px;
}
.keep {
  min-height: 44px;
}
</style>
