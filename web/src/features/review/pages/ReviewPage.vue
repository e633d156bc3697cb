<script setup lang="ts">
// What was: each trip with its funnel and its day, and everything out in open formats.
import { computed, onMounted, ref, shallowRef } from 'vue'
import { useRoute } from 'vue-router'
import { getFish, getLedger, getTrip, listTrips, type FishView, type Ledger, type TripDocument, type TripList } from '@/features/trip/api'
import DayRibbon from '@/features/trip/components/DayRibbon.vue'
import RodShape from '@/features/trip/components/RodShape.vue'
import { formatClock, formatPercent, tripDay } from '@/features/trip/logic/format'
import EmptyState from '@/shared/ui/EmptyState.vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import PickList from '@/shared/ui/PickList.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'
import DaySoundings from '../components/DaySoundings.vue'
import ReviewTabs from '../components/ReviewTabs.vue'
import TripScrub from '../components/TripScrub.vue'
import LedgerTable from '../components/LedgerTable.vue'
import TripBites from '../components/TripBites.vue'
import TripPhotos from '../components/TripPhotos.vue'

const display = useDisplayStore()
const route = useRoute()
const list = shallowRef<TripList | null>(null)
const chosen = ref<string | null>(null)
const seen = shallowRef<{ trip: TripDocument; view: FishView; ledger: Ledger } | null>(null)
const error = ref<string | null>(null)
const STEPS = ['hits', 'hooked', 'landed', 'kept'] as const
const total = computed(() =>
  STEPS.map((step) => ({ step, count: seen.value?.view.rods.reduce((sum, rod) => sum + rod.tally[step], 0) ?? 0 })),
)
const most = computed(() => Math.max(...total.value.map((row) => row.count), 1))
const rows = computed(() =>
  (list.value?.trips ?? []).map((trip) => ({
    value: trip.id,
    title: trip.name,
    note: `${trip.water_name} · ${tripDay(trip)} · ${trip.is_ended ? 'over' : 'open'}`,
  })),
)
function spell({ from_s, to_s }: Ledger['inside'][number]): string {
  const [from, to] = [from_s, to_s].map((at) => formatClock(at, seen.value!.trip.utc_offset_min))
  return from === to ? from! : `${from} to ${to}`
}
const rodIndex = (id: string): number => Math.max(seen.value?.trip.outfit.rods.findIndex((rod) => rod.id === id) ?? 0, 0)

async function look(id: string): Promise<void> {
  chosen.value = id
  error.value = null
  try {
    const [trip, view, ledger] = await Promise.all([getTrip(id), getFish(id), getLedger(id)])
    // Whoever was asked for last is shown, however the answers come.
    if (chosen.value === id) seen.value = { trip, view, ledger }
  } catch (caught) {
    error.value = describeError(caught, display.units)
  }
}
onMounted(async () => {
  try {
    list.value = await listTrips()
    const asked = list.value.trips.find((trip) => trip.id === route.query.trip)
    const first = asked ?? list.value.trips[0]
    if (first) await look(first.id)
  } catch (caught) {
    error.value = describeError(caught, display.units)
  }
})
</script>

<template>
  <main class="review" data-test="review">
    <EmptyState v-if="list && !list.trips.length" title="No trip yet" text="What you fish is looked back on here." />
    <ErrorNote :text="error" />
    <template v-if="list?.trips.length">
      <nav aria-label="Trips">
        <ReviewTabs />
        <PickList :model-value="chosen" label="Trips" :items="rows" @update:model-value="$event && look($event)" />
      </nav>
      <section v-if="seen" class="trip">
        <header>
          <h2>{{ seen.trip.name }}</h2>
          <span class="label">{{ seen.trip.water_name }} · {{ seen.trip.species }}</span>
          <span class="out">
            <router-link :to="{ path: '/fish', query: { trip: seen.trip.id } }">open in Fish</router-link>
            <a :href="`/api/trips/${seen.trip.id}/export.csv`" data-test="export-csv">events as CSV</a>
            <a :href="`/api/trips/${seen.trip.id}/export.gpx`" data-test="export-gpx">track as GPX</a>
            <a :href="`/api/trips/${seen.trip.id}/export.geojson`">as GeoJSON</a>
            <a :href="`/api/trips/${seen.trip.id}/export.jsonl`" data-test="export-jsonl">whole trip as lines of JSON</a>
            <a :href="`/api/trips/${seen.trip.id}/export.json`" data-test="export-json">as one JSON</a>
          </span>
        </header>
        <TripScrub :key="seen.trip.id" :trip="seen.trip" :view="seen.view" :rod-index="rodIndex" @changed="look(seen.trip.id)" />
        <div class="funnel" aria-label="From hit to kept">
          <div v-for="row in total" :key="row.step" class="step">
            <span class="figure">{{ row.count }}</span><span class="label">{{ row.step }}</span>
            <span class="bar" :style="{ width: `${(100 * row.count) / most}%` }" />
          </div>
        </div>
        <table class="rows">
          <thead>
            <tr>
              <th>rod</th>
              <th>wore at the end</th>
              <th v-for="step in STEPS" :key="step" class="count">{{ step }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="rod in seen.view.rods" :key="rod.id">
              <td><RodShape :shape="rod.shape" :index="rodIndex(rod.id)" :size="18" /> {{ rod.name }}</td>
              <td>{{ rod.recipe || '–' }}</td>
              <td v-for="step in STEPS" :key="step" class="count">{{ rod.tally[step] }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="seen.view.funnel" data-test="funnel-said">{{ seen.view.funnel.words }} {{ seen.view.funnel.cures.join(' ') }}</p>
        <LedgerTable v-if="seen.ledger.rows.length" :rows="seen.ledger.rows" />
        <p v-if="seen.ledger.in_water !== null" class="label">
          Lines in the water {{ formatPercent(seen.ledger.in_water) }} of the time from the first out to the last in.
        </p>
        <p v-for="one in seen.ledger.inside" :key="one.from_s + one.name" data-test="lines-inside">
          By the places noted, lines were out in {{ one.name }} ({{ one.rule }}) at {{ spell(one) }}, up to
          {{ formatLength(one.deepest_in_m, display.units) }} inside. A place by satellite is off by metres, and lures trail the boat.
        </p>
        <TripBites :trip="seen.trip" :view="seen.view" @changed="look(seen.trip.id)" />
        <TripPhotos :trip="seen.trip" />
        <DaySoundings :trip-id="seen.trip.id" />
        <DayRibbon class="day" :view="seen.view" :trip="seen.trip" :now-s="seen.view.now_s" :rod-index="rodIndex" />
      </section>
    </template>
  </main>
</template>

<style scoped>
.review {
  display: grid;
  grid-template-columns: 290px minmax(0, 1fr);
  gap: 6px;
  padding: 6px;
  align-items: start;
}
nav {
  display: grid;
  gap: 8px;
  padding: 12px 8px;
  background: var(--frost);
}
.trip {
  display: grid;
  gap: 14px;
  padding: 12px;
  background: var(--frost);
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
}
.out {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  margin-left: auto;
}
a {
  color: var(--ink);
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
.funnel {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 12px;
}
.step {
  display: grid;
}
.step .figure {
  font-size: 34px;
}
.bar {
  height: 10px;
  min-width: 2px;
  background: var(--ink);
}
table {
  font-size: 15px;
}
td svg {
  vertical-align: -3px;
}
.day {
  min-height: 120px;
}
@media (max-width: 800px) {
  .review {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
