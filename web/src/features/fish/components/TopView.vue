<script setup lang="ts">
// The spread from above: straight, or in a turn, with the lines that are likely to catch lit.
import { useElementSize } from '@vueuse/core'
import { computed, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { latestOnly } from '@/shared/core/latest'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatSpeed, stepM } from '@/shared/units/units'
import type {
  FishView,
  LineOrders,
  ManoeuvreAsked,
  ManoeuvreView,
  PlanAsked,
  PlanView,
  TightestTurns,
  TurnAsked,
} from '@/features/trip/api'
import { spreadLabels } from '@/features/trip/logic/scale'
import { SHAPE_POINTS, rodColour } from '@/features/trip/logic/shapes'

const props = defineProps<{
  view: FishView
  rodIndex: (id: string) => number
  boatLengthM: number
  planFor: (asked: PlanAsked) => Promise<PlanView>
  manoeuvreFor: (asked: ManoeuvreAsked) => Promise<ManoeuvreView>
  lineOrders: () => Promise<LineOrders>
  tightestTurns: () => Promise<TightestTurns>
}>()
const emit = defineEmits<{ failed: [error: unknown] }>()

const display = useDisplayStore()
const frame = useTemplateRef<HTMLElement>('frame')
const { width, height } = useElementSize(frame)
type Course = PlanView['course'] | ManoeuvreAsked['kind']

const course = ref<Course>('straight')
const radius = ref(60)
/** Rate of turn, degrees a second, for those who steer by the compass; `by` says which dial is shown. */
const rate = ref(2)
const by = ref<'radius' | 'rate'>('radius')
const leeway = ref(0)
/** How far through an S- or U-turn, frame by frame, and to which side it begins. */
const moment = ref(0)
const toward = ref<'port' | 'starboard'>('port')
const plan = shallowRef<PlanView | null>(null)
const turn = shallowRef<ManoeuvreView | null>(null)
const tightest = shallowRef<TightestTurns | null>(null)
const orders = shallowRef<LineOrders | null>(null)
const COURSES: { value: Course; title: string }[] = [
  { value: 'port', title: 'Turn left' },
  { value: 'straight', title: 'Straight' },
  { value: 'starboard', title: 'Turn right' },
  { value: 's_turn', title: 'S-turn' },
  { value: 'u_turn', title: 'U-turn' },
]
const unfolding = computed(() => course.value === 's_turn' || course.value === 'u_turn')

interface Asked {
  course: Course
  turn: TurnAsked
  leeway: number
  toward: 'port' | 'starboard'
}
const planAsked = (asked: Asked): PlanAsked => {
  const to = asked.course as PlanView['course']
  return to === 'straight' ? { course: to, leeway_deg: asked.leeway } : { course: to, ...asked.turn }
}
const ask = latestOnly(
  async (asked: Asked) =>
    asked.course === 's_turn' || asked.course === 'u_turn'
      ? { turn: await props.manoeuvreFor({ kind: asked.course, toward: asked.toward, ...asked.turn }), plan: null }
      : { turn: null, plan: await props.planFor(planAsked(asked)) },
  (answer) => {
    plan.value = answer.plan
    turn.value = answer.turn
    if (answer.turn) moment.value = answer.turn.look_first
  },
  (error) => emit('failed', error),
)

const askTightest = latestOnly(
  () => props.tightestTurns(),
  (answer) => (tightest.value = answer),
  (error) => emit('failed', error),
)
// A wind that was noted says how the lines stream; the slider is there for what is seen.
const LEEWAY_MOST = 44
watch(
  () => props.view.wind?.leeway_deg,
  (degrees) => {
    if (degrees !== undefined && degrees !== null) leeway.value = Math.min(Math.max(Math.round(degrees / 2) * 2, -LEEWAY_MOST), LEEWAY_MOST)
  },
  { immediate: true },
)
// The spread as it is set: a clock that ticks or a tap for a hit is no reason to solve it anew.
const spread = computed(() =>
  JSON.stringify([props.view.speed_mps, props.view.bottom_m, props.view.rods.map((rod) => [rod.setup, rod.line?.number.setting_m])]),
)
watch(
  [spread, course, radius, rate, by, leeway, toward],
  () =>
    ask({
      course: course.value,
      turn: by.value === 'radius' ? { radius_m: radius.value } : { rate_degps: rate.value },
      leeway: leeway.value,
      toward: toward.value,
    }),
  { immediate: true },
)
watch(spread, () => askTightest(undefined), { immediate: true })

async function toggleOrders(): Promise<void> {
  if (orders.value) {
    orders.value = null
    return
  }
  try {
    orders.value = await props.lineOrders()
  } catch (error) {
    emit('failed', error)
  }
}

