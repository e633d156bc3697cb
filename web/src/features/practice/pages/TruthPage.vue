<script setup lang="ts">
// A simulated day when it is over: what was hidden, what was fished, and how others fished the same day.
import { computed, onMounted, reactive, ref, shallowRef } from 'vue'
import VChart from 'vue-echarts'
import { useRoute } from 'vue-router'
import TripTrack from '@/features/review/components/TripTrack.vue'
import { getTrip, type TripDocument } from '@/features/trip/api'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { useInks } from '@/shared/ui/useInks'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatFishLength, formatLength, formatSpeed } from '@/shared/units/units'
import DecisionSides from '../components/DecisionSides.vue'
import { depthOption, perRodHour, speedOption } from '../logic/truth'
import { usePracticeStore, type Score, type TruthView, type Who } from '../store'

const WHO: Record<Who, string> = {
  fixed: 'who changes nothing',
  habit: 'habit: copies what is ahead, another colour when dry',
  advisor: 'the next move, always taken',
  oracle: 'who knows everything',
}
const route = useRoute()
const practice = usePracticeStore()
const display = useDisplayStore()
const inks = useInks()
const view = shallowRef<TruthView | null>(null)
const trip = shallowRef<TripDocument | null>(null)
const endS = computed(() => (trip.value?.started_at_s ?? 0) + 60 * (view.value?.day.minutes ?? 0))
const scores = reactive<Partial<Record<Who, Score>>>({})
const problem = ref<string | null>(null)
const depths = computed(() => view.value && depthOption(view.value, display.units, inks.value))
const speeds = computed(() => view.value && speedOption(view.value, display.units, inks.value))
const mine = computed(() => (view.value ? perRodHour(view.value.day.hits, view.value.rod_minutes) : null))
const rate = (score: Score | undefined): string =>
  score && view.value ? (perRodHour(score.hits, score.rods * view.value.day.minutes)?.toFixed(2) ?? '–') : '…'

onMounted(async () => {
  const id = String(route.params.id)
  try {
    view.value = await practice.truth(id)
    trip.value = await getTrip(id)
    // Each fishes the whole day anew: a few seconds, one after the other.
    for (const who of Object.keys(WHO) as Who[]) scores[who] = await practice.score(id, who)
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
})
</script>

<template>
  <main class="truth" data-test="truth">
    <ErrorNote :text="problem" />
    <template v-if="view">
      <section>
        <h1>Day {{ view.day.seed }}: what was hidden</h1>
        <p data-test="truth-mine">
          You had <strong>{{ view.day.hits }} {{ view.day.hits === 1 ? 'hit' : 'hits' }}</strong
          ><template v-if="view.day.taps">, {{ view.day.recorded }} of them tapped,</template> and landed {{ view.day.landed }} in
          {{ Math.floor(view.day.minutes / 60) }} h {{ view.day.minutes % 60 }} min<template v-if="mine !== null"
            >: {{ mine.toFixed(2) }} hits a rod-hour</template
          >.
        </p>
        <table class="rows">
          <thead>
            <tr>
              <th>the same day, fished by one</th>
              <th class="count">hits a rod-hour</th>
              <th class="count">hits</th>
              <th class="count">changes</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(words, who) in WHO" :key="who" :data-test="`score-${who}`">
              <td>{{ words }}</td>
              <td class="count">{{ rate(scores[who]) }}</td>
              <td class="count">{{ scores[who]?.hits ?? '…' }}</td>
              <td class="count">{{ scores[who]?.changes ?? '…' }}</td>
            </tr>
          </tbody>
        </table>
        <p class="label">
          They go where your boat went, with as many rods as you had out (six at most, four on the river) and a box of their own, from the
          first minute to your last: compare hits a rod-hour, and roughly.
        </p>
      </section>
      <section v-if="view.decisions.length" aria-label="Decisions">
        <h2>What mattered most</h2>
        <DecisionSides v-for="one in view.decisions" :key="one.minute" :decision="one" />
        <p class="label">
          Hits to be expected of the rods that were changed, from then on: luck is taken out, the bait is on, the course is straight on both
          sides.
        </p>
      </section>
      <section aria-label="Depth">
        <h2>How deep they were, and where you fished</h2>
        <p>{{ Math.round(100 * view.truth.shallow_share) }} % were near the surface. A number is how many hits a stretch had.</p>
        <VChart class="chart" :option="depths!" autoresize aria-hidden="true" />
      </section>
      <section v-if="trip" aria-label="Schools">
        <h2>Where they lay</h2>
        <TripTrack :trip="trip" :at-s="endS" :schools="view.places" />
      </section>
      <section aria-label="Speed">
        <h2>How fast they wanted it</h2>
        <VChart class="chart low" :option="speeds!" autoresize aria-hidden="true" />
      </section>
      <section aria-label="Tastes">
        <h2>What else they wanted</h2>
        <p>
          A leader of {{ formatFishLength(view.truth.leader_m, display.units) }},
          {{ formatLength(view.truth.setback_m, display.units) }} back. Colours, best first: {{ view.truth.colours.join(', ') }}. Lures:
          {{ view.truth.lures.join(', ') }}.
          <template v-if="view.truth.current_mps"
            >The river flowed at {{ formatSpeed(view.truth.current_mps, display.units) }} and had fallen by
            {{ formatLength(view.truth.fall_m, display.units) }} overnight.</template
          >
        </p>
        <p class="label">A made-up day: its tastes are drawn by chance and are no rule for any real water.</p>
      </section>
    </template>
  </main>
</template>

<style scoped>
.truth {
  display: grid;
  gap: 6px;
  padding: 6px;
}
section {
  display: grid;
  gap: 8px;
  padding: 12px;
  background: var(--frost);
}
.chart {
  height: 280px;
}
.chart.low {
  height: 190px;
}
table {
  justify-self: start;
}
</style>
