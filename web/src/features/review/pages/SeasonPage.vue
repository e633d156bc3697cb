<script setup lang="ts">
// All trips of a fish together: the days, what earned hits, and what to begin with next time.
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import VChart from 'vue-echarts'
import { today } from '@/features/trip/logic/format'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import EmptyState from '@/shared/ui/EmptyState.vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { painted } from '@/shared/ui/painted'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatTemperature } from '@/shared/units/units'
import { getSeason, type Season, type SeasonAsked, type Species } from '../api'
import BeginWith from '../components/BeginWith.vue'
import ReviewTabs from '../components/ReviewTabs.vue'
import LedgerTable from '../components/LedgerTable.vue'
import SeasonShare from '../components/SeasonShare.vue'
import SheetImport from '../components/SheetImport.vue'
import TrendChart from '../components/TrendChart.vue'
import { useInks } from '@/shared/ui/useInks'
import { daysOption } from '../logic/charts'

const display = useDisplayStore()
const inks = useInks()
const season = shallowRef<Season | null>(null)
/** Whether more than its days is here. */
const whole = ref(false)
const species = ref<Species | null>(null)
const water = ref('')
const problem = ref<string | null>(null)
const asTable = ref(false)
const nextDay = ref(today())
const unitsName = computed(() => (display.units.length === 'ft' ? 'us' : 'metric'))
const asked = computed<SeasonAsked>(() => ({
  ...(species.value ? { species: species.value } : {}),
  ...(water.value ? { water_name: water.value } : {}),
}))
const SPECIES = computed(() => (season.value?.of_species ?? []).map((value) => ({ value: value as Species, title: value })))
const WATERS = computed(() => [
  { value: '', title: 'all waters' },
  ...(season.value?.of_waters ?? []).map((value) => ({ value, title: value })),
])
const sums = computed(() => {
  const days = season.value?.days ?? []
  const sum = (pick: (day: (typeof days)[number]) => number): number => days.reduce((all, day) => all + pick(day), 0)
  return {
    days: days.length,
    hours: sum((d) => d.minutes) / 60,
    hits: sum((d) => d.hits),
    landed: sum((d) => d.landed),
    kept: sum((d) => d.kept),
  }
})
const best = computed(() =>
  season.value?.days.reduce<Season['days'][number] | null>((top, day) => (day.landed > (top?.landed ?? 0) ? day : top), null),
)
const option = computed(() => daysOption(season.value?.days ?? [], display.units, inks.value))
const newestFirst = computed(() => [...(season.value?.days ?? [])].reverse())

let turn = 0
let again: ReturnType<typeof setTimeout> | undefined
async function look(): Promise<void> {
  const mine = ++turn
  clearTimeout(again)
  try {
    if (!season.value) {
      const days = await getSeason(asked.value, unitsName.value, true)
      if (mine !== turn) return
      season.value = days
      await painted()
    }
    const told = await getSeason(asked.value, unitsName.value)
    if (mine !== turn) return
    season.value = told
    whole.value = true
    species.value ??= told.species as Species
    problem.value = null
    // Days that were not worked out yet come with the next answers.
    if (told.waiting) again = setTimeout(look, 50)
  } catch (error) {
    if (mine === turn) problem.value = describeError(error, display.units)
  }
}
watch([species, water, unitsName], (_now, [before]) => before !== null && look())
onMounted(look)
onBeforeUnmount(() => {
  turn += 1
  clearTimeout(again)
})
</script>