const frameNow = computed(() => turn.value?.frames[Math.min(moment.value, turn.value.frames.length - 1)])
const radiusNow = computed(() => turn.value?.radius_m ?? plan.value?.radius_m ?? null)
const seen = computed(() => plan.value ?? frameNow.value)
const tangles = computed(() => plan.value?.tangles ?? (turn.value?.tangles ?? []).map((item) => item.tangle))

const rods = computed(() =>
  (seen.value?.rods ?? []).flatMap((rod) => {
    const known = props.view.rods.find((candidate) => candidate.id === rod.rod_id)
    return known ? [{ ...rod, shape: known.shape, name: known.name }] : []
  }),
)
const lit = computed(() => new Set(tangles.value.flatMap((tangle) => tangle.rod_ids)))
const nameOf = (id: string): string => props.view.rods.find((rod) => rod.id === id)?.name ?? id

// True to scale, both ways alike; the boat heads to the right as in the side view.
const extent = computed(() => {
  const sides = rods.value.flatMap((rod) => [rod.tip_side_m, rod.place?.side_m ?? rod.tip_side_m])
  return {
    behind: Math.max(15, ...rods.value.map((rod) => rod.place?.behind_m ?? 0)),
    port: Math.min(-6, ...sides),
    starboard: Math.max(6, ...sides),
  }
})
const RIGHT = 90
const scale = computed(() =>
  Math.min((width.value - RIGHT - 70) / extent.value.behind, (height.value - 44) / (extent.value.starboard - extent.value.port)),
)
const sternX = computed(() => width.value - RIGHT)
const x = (behindM: number): number => sternX.value - behindM * scale.value
const y = (sideM: number): number => 22 + (sideM - extent.value.port) * scale.value

const labelY = computed(() =>
  spreadLabels(
    rods.value.flatMap((rod) => (rod.place ? [{ id: rod.rod_id, y: y(rod.place.side_m) }] : [])),
    15,
    12,
    height.value - 8,
  ),
)

const warnings = computed(() => {
  const list = tangles.value.map((tangle, index) => {
    const when = turn.value ? `, ${Math.round(turn.value.tangles[index]!.at_s)} s into the turn` : ''
    return `${tangle.rod_ids.map(nameOf).join(' and ')} ${tangle.distance_m < stepM(display.units) / 2 ? 'cross' : `come within ${formatLength(tangle.distance_m, display.units)}`}${when}`
  })
  for (const id of turn.value?.grounded ?? []) list.push(`${nameOf(id)} touches bottom on the way`)
  if (turn.value) return list
  for (const rod of rods.value) {
    if (rod.place === null) list.push(`${rod.name}: the turn is too tight for a line so long, it goes slack`)
    else if (rod.clearance_m < 0) list.push(`${rod.name} goes into the bottom`)
  }
  return list
})
const limits = computed(() => {
  if (!tightest.value) return ''
  const say = (turn: TightestTurns['port']): string => {
    const tight = turn.radius_m === null ? 'no turn is safe' : `no tighter than ${formatLength(turn.radius_m!, display.units)}`
    const wide = turn.wider_m === null ? '' : `, nor about ${formatLength(turn.wider_m!, display.units)} (${turn.wider_why})`
    return `${tight}${turn.why ? ` (${turn.why})` : ''}${wide}`
  }
  return `Held all the way round: to the left ${say(tightest.value.port)}; to the right ${say(tightest.value.starboard)}. An S- or U-turn is over sooner: see it above.`
})
</script>

