<script setup lang="ts">
// Somebody's spreadsheet of fish: what is understood of it is shown, can be set right, and is kept when that is said.
import { computed, ref, shallowRef } from 'vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatFishLength, formatLength, formatTemperature } from '@/shared/units/units'
import SelectField from '@/shared/ui/SelectField.vue'
import { readSheet, type SheetAsked, type SheetRead, type Species } from '../api'

const MOST_BYTES = 1_800_000
const props = defineProps<{ species: Species }>()
const emit = defineEmits<{ taken: [] }>()
const display = useDisplayStore()
const read = shallowRef<SheetRead | null>(null)
const asked = shallowRef<SheetAsked | null>(null)
const problem = ref<string | null>(null)
const busy = ref(false)

const NAMES = ['date', 'time', 'water', 'species', 'count', 'kept', 'length', 'depth', 'speed', 'temperature', 'lure', 'colour', 'note']
const UNITS: Record<string, string[]> = {
  length: ['in', 'cm', 'mm', 'm'],
  depth: ['ft', 'm'],
  speed: ['mph', 'kn', 'km/h', 'm/s'],
  temperature: ['°F', '°C'],
}
const ORDERS = [
  { value: 'ymd', title: 'year-month-day' },
  { value: 'mdy', title: 'month/day/year' },
  { value: 'dmy', title: 'day/month/year' },
] as const

async function send(change: Partial<SheetAsked>): Promise<void> {
  if (!asked.value) return
  asked.value = { ...asked.value, ...change }
  busy.value = true
  try {
    read.value = await readSheet(asked.value)
    problem.value = null
    if (read.value.taken) emit('taken')
  } catch (error) {
    problem.value = describeError(error, display.units)
  } finally {
    busy.value = false
    asked.value = { ...asked.value, take: false }
  }
}
async function pick(event: Event): Promise<void> {
  const file = (event.target as HTMLInputElement).files?.[0]
  read.value = null
  problem.value = null
  if (!file) return
  if (file.size > MOST_BYTES) {
    problem.value = `${file.name} is ${(file.size / 1e6).toFixed(1)} MB: at most ${MOST_BYTES / 1e6} MB are read at once. Split it by years.`
    return
  }
  asked.value = { name: file.name.slice(0, 120), text: await file.text(), species: props.species, take: false }
  await send({})
}
const NO_COLUMN = -1
const columns = computed(() => [
  { value: NO_COLUMN, title: '–' },
  ...(read.value?.columns ?? []).map((item, i) => ({ value: i, title: item.head || `column ${i + 1}` })),
])
const column = (name: string, value: number): Promise<void> => send({ columns: { ...read.value!.mapping, [name]: value } })
const unit = (name: string, value: string): Promise<void> => send({ units: { ...read.value!.units, [name]: value } })
</script>

<template>
  <section class="sheet" aria-label="From a spreadsheet" data-test="sheet">
    <h3>From a spreadsheet</h3>
    <p class="label">
      Fish that were noted before, saved as CSV: a row each. They are counted by day; in no rate, for nobody noted how long was fished.
    </p>
    <input type="file" accept=".csv,.txt,.tsv,text/csv" aria-label="Spreadsheet as CSV" data-test="sheet-file" @change="pick" />
    <ErrorNote :text="problem" />
    <template v-if="read">
      <div class="map">
        <div v-for="name in NAMES" :key="name" class="one">
          <SelectField
            :model-value="read.mapping[name] ?? NO_COLUMN"
            :label="name"
            :items="columns"
            :test="`sheet-column-${name}`"
            @update:model-value="column(name, $event ?? NO_COLUMN)"
          />
          <SelectField
            v-if="read.units[name]"
            :model-value="read.units[name]"
            :label="`unit of ${name}`"
            silent
            :items="UNITS[name]!.map((unit) => ({ value: unit, title: unit }))"
            :test="`sheet-unit-${name}`"
            @update:model-value="unit(name, $event!)"
          />
          <SelectField
            v-if="name === 'date'"
            :model-value="read.dates"
            label="order of dates"
            silent
            :items="ORDERS"
            test="sheet-dates"
            @update:model-value="send({ dates: $event as SheetAsked['dates'] })"
          />
        </div>
      </div>
      <p v-for="words in read.unsure" :key="words" class="unsure">Guessed: {{ words }}.</p>
      <p data-test="sheet-sum">
        <strong>{{ read.good }} rows understood</strong><template v-if="read.bad_count">, {{ read.bad_count }} not</template
        ><template v-if="read.taken || read.known">; {{ read.taken }} kept now, {{ read.known }} were here already</template>.
      </p>
      <table class="rows" v-if="read.rows.length">
        <thead>
          <tr>
            <th>day</th>
            <th>water</th>
            <th>fish</th>
            <th>length</th>
            <th>depth</th>
            <th>surface</th>
            <th>lure</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in read.rows.slice(0, 6)" :key="row.row">
            <td>{{ row.day }}</td>
            <td>{{ row.water_name }}</td>
            <td>
              {{ row.count }} {{ row.species }}<template v-if="row.kept">, {{ row.kept }} kept</template>
            </td>
            <td>{{ row.length_m === null ? '' : formatFishLength(row.length_m, display.units) }}</td>
            <td>{{ row.depth_m === null ? '' : formatLength(row.depth_m, display.units) }}</td>
            <td>{{ row.warm_degc === null ? '' : formatTemperature(row.warm_degc, display.units) }}</td>
            <td>{{ row.colour }} {{ row.lure }}</td>
          </tr>
        </tbody>
      </table>
      <ul v-if="read.bad.length">
        <li v-for="line in read.bad.slice(0, 8)" :key="line">{{ line }}</li>
      </ul>
      <v-btn :disabled="busy || !read.good" data-test="sheet-take" @click="send({ take: true })">Keep the rows that are understood</v-btn>
    </template>
  </section>
</template>

<style scoped>
.sheet {
  display: grid;
  gap: 8px;
  padding: 12px;
  background: var(--frost);
}
h3 {
  font-size: 16px;
}
.map {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
}
.map .one {
  display: grid;
  gap: 2px;
}
.unsure {
  font-weight: 650;
}
td,
th {
  padding: 4px 8px;
  text-align: left;
  border-bottom: 1px solid var(--line);
}
.v-btn {
  --v-btn-height: 48px;
  justify-self: start;
}
</style>