<template>
  <main class="season" data-test="season" :data-state="whole && !season?.waiting ? 'ready' : 'waiting'">
    <header>
      <ReviewTabs />
      <ChoiceRow v-if="SPECIES.length > 1" v-model="species" label="fish" :options="SPECIES" test="season-species" />
      <ChoiceRow v-if="WATERS.length > 2" v-model="water" label="water" :options="WATERS" test="season-water" />
    </header>
    <ErrorNote :text="problem" />
    <p v-if="!season && !problem" class="label">Counting the days…</p>
    <template v-if="season">
      <p v-if="season.waiting" class="label" role="status">{{ season.waiting }} trips are still to be counted…</p>
      <EmptyState
        v-if="!season.days.length"
        title="No day of this fish yet"
        text="Each trip you fish is counted here by itself; notes from before come in from a spreadsheet below."
      />
      <template v-else>
        <section class="days" aria-label="The days">
          <header>
            <h2>
              {{ sums.days }} day{{ sums.days === 1 ? '' : 's' }}, {{ Math.round(sums.hours) }} rod-hours, {{ sums.hits }} hits,
              {{ sums.landed }} landed, {{ sums.kept }} kept
            </h2>
            <v-btn size="small" :aria-pressed="asTable" data-test="days-table" @click="asTable = !asTable">{{
              asTable ? 'Chart' : 'Table'
            }}</v-btn>
          </header>
          <p v-if="best" data-test="days-sentence">
            Most landed: {{ best.landed }} on {{ best.day
            }}<template v-if="best.warm_last_degc !== null">
              at a surface of {{ formatTemperature(best.warm_last_degc, display.units) }}</template
            ><template v-if="best.fished_m !== null">, biting at {{ formatLength(best.fished_m, display.units) }}</template
            ><template v-if="best.best">, most on {{ best.best }}</template
            >.
          </p>
          <table class="rows" v-if="asTable">
            <thead>
              <tr>
                <th>day</th>
                <th>trip</th>
                <th>water</th>
                <th class="count">surface</th>
                <th class="count">bit at</th>
                <th class="count">rod-hours</th>
                <th class="count">hits</th>
                <th class="count">landed</th>
                <th class="count">kept</th>
                <th>most hits on</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="day in newestFirst" :key="(day.trip_id ?? '') + day.day + day.name">
                <td>{{ day.day }}</td>
                <td>
                  <router-link v-if="day.trip_id" :to="{ path: '/review', query: { trip: day.trip_id } }">{{
                    day.name
                  }}</router-link><template v-else>{{ day.name }}</template>
                </td>
                <td>{{ day.water_name }}</td>
                <td class="count">{{ day.warm_last_degc === null ? '–' : formatTemperature(day.warm_last_degc, display.units) }}</td>
                <td class="count">{{ day.fished_m === null ? '–' : formatLength(day.fished_m, display.units) }}</td>
                <td class="count">{{ day.minutes ? (day.minutes / 60).toFixed(1) : '–' }}</td>
                <td class="count">{{ day.hits }}</td>
                <td class="count">
                  {{ day.landed }}<template v-if="day.cast_landed"> ({{ day.cast_landed }} cast)</template>
                </td>
                <td class="count">{{ day.kept }}</td>
                <td>{{ day.best }}</td>
              </tr>
            </tbody>
          </table>
          <VChart v-else class="chart" :option="option" autoresize aria-hidden="true" />
          <p v-if="season.kept" data-test="kept-over" :class="{ over: season.kept.is_over }">
            Kept from {{ season.kept.days[0]!.day }} on: {{ season.kept.total
            }}<template v-if="season.kept.possession_most !== null"> of {{ season.kept.possession_most }} that may be had at once</template
            ><template v-for="day in season.kept.days.filter((one) => one.is_over)" :key="day.day">
              · {{ day.day }}: {{ day.kept }}, over the bag of {{ season.kept.bag_most }}</template
            >.
            <span class="label"
              >{{ season.kept.noted ? `By your own note of ${season.kept.noted}.` : 'You noted no rules of this water.' }} What has been
              eaten since is not known; the rules themselves are the law.</span
            >
          </p>
          <p v-if="season.noted" class="label">{{ season.noted }} fish come from spreadsheets: by day, in no rate.</p>
        </section>
        <section v-if="species" class="next" aria-label="The next day">
          <label>
            <span class="label">for the day</span>
            <input v-model="nextDay" type="date" data-test="begin-day" />
          </label>
          <BeginWith :species="species" :water-name="water || undefined" :day="nextDay || undefined" />
        </section>
        <section v-if="season.ledger.length" class="handling" aria-label="Handling">
          <h2>What each kind of rig cost in handling, and earned</h2>
          <LedgerTable :rows="season.ledger" />
        </section>
        <SeasonShare :season="season" />
        <div class="trends">
          <TrendChart v-for="one in season.trends" :key="one.axis" :trend="one" :asked="asked" :units-name="unitsName" />
        </div>
      </template>
      <SheetImport :species="species ?? 'trout'" @taken="look" />
    </template>
  </main>
</template>

<style scoped>
.season {
  display: grid;
  gap: 6px;
  padding: 6px;
}
.season > header,
.days {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 24px;
  align-items: end;
  padding: 12px;
  background: var(--frost);
}
.days {
  display: grid;
  gap: 8px;
  align-items: start;
  overflow-x: auto;
}
.days header {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
}
h2 {
  font-size: 18px;
}
.over {
  font-weight: 700;
}
.chart {
  height: 370px;
}
.next {
  background: var(--frost);
}
.next label {
  display: inline-grid;
  padding: 12px 12px 0;
}
.next input {
  min-height: 44px;
  padding: 0 10px;
  border: 1px solid var(--ink);
  border-radius: 4px;
  color: var(--ink);
  font: inherit;
}
.handling {
  display: grid;
  gap: 6px;
  padding: 12px;
  background: var(--frost);
  overflow-x: auto;
}
.trends {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(400px, 1fr));
  gap: 6px;
}
td a {
  color: var(--ink);
}
.v-btn {
  --v-btn-height: 44px;
}
@media (max-width: 800px) {
  .trends {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
