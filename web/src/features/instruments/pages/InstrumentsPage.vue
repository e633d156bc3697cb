<script setup lang="ts">
// Instruments: what is heard, from whom, how old, and which of it is used; and what is listened to.
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { newId } from '@/features/trip/logic/events'
import EmptyState from '@/shared/ui/EmptyState.vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatSpeed, formatTemperature } from '@/shared/units/units'
import LogPanel from '../components/LogPanel.vue'
import PhoneReceiver from '../components/PhoneReceiver.vue'
import SourceForm from '../components/SourceForm.vue'
import { BLANK, useInstrumentsStore, type Source, type Value } from '../store'

const display = useDisplayStore()
const instruments = useInstrumentsStore()
const end = instruments.look(true)
onBeforeUnmount(end)

const NAMES: Record<Value['quantity'], string> = {
  place: 'place',
  course: 'course',
  ground_speed: 'speed by GPS',
  water_speed: 'speed through water',
  depth: 'depth',
  water_temperature: 'water',
  wind_speed: 'wind',
  wind_angle: 'wind off the bow',
  heading: 'heading',
  mark: 'fish at',
}
const STATES: Record<Value['state'], string> = {
  used: 'used',
  other: 'another goes first',
  stale: 'too old',
  wrong: 'cannot be',
  replayed: 'out of the log, not recorded',
}
const END: Record<Source['kind'], (source: Source) => string> = {
  tcp: (source) => `${source.host}, port ${source.port}`,
  udp: (source) => `sent to port ${source.port}`,
  serial: (source) => `${source.device}, ${source.baud} bits/s`,
  log: (source) => `the log that was brought here, ×${source.pace}`,
}
function words({ quantity, value, place }: Value): string {
  if (quantity === 'place') return place ? `${place.latitude_deg.toFixed(5)}, ${place.longitude_deg.toFixed(5)}` : '–'
  if (quantity === 'depth' || quantity === 'mark') return formatLength(value, display.units)
  if (quantity === 'water_temperature') return formatTemperature(value, display.units)
  if (quantity === 'ground_speed' || quantity === 'water_speed' || quantity === 'wind_speed') return formatSpeed(value, display.units)
  return `${Math.round(value)}°`
}
const kept = computed(() => instruments.told?.sources.sources ?? [])
const heard = computed(() => instruments.told?.heard ?? null)
const nameOf = (id: string): string => kept.value.find((source) => source.id === id)?.name ?? id
const stateOf = (id: string) => heard.value?.sources.find((source) => source.id === id)

const draft = shallowRef<Source | null>(null)
const problem = ref<string | null>(null)
function edit(source?: Source): void {
  problem.value = null
  draft.value = source ?? { ...BLANK, id: newId() }
}

async function save(sources: Source[]): Promise<boolean> {
  problem.value = null
  try {
    await instruments.save(sources)
    return true
  } catch (error) {
    problem.value = describeError(error, display.units)
    return false
  }
}
async function keep(source: Source): Promise<void> {
  const rest = kept.value
  const at = rest.findIndex((other) => other.id === source.id)
  if (await save(at < 0 ? [...rest, source] : rest.map((other, i) => (i === at ? source : other)))) draft.value = null
}
async function remove(): Promise<void> {
  if (await save(kept.value.filter((other) => other.id !== draft.value!.id))) draft.value = null
}
/** The log from its beginning, as fast as it was set; the first time twenty times as fast. */
async function playLog(): Promise<void> {
  const known = kept.value.find((source) => source.kind === 'log')
  const log: Source = known ?? { ...BLANK, name: 'Recorded log', kind: 'log', pace: 20 }
  // Under another id it is another source, which begins at the beginning.
  await save([...kept.value.filter((other) => other !== known), { ...log, id: newId(), is_on: true }])
}
const turn = (source: Source): Promise<boolean> =>
  save(kept.value.map((other) => (other.id === source.id ? { ...other, is_on: !other.is_on } : other)))
const first = (source: Source): Promise<boolean> => save([source, ...kept.value.filter((other) => other.id !== source.id)])

watch(
  () => instruments.problem,
  (error) => (problem.value = error ? describeError(error, display.units) : null),
)
</script>

