<script setup lang="ts">
// Soundings brought in: looked at first (how many, where, what is odd), then taken.
import { ref, shallowRef } from 'vue'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import TextField from '@/shared/ui/TextField.vue'
import { describeError } from '@/shared/units/describe'
import { settled, type Typed } from '@/shared/units/measures'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'
import { addSurvey, type Looked, type NewSurvey } from '../api'

const props = defineProps<{ waterId: number }>()
const emit = defineEmits<{ taken: [] }>()
const display = useDisplayStore()
const form = ref({
  name: '',
  format: 'csv' as NewSurvey['format'],
  unit: (display.units.length === 'ft' ? 'ft' : 'm') as NewSurvey['unit'],
  swap: false,
  text: '',
  below: 0 as Typed,
})
const looked = shallowRef<Looked | null>(null)
const problem = ref<string | null>(null)
const busy = ref(false)
const FORMATS = [
  { value: 'csv', title: 'CSV' },
  { value: 'geojson', title: 'GeoJSON' },
  { value: 'gpx', title: 'GPX' },
] as const
const UNITS = [
  { value: 'ft', title: 'feet' },
  { value: 'm', title: 'metres' },
] as const

async function choose(event: Event): Promise<void> {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (!file) return
  form.value.text = await file.text()
  form.value.name ||= file.name.slice(0, 120)
  const ending = file.name.toLowerCase().split('.').at(-1)
  if (ending === 'gpx') form.value.format = 'gpx'
  else if (ending === 'json' || ending === 'geojson') form.value.format = 'geojson'
  else form.value.format = 'csv'
  await send(false)
}

async function send(take: boolean): Promise<void> {
  problem.value = null
  busy.value = true
  try {
    const { below, ...sent } = form.value
    looked.value = await addSurvey(props.waterId, { ...sent, below_m: settled(below, 'Level'), take })
    if (take) {
      looked.value = null
      form.value = { ...form.value, name: '', text: '' }
      emit('taken')
    }
  } catch (error) {
    looked.value = null
    problem.value = describeError(error, display.units)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form class="import" aria-label="Bring soundings in" @submit.prevent="send(false)">
    <h2 class="label">bring soundings in</h2>
    <input type="file" accept=".csv,.txt,.json,.geojson,.gpx" aria-label="File with soundings" data-test="survey-file" @change="choose" />
    <TextField v-model="form.name" label="what they are" maxlength="120" test="survey-name" />
    <ChoiceRow v-model="form.format" label="kind of file" :options="FORMATS" test="survey-format" />
    <ChoiceRow v-model="form.unit" label="depths in" :options="UNITS" test="survey-unit" />
    <NumberField v-model="form.below" label="water stood under the chart's level by" measure="long" test="survey-below" />
    <label class="field">
      <span class="label">or paste them: a first row with latitude, longitude, depth (or x_m, y_m: metres from the water’s place)</span>
      <textarea v-model="form.text" rows="4" data-test="survey-text" />
    </label>
    <label class="check"><input v-model="form.swap" type="checkbox" data-test="survey-swap" /> exchange latitude and longitude</label>
    <ErrorNote :text="problem" />
    <div v-if="looked" class="looked" data-test="survey-looked">
      <p>
        <b>{{ looked.count }}</b> soundings, {{ formatLength(looked.shallowest_m, display.units, false) }}–{{
          formatLength(looked.deepest_m, display.units)
        }}, about {{ formatLength(looked.spacing_m, display.units) }} apart.
      </p>
      <ul>
        <li v-for="odd in looked.oddities" :key="odd.kind" :data-test="`odd-${odd.kind}`">
          <b>{{ odd.count }}</b> {{ odd.text }}<small v-if="odd.rows?.length"> (first at {{ odd.rows.slice(0, 5).join(', ') }})</small>
        </li>
      </ul>
      <p v-if="!looked.oddities.length">Nothing odd about them.</p>
    </div>
    <div class="acts">
      <v-btn type="submit" :disabled="busy || !form.text" data-test="survey-look">Look at them</v-btn>
      <v-btn v-if="looked" class="go" :disabled="busy" data-test="survey-take" @click="send(true)">Take them</v-btn>
    </div>
  </form>
</template>

<style scoped>
.import {
  display: grid;
  gap: 8px;
}
.field {
  display: grid;
}
textarea {
  border: 1px solid var(--ink-2);
  border-radius: 4px;
  padding: 6px 8px;
  background: var(--frost);
  color: var(--ink);
  font-size: 13px;
}
.check {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
  font-size: 14px;
}
.check input {
  width: 22px;
  height: 22px;
}
.looked {
  border-left: 4px solid var(--ink);
  padding: 4px 10px;
  font-size: 14px;
}
ul {
  margin: 4px 0;
  padding-left: 18px;
}
.acts {
  display: flex;
  gap: 8px;
}
.acts .v-btn {
  --v-btn-height: 44px;
}
</style>
