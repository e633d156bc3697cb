<script setup lang="ts">
// The trip as it was: pushed along its day, the column shows any minute as it stood, and the track where the boat was.
import { computed, ref, shallowRef, watch } from 'vue'
import WaterColumn from '@/features/fish/components/WaterColumn.vue'
import TurnPicture from '@/features/fish/components/TurnPicture.vue'
import { START, steadyWays } from '@/features/fish/logic/ground'
import { getFishAt, getPlan, type FishView, type PlanView, type TripDocument } from '@/features/trip/api'
import { formatClock } from '@/features/trip/logic/format'
import { latestOnly } from '@/shared/core/latest'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed, formatTemperature } from '@/shared/units/units'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import LateEntry from './LateEntry.vue'
import TripTrack from './TripTrack.vue'

const props = defineProps<{ trip: TripDocument; view: FishView; rodIndex: (id: string) => number }>()
const emit = defineEmits<{ changed: [] }>()
const display = useDisplayStore()
const seen = shallowRef<FishView>(props.view)
const above = shallowRef<PlanView | null>(null)
const minute = ref(0)
const problem = ref<string | null>(null)
const selected = ref<string | null>(null)
const begin = computed(() => props.trip.started_at_s)
/** To the last thing that happened: what the day's ribbon shows. */
const last = computed(() => {
  const times = [...props.view.ribbon, ...props.view.temperatures].map((one) => one.at_s)
  return Math.max(...times, ...props.view.marks.map((mark) => mark.at_s), begin.value)
})
const minutes = computed(() => Math.max(Math.ceil((last.value - begin.value) / 60), 1))
// The last minute goes to what happened in it: of a trip under way the rest of it has not been yet.
const atS = computed(() => Math.min(begin.value + 60 * minute.value, last.value))

const look = latestOnly(
  async (at: number) => {
    const [fish, plan] = await Promise.all([getFishAt(props.trip.id, at), getPlan(props.trip.id, { course: 'straight', at_s: at })])
    return { fish, plan }
  },
  ({ fish, plan }) => {
    seen.value = fish
    above.value = plan
    problem.value = null
  },
  (error) => (problem.value = describeError(error, display.units)),
)
watch(atS, (at) => look(at))
// Something was told late: what is seen is looked at anew.
watch(
  () => props.view,
  () => look(atS.value),
)
watch(
  () => props.trip.id,
  () => {
    minute.value = minutes.value
    look(atS.value)
  },
  { immediate: true },
)
const dressed = computed(() =>
  (above.value?.rods ?? []).flatMap((rod) => {
    const known = seen.value.rods.find((one) => one.id === rod.rod_id)
    return known ? [{ ...rod, shape: known.shape, name: known.name }] : []
  }),
)
/** Lines that lay too near each other. */
const lit = computed(() => new Set((above.value?.tangles ?? []).flatMap((tangle) => tangle.rod_ids)))
const hits = computed(() => seen.value.rods.reduce((sum, rod) => sum + rod.tally.hits, 0))
const happened = computed(() => props.view.ribbon.filter((mark) => ['hit', 'hooked', 'landed', 'lost'].includes(mark.kind)))
const share = (at: number): string => `${(100 * (at - begin.value)) / (60 * minutes.value)}%`
// Nothing is set on a day that is over.
const asIs = (): Promise<never> => Promise.reject(new Error('The day is over: nothing is set on it.'))
</script>

<template>
  <section class="scrub" aria-label="The trip minute by minute" data-test="scrub" :data-at="seen.now_s">
    <h3>Minute by minute</h3>
    <ErrorNote :text="problem" />
    <div class="bar">
      <i v-for="mark in happened" :key="mark.kind + mark.at_s" class="tick" :class="mark.kind" :style="{ left: share(mark.at_s) }" />
      <input v-model.number="minute" type="range" min="0" :max="minutes" step="1" aria-label="Minute of the trip" data-test="scrub-at" />
    </div>
    <p data-test="scrub-said">
      <b>{{ formatClock(atS, trip.utc_offset_min) }}</b> · {{ formatSpeed(seen.speed_mps, display.units)
      }}<template v-if="seen.surface_degc !== null"> · surface {{ formatTemperature(seen.surface_degc, display.units) }}</template> ·
      {{ hits }} hit{{ hits === 1 ? '' : 's' }} so far
    </p>
    <div class="pictures">
      <div class="column">
        <WaterColumn
          :view="seen"
          :preview="null"
          :rod-index="rodIndex"
          :boat-length-m="trip.outfit.boat_length_m"
          :selected="selected"
          :number-for="asIs"
          :set-depth="asIs"
          @select="selected = $event"
        />
      </div>
      <div v-if="above" class="above" data-test="scrub-above">
        <TurnPicture
          :pose="START"
          :rods="dressed"
          :ways="steadyWays(dressed, null, 1)"
          :troubles="[]"
          :lit="lit"
          :boat-length-m="trip.outfit.boat_length_m"
          :rod-index="rodIndex"
          :scrubs="false"
          :turning="false"
        />
      </div>
      <TripTrack :trip="trip" :at-s="atS" @go="minute = Math.round(($event - begin) / 60)" />
    </div>
    <LateEntry :trip="trip" :at-s="atS" @told="emit('changed')" />
  </section>
</template>

<style scoped>
.scrub {
  display: grid;
  gap: 6px;
}
h3 {
  font-size: 16px;
}
.bar {
  position: relative;
  padding-top: 12px;
}
.bar input {
  width: 100%;
  min-height: 44px;
  accent-color: var(--ink);
}
.tick {
  position: absolute;
  top: 0;
  width: 3px;
  height: 12px;
  background: var(--line);
}
.tick.landed {
  background: var(--ink);
}
.pictures {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 6px;
}
.column,
.above {
  position: relative;
  height: 320px;
}
.above {
  grid-column: 1;
  display: grid;
  height: 200px;
}
.pictures > :last-child {
  grid-column: 2;
  grid-row: 1 / span 2;
}
@media (max-width: 800px) {
  .pictures {
    grid-template-columns: minmax(0, 1fr);
  }
  .pictures > :last-child {
    grid-column: 1;
    grid-row: auto;
  }
}
</style>