<template>
  <div class="above" data-test="top-view" :data-course="plan?.course ?? (turn ? course : undefined)">
    <div class="controls">
      <v-btn
        v-for="item in COURSES"
        :key="item.value"
        class="course"
        :class="{ chosen: course === item.value }"
        :data-test="`course-${item.value}`"
        @click="course = item.value"
      >
        {{ item.title }}
      </v-btn>
      <v-btn v-if="unfolding" class="course" data-test="toward" @click="toward = toward === 'port' ? 'starboard' : 'port'">
        {{ toward === 'port' ? 'left first' : 'right first' }}
      </v-btn>
      <label v-if="course === 'straight'" class="radius">
        <input
          v-model.number="leeway"
          type="range"
          :min="-LEEWAY_MOST"
          :max="LEEWAY_MOST"
          step="2"
          aria-label="Side wind: how far the lines stream"
          data-test="leeway"
        />
        <span class="label">{{
          leeway === 0 ? 'lines straight astern' : `lines stream ${Math.abs(leeway)}° to ${leeway < 0 ? 'port' : 'starboard'}`
        }}</span>
      </label>
      <label v-if="turn" class="radius">
        <input
          v-model.number="moment"
          type="range"
          min="0"
          :max="turn.frames.length - 1"
          aria-label="Moment of the turn"
          data-test="moment"
        />
        <span class="label">{{ Math.round(frameNow?.at_s ?? 0) }} s into it</span>
      </label>
      <v-btn v-if="course !== 'straight'" class="course" data-test="turn-by" @click="by = by === 'radius' ? 'rate' : 'radius'">
        {{ by === 'radius' ? 'by radius' : 'by rate' }}
      </v-btn>
      <label v-if="course !== 'straight' && by === 'rate'" class="radius">
        <input v-model.number="rate" type="range" min="0.5" max="8" step="0.1" aria-label="Rate of turn" data-test="rate" />
        <span class="label"
          >{{ rate.toFixed(1) }}° a second: radius {{ radiusNow === null ? '…' : formatLength(radiusNow, display.units) }}</span
        >
      </label>
      <label v-else-if="course !== 'straight'" class="radius">
        <input v-model.number="radius" type="range" min="8" max="150" step="2" aria-label="Radius of the turn" data-test="radius" />
        <span class="label">radius {{ formatLength(radius, display.units) }}</span>
      </label>
    </div>
    <div ref="frame" class="frame">
      <svg v-if="width > 0" :width="width" :height="height" role="img" aria-label="The spread from above">
        <path :d="`M${sternX} ${y(0) - 8} h34 q22 2 30 8 q-8 6 -30 8 h-34 Z`" class="boat" />
        <g v-for="rod in rods" :key="rod.rod_id">
          <polyline
            v-if="rod.place"
            :points="(rod.path ?? []).map((at) => `${x(at.behind_m)},${y(at.side_m)}`).join(' ')"
            :data-test="`line-${rod.rod_id}`"
            :stroke="rodColour(rodIndex(rod.rod_id))"
            class="line"
            :class="{ lit: lit.has(rod.rod_id) }"
          />
          <g v-if="rod.place" :transform="`translate(${x(rod.place.behind_m)} ${y(rod.place.side_m)}) scale(8)`" class="shape">
            <circle v-if="rod.shape === 'circle'" r="0.95" :fill="rodColour(rodIndex(rod.rod_id))" />
            <polygon v-else :points="SHAPE_POINTS[rod.shape]" :fill="rodColour(rodIndex(rod.rod_id))" />
          </g>
          <line
            v-if="rod.place"
            :x1="x(rod.place.behind_m) - 9"
            :y1="y(rod.place.side_m)"
            :x2="x(rod.place.behind_m) - 17"
            :y2="labelY.get(rod.rod_id)!"
            class="leader"
          />
          <text v-if="rod.place" :x="x(rod.place.behind_m) - 20" :y="labelY.get(rod.rod_id)! + 4">
            {{ formatLength(rod.depth_m, display.units) }}
            <tspan v-if="course !== 'straight'">at {{ formatSpeed(rod.speed_mps, display.units, false) }}</tspan>
          </text>
        </g>
      </svg>
    </div>
    <div class="words">
      <p v-for="text in warnings" :key="text" class="warning" data-test="turn-warning">{{ text }}</p>
      <p v-if="!warnings.length && rods.length" class="label">
        {{ course === 'straight' ? 'No lines near each other.' : 'No tangle in this turn.' }}
      </p>
      <p v-if="!turn" class="label" data-test="tightest">{{ limits }}</p>
      <button class="order" :aria-expanded="orders !== null" data-test="orders" @click="toggleOrders">Order of letting out</button>
      <p v-if="orders" class="label" data-test="order-out">
        out: {{ orders.out.map((step) => nameOf(step.rod_id)).join(', ') }} ({{ orders.out[0]?.why }}); in: the other way round
      </p>
    </div>
  </div>
</template>

<style scoped>
.above {
  /* What is said here must not push the rods off the screen: it scrolls. */
  position: absolute;
  inset: 0;
  overflow-y: auto;
  display: flex;
  flex-direction: column;
  background: var(--water);
}
.controls {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  padding: 4px 6px 0;
}
.course {
  height: 44px !important;
}
.chosen {
  background: var(--ink);
  color: var(--frost);
}
.radius {
  display: flex;
  flex-direction: column;
  flex: 1;
  max-width: 260px;
}
.radius input {
  accent-color: var(--ink);
  min-height: 30px;
}
.frame {
  position: relative;
  flex: 1;
  min-height: 110px;
}
svg {
  position: absolute;
  inset: 0;
}
.boat {
  fill: var(--ink);
}
.line {
  fill: none;
  stroke-width: 2;
}
.line.lit {
  stroke: var(--now);
  stroke-width: 5;
}
.leader {
  stroke: var(--ink-2);
}
.shape {
  stroke: var(--ink);
  stroke-width: 0.17;
}
text {
  fill: var(--ink);
  font-size: 13px;
  font-weight: 600;
  font-stretch: 88%;
  text-anchor: end;
  paint-order: stroke;
  stroke: var(--water);
  stroke-width: 3px;
}
.words {
  /* Room for the switch between the two views. */
  padding: 2px 140px 6px 10px;
}
.order {
  min-height: 44px;
  font-weight: 640;
  text-decoration: underline;
}
.warning {
  color: var(--now);
  font-weight: 700;
  font-size: 14px;
}
</style>
