<script setup lang="ts">
// What was missed in the record is told late, at its own moment: nothing that stands is edited.
import { computed, ref } from 'vue'
import type { TripDocument } from '@/features/trip/api'
import { formatClock } from '@/features/trip/logic/format'
import type { EventPayload, EventType } from '@/features/trip/logic/events'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import { describeError } from '@/shared/units/describe'
import type { Typed } from '@/shared/units/measures'
import { useDisplayStore } from '@/shared/units/store'
import { tellLate } from '../logic/late'

const props = defineProps<{ trip: TripDocument; atS: number }>()
const emit = defineEmits<{ told: [] }>()
const display = useDisplayStore()
const open = ref(false)
const what = ref<'hit' | 'landed' | 'lost' | 'temperature_read' | null>('hit')
const rod = ref<string | null>(props.trip.outfit.rods[0]?.id ?? null)
const number = ref<Typed>(null)
const problem = ref<string | null>(null)
const done = ref('')
const clock = computed(() => formatClock(props.atS, props.trip.utc_offset_min))
const WHAT = [
  { value: 'hit', title: 'a hit' },
  { value: 'landed', title: 'a fish landed' },
  { value: 'lost', title: 'a fish lost' },
  { value: 'temperature_read', title: 'the surface' },
] as const
const rods = computed(() => props.trip.outfit.rods.map(({ id, name }) => ({ value: id, title: name })))

function payload(): EventPayload | Record<string, unknown> {
  if (what.value === 'temperature_read') return { temperature_degc: number.value, depth_m: 0 }
  if (what.value === 'landed') return { rod_id: rod.value, kept: false, ...(number.value === null ? {} : { length_m: number.value }) }
  return { rod_id: rod.value }
}
async function tell(): Promise<void> {
  done.value = ''
  try {
    await tellLate(props.trip.id, what.value as EventType, payload() as EventPayload, props.atS)
    problem.value = null
    done.value = `Told at ${clock.value}.`
    number.value = null
    emit('told')
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}
</script>

<template>
  <div class="late">
    <v-btn :aria-expanded="open" data-test="late-open" @click="open = !open">Something was missed at {{ clock }}</v-btn>
    <form v-if="open" aria-label="What was missed" @submit.prevent="tell">
      <ChoiceRow v-model="what" label="what" :options="WHAT" test="late-what" />
      <ChoiceRow v-if="what !== 'temperature_read'" v-model="rod" label="on" :options="rods" test="late-rod" />
      <NumberField v-if="what === 'temperature_read'" v-model="number" label="surface" measure="temperature" test="late-number" />
      <NumberField v-if="what === 'landed'" v-model="number" label="length, if measured" measure="short" test="late-number" />
      <ErrorNote :text="problem" />
      <v-btn type="submit" data-test="late-tell">Tell it at {{ clock }}</v-btn>
      <p v-if="done" role="status">{{ done }}</p>
    </form>
  </div>
</template>

<style scoped>
.late,
form {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.v-btn {
  --v-btn-height: 44px;
}
</style>