<template>
  <main class="instruments" data-test="instruments">
    <section class="sources" aria-label="What is listened to">
      <h1>Instruments</h1>
      <p class="label">
        Sounder, GPS and speedometer that speak NMEA 0183, on the boat's own network or a cable. The first is believed first.
      </p>
      <ErrorNote :text="problem" />
      <article v-for="(source, i) in kept" :key="source.id" class="source" :data-test="`source-${i}`">
        <header>
          <strong>{{ source.name }}</strong>
          <span class="label">{{ END[source.kind](source) }}</span>
        </header>
        <p v-if="stateOf(source.id)" :class="{ wrong: stateOf(source.id)!.words }" :data-test="`source-state-${i}`">
          {{ stateOf(source.id)!.words || `Heard ${Math.round(stateOf(source.id)!.age_s ?? 0)} s ago.` }}
          <span class="label"
            >{{ stateOf(source.id)!.good }} understood, {{ stateOf(source.id)!.checksum }} with a wrong checksum,
            {{ stateOf(source.id)!.broken }} broken, {{ stateOf(source.id)!.unknown }} of other kinds</span
          >
        </p>
        <div class="acts">
          <v-btn :aria-pressed="source.is_on" :data-test="`source-on-${i}`" @click="turn(source)">{{
            source.is_on ? 'Switch off' : 'Switch on'
          }}</v-btn>
          <v-btn v-if="i > 0" :data-test="`source-first-${i}`" @click="first(source)">Believe first</v-btn>
          <v-btn :data-test="`source-edit-${i}`" @click="edit(source)">Change</v-btn>
        </div>
      </article>
      <v-btn v-if="!draft" data-test="source-new" @click="edit()">Listen to another</v-btn>
      <SourceForm
        v-if="draft"
        :key="draft.id"
        :source="draft"
        :known="kept.some((source) => source.id === draft!.id)"
        @keep="keep"
        @remove="remove"
        @leave="draft = null"
      />
      <PhoneReceiver />
      <LogPanel :source-id="kept.find((source) => source.kind === 'log')?.id" @play="playLog" />
    </section>
    <section class="heard" aria-label="What is heard">
      <h2>Heard now</h2>
      <EmptyState
        v-if="kept.length && !heard && instruments.told"
        title="Nobody listens"
        text="The listener is started with the server: start it with the command of the README."
      />
      <EmptyState v-else-if="!heard" title="Nothing is listened to yet" text="Add what speaks on the boat's network." />
      <template v-else>
        <p data-test="recorded">
          <template v-if="heard.trip">Taken into “{{ heard.trip }}”: {{ heard.recorded }} of what said something new.</template>
          <template v-else>No trip is under way: nothing is recorded.</template>
          <span v-if="heard.refused" class="wrong"> {{ heard.refused }}</span>
        </p>
        <table>
          <thead>
            <tr>
              <th>what</th>
              <th>value</th>
              <th>from</th>
              <th class="count">age</th>
              <th>state</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="value in heard.values"
              :key="value.quantity + value.source_id"
              :class="value.state"
              :data-test="`heard-${value.quantity}`"
              :data-state="value.state"
            >
              <td>{{ NAMES[value.quantity] }}</td>
              <td class="figure">{{ words(value) }}</td>
              <td>{{ nameOf(value.source_id) }}</td>
              <td class="count">{{ Math.round(value.age_s) }} s</td>
              <td>{{ STATES[value.state] }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="!heard.values.length">Nothing that is understood has come.</p>
      </template>
    </section>
  </main>
</template>

<style scoped>
.instruments {
  display: grid;
  grid-template-columns: minmax(300px, 420px) minmax(0, 1fr);
  gap: 6px;
  padding: 6px;
  align-items: start;
}
.sources,
.heard {
  display: grid;
  gap: 10px;
}
.sources,
.heard {
  padding: 12px;
  background: var(--frost);
}
.source,
.sources :deep(.source) {
  display: grid;
  gap: 6px;
  padding: 10px 0;
  border-top: 1px solid var(--line);
}
.source header {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
}
.source p .label {
  display: block;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.v-btn {
  --v-btn-height: 44px;
}
.wrong {
  font-weight: 700;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 6px 8px;
  text-align: left;
  border-bottom: 1px solid var(--line);
}
th {
  font-size: 13px;
}
th.count,
td.count {
  text-align: right;
}
.heard .figure {
  font-size: 20px;
}
tr.stale,
tr.other {
  color: var(--ink-2);
}
tr.wrong td:last-child {
  font-weight: 760;
}
@media (max-width: 800px) {
  .instruments {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
