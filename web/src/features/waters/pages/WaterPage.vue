<script setup lang="ts">
// A water and its chart: soundings in, what stands on it, closed water with its rule, today's level; out as GeoJSON and GPX.
import { computed, ref, shallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { listWaters, type Water } from '@/features/locker/api'
import { newId } from '@/features/trip/logic/events'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import PickList from '@/shared/ui/PickList.vue'
import { describeError } from '@/shared/units/describe'
import { settled, type Typed } from '@/shared/units/measures'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'
import { AREAS, dropSurvey, getChart, saveFeatures, type ChartMap as Chart, type DraftFeature, type Feature } from '../api'
import ChartMap from '../components/ChartMap.vue'
import FeatureForm from '../components/FeatureForm.vue'
import SurveyImport from '../components/SurveyImport.vue'

const route = useRoute()
const display = useDisplayStore()
const id = computed(() => Number(route.params.id))
const water = shallowRef<Water | null>(null)
const chart = shallowRef<Chart | null>(null)
const problem = ref<string | null>(null)
const draft = ref<DraftFeature | null>(null)
const below = ref<Typed>(0)
const picked = computed({
  get: () => draft.value?.id ?? null,
  set: (key: string | null) => {
    const found = chart.value?.features.find((feature) => feature.id === key)
    draft.value = found ? (JSON.parse(JSON.stringify(found)) as DraftFeature) : null
  },
})
const KIND: Record<Feature['kind'], string> = {
  launch: 'launch',
  inlet: 'inlet',
  point: 'point',
  bar: 'bar',
  neck: 'neck',
  place: 'place',
  hazard: 'keep off',
  closed_ring: 'closed ring',
  closed_area: 'closed area',
  shore: 'shore',
}
const items = computed(
  () =>
    chart.value?.features.map((feature) => ({
      value: feature.id,
      title: feature.name,
      note: KIND[feature.kind],
      test: `feature-${feature.id}`,
    })) ?? [],
)

async function load(): Promise<void> {
  problem.value = null
  try {
    const [all, found] = await Promise.all([listWaters(), getChart(id.value, display.units.length === 'ft' ? 'ft' : 'm')])
    water.value = all.find((item) => item.id === id.value) ?? null
    chart.value = found
    below.value = found.below_m
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}
watch(() => [id.value, display.units.length], load, { immediate: true })

function begin(): void {
  draft.value = { id: newId(), name: '', kind: 'place', corners: [], radius_m: 0, rule: '', origin: '', entered_on: '' }
}

function place(latitude: number, longitude: number): void {
  if (!draft.value) return
  const corner = { latitude_deg: Math.round(latitude * 1e6) / 1e6, longitude_deg: Math.round(longitude * 1e6) / 1e6 }
  const corners = AREAS.includes(draft.value.kind) ? [...draft.value.corners, corner] : [corner]
  draft.value = { ...draft.value, corners }
}

async function keep(features: Feature[]): Promise<boolean> {
  problem.value = null
  try {
    await saveFeatures(id.value, { features })
    chart.value = await getChart(id.value, display.units.length === 'ft' ? 'ft' : 'm')
    return true
  } catch (error) {
    problem.value = describeError(error, display.units)
    return false
  }
}
const others = (): Feature[] => chart.value!.features.filter((feature) => feature.id !== draft.value!.id)

async function keepDraft(): Promise<void> {
  const kind = draft.value!.kind
  const corners = AREAS.includes(kind) ? draft.value!.corners : draft.value!.corners.slice(-1)
  if (await keep([...others(), { ...draft.value!, corners }])) draft.value = null
}
async function dropDraft(): Promise<void> {
  if (await keep(others())) draft.value = null
}
async function level(): Promise<void> {
  problem.value = null
  try {
    await saveFeatures(id.value, { below_m: settled(below.value, 'Level') })
    await load()
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}
async function dropSoundings(survey: number): Promise<void> {
  try {
    await dropSurvey(id.value, survey)
    await load()
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}
</script>

<template>
  <main class="water" data-test="water" :data-state="chart ? 'ready' : 'waiting'">
    <header>
      <h1>{{ water?.name }}</h1>
      <router-link to="/locker?tab=waters">Its rules</router-link>
      <a :href="`/api/waters/${id}/chart.geojson`" download>GeoJSON</a>
      <a :href="`/api/waters/${id}/chart.gpx`" download>GPX</a>
    </header>
    <ErrorNote :text="problem" />
    <div v-if="chart" class="grid">
      <div class="map">
        <ChartMap class="chart" :chart="chart" :draft="draft" @place="place" />
        <p v-if="!chart.bounds.length" class="label none">No soundings yet: bring a file in, and the chart is drawn from it.</p>
      </div>
      <aside>
        <section aria-label="On the chart">
          <template v-if="!draft">
            <h2 class="label">on the chart</h2>
            <PickList v-model="picked" label="On the chart" :items="items">
              <button type="button" class="add" data-test="feature-add" @click="begin">Add something</button>
            </PickList>
          </template>
          <FeatureForm
            v-else
            v-model="draft"
            @keep="keepDraft"
            @drop="dropDraft"
            @leave="draft = null"
            @undo="draft = { ...draft, corners: draft.corners.slice(0, -1) }"
          />
        </section>
        <form class="level" @submit.prevent="level">
          <NumberField v-model="below" label="today the water is under the chart's level by" measure="long" test="below" />
          <v-btn type="submit" data-test="keep-level">Set</v-btn>
        </form>
        <section v-if="chart.surveys.length" aria-label="Soundings">
          <h2 class="label">made from</h2>
          <p v-for="survey in chart.surveys" :key="survey.id" class="survey">
            {{ survey.name }}: {{ survey.count }} soundings
            <v-btn size="small" :data-test="`drop-survey-${survey.id}`" @click="dropSoundings(survey.id)">Drop</v-btn>
          </p>
          <p class="label">Deepest {{ formatLength(chart.deepest_m, display.units) }}. Between soundings the chart guesses.</p>
        </section>
        <SurveyImport :water-id="id" @taken="load" />
      </aside>
    </div>
  </main>
</template>

<style scoped>
.water {
  padding: 6px;
  display: grid;
  gap: 6px;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  align-items: center;
  padding: 6px 12px;
  background: var(--frost);
}
a {
  color: var(--ink);
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  font-size: 14px;
}
.grid {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  gap: 6px;
  align-items: start;
}
.map {
  position: relative;
}
.chart {
  height: min(720px, 84vh);
}
.none {
  position: absolute;
  inset: 40% 20% auto;
  padding: 16px;
  background: var(--frost);
}
aside {
  --touch: 44px;
  display: grid;
  gap: 14px;
  padding: 10px 12px;
  background: var(--frost);
}
.add {
  min-height: 44px;
  text-decoration: underline;
  color: var(--ink);
}
.level {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: end;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
.level .v-btn {
  --v-btn-height: 44px;
}
.survey {
  display: flex;
  justify-content: space-between;
  align-items: center;
  font-size: 14px;
}
@media (max-width: 900px) {
  .grid {
    grid-template-columns: minmax(0, 1fr);
  }
  .chart {
    height: 50vh;
  }
}
</style>
