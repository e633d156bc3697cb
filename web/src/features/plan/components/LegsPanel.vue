<script setup lang="ts">
// Legs along a contour of the chart, for the hour that is looked at: its sun, its wind, its phase's speed and depth.
import { computed, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { getChart, legsGpx, planLegs, type ChartMap as Chart, type Leg, type LegsWish } from '@/features/waters/api'
import ChartMap from '@/features/waters/components/ChartMap.vue'
import { getTightest } from '@/features/trip/api'
import { latestOnly } from '@/shared/core/latest'
import EmptyState from '@/shared/ui/EmptyState.vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import { describeError } from '@/shared/units/describe'
import { settled, type Typed } from '@/shared/units/measures'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, lengthFromM } from '@/shared/units/units'
import type { DayView, Phase } from '../api'

type Hour = DayView['hours'][number]
/** ``tripId``: the open trip whose lines are to go round with the boat. */
const props = defineProps<{ waterId: number; hour: Hour; phase: Phase | null; tripId: string | null }>()
const router = useRouter()
const display = useDisplayStore()
const chart = shallowRef<Chart | null>(null)
const legs = shallowRef<Leg[]>([])
const chosen = ref<number | null>(0)
const problem = ref<string | null>(null)
/** The length of a leg, to what anybody steers: fifty feet, or ten metres. */
const along = (metres: number): string => {
  const by = display.units.length === 'ft' ? 50 : 10
  return `${Math.round(lengthFromM(metres, display.units) / by) * by} ${display.units.length}`
}
const form = ref<{ depth: Typed; radius: Typed; margin: Typed; weave: boolean }>({ depth: null, radius: 35, margin: 30, weave: false })

/** The smallest circle that the lines which are out can go round to both sides; null where none are or nobody knows. */
const tightest = ref<number | null>(null)
watch(
  () => props.tripId,
  async (id) => {
    tightest.value = null
    if (id === null) return
    try {
      const turns = await getTightest(id)
      const { port, starboard } = turns
      if (port.radius_m !== null && starboard.radius_m !== null) tightest.value = Math.max(port.radius_m, starboard.radius_m)
    } catch {
      // No line is out, or none can be solved: the turn is typed.
    }
  },
  { immediate: true },
)

/** What the phase follows where nobody says otherwise. */
const usual = computed(() => props.phase?.contour_m ?? 0)
const wish = computed<LegsWish | null>(() => {
  try {
    const depth = form.value.depth === null ? usual.value : settled(form.value.depth, 'Contour')
    if (!props.phase) return null
    return {
      depth_m: depth,
      least_depth_m: Math.min(props.phase.water_m, depth),
      radius_m: settled(form.value.radius, 'Tightest turn'),
      speed_mps: props.phase.leg_mps,
      margin_m: settled(form.value.margin, 'Clear of closed water'),
      sun_deg: props.hour.elevation_deg > 0 ? props.hour.azimuth_deg : null,
      wind_from_deg: props.hour.wind_from_deg,
      wind_mps: props.hour.wind_mps,
      weave_m: form.value.weave ? 15 : 0,
    }
  } catch {
    return null
  }
})

const find = latestOnly(
  (asked: { id: number; wish: LegsWish }) => planLegs(asked.id, asked.wish),
  (answer) => {
    legs.value = answer
    problem.value = null
    chosen.value = 0
  },
  (error) => {
    legs.value = []
    problem.value = describeError(error, display.units)
  },
)
watch(
  () => [props.waterId, display.units.length] as const,
  async ([id, unit], before) => {
    if (id !== before?.[0]) {
      // The chart and the legs of another water say nothing of this one.
      chart.value = null
      legs.value = []
    }
    try {
      chart.value = await getChart(id, unit === 'ft' ? 'ft' : 'm')
    } catch (error) {
      problem.value = describeError(error, display.units)
    }
  },
  { immediate: true },
)
watch(
  () => [props.waterId, chart.value !== null && chart.value.bounds.length > 0, JSON.stringify(wish.value)] as const,
  ([id, charted]) => {
    if (charted && wish.value) find({ id, wish: wish.value })
  },
  { immediate: true },
)

