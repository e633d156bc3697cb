<script setup lang="ts">
// Back through it: which way round, which heading, and a countdown to when each lure crosses the place.
import { useIntervalFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import { latestOnly } from '@/shared/core/latest'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'
import RodShape from '@/features/trip/components/RodShape.vue'
import { useQuestions } from '@/features/trip/questions'
import { useTripStore } from '@/features/trip/store'
import type { BackOffer, FishView } from '@/features/trip/api'
import { formatAge, formatClock } from '@/features/trip/logic/format'

const props = defineProps<{ view: FishView; rodIndex: (id: string) => number }>()
const open = defineModel<boolean>({ required: true })
const store = useTripStore()
const questions = useQuestions()
const display = useDisplayStore()
const offer = shallowRef<BackOffer | null>(null)
const target = ref<string | null>(null)
const askedS = ref(0)
const nowS = ref(store.nowS())

const ask = latestOnly(
  (id: string | null) => questions.back(id ?? undefined),
  (answer) => {
    offer.value = answer
    target.value ??= answer.targets[0]?.id ?? null
    askedS.value = store.nowS()
  },
  store.report,
)
watch([open, target], ([now]) => now && ask(target.value), { immediate: true })
useIntervalFn(() => (nowS.value = store.nowS()), 1000)
useIntervalFn(() => open.value && ask(target.value), 10_000)

const way = computed(() => offer.value?.way ?? null)
const targets = computed(
  () =>
    offer.value?.targets.map((item) => ({
      value: item.id,
      title: item.name,
      note: `${formatClock(item.at_s, store.trip?.utc_offset_min ?? 0)}${item.depth_m == null ? '' : `, ${formatLength(item.depth_m, display.units)}`}`,
    })) ?? [],
)
/** Minutes and seconds to go; what has gone by is said. */
function left(inS: number): string {
  const seconds = Math.round(inS - (nowS.value - askedS.value))
  return seconds <= 0 ? 'now' : `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
}
const picture = computed(() => {
  const points: readonly (readonly number[])[] = way.value ? [...way.value.points, way.value.place] : [[0, 0]]
  const xs = points.map(([x]) => x!)
  const ys = points.map(([, y]) => -y!)
  const pad = 20
  return {
    box: `${Math.min(...xs) - pad} ${Math.min(...ys) - pad} ${Math.max(...xs) - Math.min(...xs) + 2 * pad} ${Math.max(...ys) - Math.min(...ys) + 2 * pad}`,
    path: (way.value?.points ?? []).map(([x, y], i) => `${i ? 'L' : 'M'}${x!.toFixed(1)} ${(-y!).toFixed(1)}`).join(''),
  }
})
const name = (id: string) => props.view.rods.find((rod) => rod.id === id)
</script>

<template>
  <entry-sheet v-model="open" title="Back through it" data-test="back-sheet">
    <v-card-text v-if="offer" class="back">
      <ChoiceRow v-if="targets.length" v-model="target" label="where" :options="targets" test="back-target" />
      <p v-if="!way" data-test="back-why-not">{{ offer.why_not }}</p>
      <template v-else>
        <p class="do" data-test="back-turn">
          Turn to {{ way.turn }}, {{ formatLength(way.radius_m, display.units) }} round, to {{ Math.round(way.straight_deg) }}°;
          {{ formatLength(way.straight_m, display.units) }} on, to {{ way.second }}; over it on {{ Math.round(way.arrive_deg) }}°<template
            v-if="way.beside_m > 0"
            >, passing {{ formatLength(way.beside_m, display.units) }} beside it: the fish are shallow</template
          >.
        </p>
        <svg :viewBox="picture.box" class="map" role="img" aria-label="The way back, north up">
          <path :d="picture.path" class="way" vector-effect="non-scaling-stroke" />
          <circle cx="0" cy="0" r="4" class="boat" />
          <circle :cx="way.place[0]" :cy="-way.place[1]!" :r="Math.max(way.doubt_m, 4)" class="doubt" vector-effect="non-scaling-stroke" />
        </svg>
        <p class="label">
          {{ formatLength(way.away_m, display.units) }} away, known within {{ formatLength(way.doubt_m, display.units) }}; found
          {{ formatAge(nowS - way.target.at_s) }} ago. Boat there in <b>{{ left(way.in_s) }}</b>.
          <template v-if="(view.current?.speed_mps ?? 0) > 0">The current bends the way: steer by what you see.</template>
        </p>
        <ol data-test="crossings">
          <li v-for="crossing in way.crossings" :key="crossing.rod_id">
            <RodShape v-if="name(crossing.rod_id)" :shape="name(crossing.rod_id)!.shape" :index="rodIndex(crossing.rod_id)" :size="18" />
            {{ name(crossing.rod_id)?.name }} <b>{{ left(crossing.in_s) }}</b>
          </li>
        </ol>
        <p class="label">Look round before you turn: other boats, lines, shallows and closed water are not in this picture.</p>
      </template>
    </v-card-text>
  </entry-sheet>
</template>

<style scoped>
.back {
  display: grid;
  gap: 8px;
}
.do {
  font-size: 18px;
  font-weight: 700;
  line-height: 1.25;
}
.map {
  width: 100%;
  max-height: 220px;
  background: var(--water);
}
.way {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
}
.boat {
  fill: var(--ink);
}
.doubt {
  fill: none;
  stroke: var(--now);
  stroke-width: 2;
  stroke-dasharray: 4 3;
}
ol {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
  gap: 4px 10px;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 16px;
}
li {
  display: flex;
  align-items: center;
  gap: 6px;
  font-variant-numeric: tabular-nums;
}
</style>