async function save(): Promise<void> {
  try {
    const text = await legsGpx(props.waterId, wish.value!)
    const link = document.createElement('a')
    link.href = URL.createObjectURL(new Blob([text], { type: 'application/gpx+xml' }))
    link.download = 'legs.gpx'
    link.click()
    URL.revokeObjectURL(link.href)
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}
</script>

<template>
  <section v-if="chart" class="legs" aria-label="Legs" data-test="legs">
    <EmptyState
      v-if="!chart.bounds.length"
      title="No chart of this water"
      text="Bring soundings or contours in, and legs can follow a depth."
      act="Bring soundings in"
      test="to-chart"
      @act="router.push(`/waters/${waterId}`)"
    />
    <template v-else>
      <ChartMap class="map" :chart="chart" :legs="legs" :leg="chosen" @leg="chosen = $event" />
      <div class="side">
        <h2 class="label">legs along a contour</h2>
        <div class="pair">
          <NumberField
            v-model="form.depth"
            label="contour"
            measure="long"
            :placeholder="formatLength(usual, display.units, false)"
            test="leg-depth"
          />
          <NumberField v-model="form.radius" label="tightest turn" measure="long" test="leg-radius" />
        </div>
        <button
          v-if="tightest !== null && form.radius !== tightest"
          type="button"
          class="link"
          data-test="leg-tightest"
          @click="form.radius = tightest"
        >
          The lines that are out go round {{ formatLength(tightest, display.units) }}: take that
        </button>
        <label class="weave"><input v-model="form.weave" type="checkbox" data-test="leg-weave" /> weave up and down the bank</label>
        <ErrorNote :text="problem" />
        <ol>
          <li v-for="(leg, i) in legs" :key="i">
            <button type="button" :class="{ on: i === chosen }" :aria-pressed="i === chosen" data-test="leg" @click="chosen = i">
              <b>{{ i + 1 }}</b>
              <span
                >{{ along(leg.length_m) }}, {{ Math.round(leg.minutes) }} min · bottom
                {{ formatLength(leg.shallowest_m, display.units, false) }}–{{ formatLength(leg.deepest_m, display.units) }}
                <small class="label">{{ leg.why }}; tightest turn {{ along(Math.min(leg.tightest_m, 999)) }}</small></span
              >
            </button>
          </li>
        </ol>
        <div class="acts">
          <v-btn size="small" :disabled="!legs.length" data-test="legs-gpx" @click="save">Save as GPX</v-btn>
          <router-link :to="`/waters/${waterId}`">Chart and closed water</router-link>
        </div>
        <p class="label">Charts err, levels change: keep a lookout and watch the sounder. Closed water as you entered it.</p>
      </div>
    </template>
  </section>
</template>

<style scoped>
.legs {
  --touch: 44px;
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(280px, 1fr);
  gap: 6px;
}
.map {
  min-height: 420px;
}
.side {
  display: grid;
  gap: 8px;
  align-content: start;
  padding: 8px 12px;
  background: var(--frost);
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.link {
  min-height: 44px;
  text-align: left;
  font-size: 14px;
  text-decoration: underline;
  color: var(--ink);
}
.weave {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
  font-size: 14px;
}
.weave input {
  width: 22px;
  height: 22px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 2px;
}
li button {
  display: grid;
  grid-template-columns: 28px 1fr;
  width: 100%;
  min-height: 44px;
  padding: 4px 8px;
  text-align: left;
  font-size: 13px;
  color: var(--ink);
  border-left: 4px solid transparent;
}
li button.on {
  border-left-color: var(--ink);
  background: var(--water);
}
li small {
  display: block;
}
.acts {
  display: flex;
  gap: 14px;
  align-items: center;
}
a {
  color: var(--ink);
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  font-size: 14px;
}
@media print {
  .legs {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
  .pair,
  .link,
  .weave,
  .acts {
    display: none;
  }
}
@media screen and (max-width: 900px) {
  .legs {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
