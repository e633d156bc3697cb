<script setup lang="ts">
// The spread from above: straight, or in a turn, with the lines that are likely to catch lit.
import { computed, ref, shallowRef, watch } from 'vue'
import { latestOnly } from '@/shared/core/latest'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, stepM } from '@/shared/units/units'
import type {
  FishView,
  LineOrders,
  ManoeuvreAsked,
  ManoeuvreView,
  PlanAsked,
  PlanView,
  Tangle,
  TightestTurns,
  TurnAsked,
} from '@/features/trip/api'
import { START, fromBoat, poseOf, steadyWays, tangleSpot, waysOf } from '../logic/ground'
import TurnPicture, { type Trouble } from './TurnPicture.vue'

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
  { value: 'straight', title: 'Straight' },
  { value: 'port', title: 'Left' },
  { value: 'starboard', title: 'Right' },
  { value: 's_turn', title: 'S' },
  { value: 'u_turn', title: 'U' },
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

const frames = computed(() => turn.value?.frames ?? [])
const frameNow = computed(() => frames.value[Math.min(moment.value, frames.value.length - 1)])
const radiusNow = computed(() => turn.value?.radius_m ?? plan.value?.radius_m ?? null)
const nameOf = (id: string): string => props.view.rods.find((rod) => rod.id === id)?.name ?? id
const dressed = (list: PlanView['rods']) =>
  list.flatMap((rod) => {
    const known = props.view.rods.find((candidate) => candidate.id === rod.rod_id)
    return known ? [{ ...rod, shape: known.shape, name: known.name }] : []
  })
const rods = computed(() => dressed((plan.value ?? frameNow.value)?.rods ?? []))
const pose = computed(() => (frameNow.value ? poseOf(frameNow.value) : START))
const ways = computed(() =>
  turn.value ? waysOf(frames.value) : steadyWays(rods.value, plan.value?.radius_m ?? null, plan.value?.course === 'port' ? -1 : 1),
)

/** What goes wrong and where: a tangle at its own moment, a line that goes slack or into the bottom at its rod. */
const troubles = computed<Trouble[]>(() => {
  const near = (tangle: Tangle): string =>
    `${tangle.rod_ids.map(nameOf).join(' and ')} ${tangle.distance_m < stepM(display.units) / 2 ? 'cross' : `come within ${formatLength(tangle.distance_m, display.units)}`}`
  if (turn.value) {
    return turn.value.tangles.map(({ at_s, tangle }) => {
      const then = frames.value.find((item) => item.at_s >= at_s) ?? frames.value[0]!
      return { text: `${near(tangle)}, ${Math.round(at_s)} s`, spot: tangleSpot(poseOf(then), then.rods, tangle) }
    })
  }
  const list = (plan.value?.tangles ?? []).map((tangle) => ({ text: near(tangle), spot: tangleSpot(START, rods.value, tangle) }))
  for (const rod of rods.value) {
    if (rod.place === null) list.push({ text: `${rod.name} goes slack`, spot: fromBoat(START, 2, rod.tip_side_m) })
    else if (rod.clearance_m < 0)
      list.push({ text: `${rod.name} in the bottom`, spot: fromBoat(START, rod.place.behind_m, rod.place.side_m) })
  }
  return list
})
const lit = computed(
  () => new Set((plan.value?.tangles ?? (turn.value?.tangles ?? []).map((item) => item.tangle)).flatMap((tangle) => tangle.rod_ids)),
)
const grounded = computed(() => (turn.value?.grounded ?? []).map((id) => `${nameOf(id)} touches bottom on the way`))
const slack = computed(() => rods.value.filter((rod) => rod.place === null).map((rod) => `${rod.name}: too tight for a line so long`))
const warnings = computed(() => [...troubles.value.map((trouble) => trouble.text), ...grounded.value, ...slack.value])
const limits = computed(() => {
  if (!tightest.value) return ''
  const say = (turn: TightestTurns['port']): string => {
    const tight = turn.radius_m === null ? 'no turn is safe' : `no tighter than ${formatLength(turn.radius_m!, display.units)}`
    const wide = turn.wider_m === null ? '' : `, nor about ${formatLength(turn.wider_m!, display.units)} (${turn.wider_why})`
    return `${tight}${turn.why ? ` (${turn.why})` : ''}${wide}`
  }
  return `Held all the way round: to the left ${say(tightest.value.port)}; to the right ${say(tightest.value.starboard)}.`
})
</script>

<template>
  <div class="above" data-test="top-view" :data-course="plan?.course ?? (turn ? course : undefined)">
    <div class="controls">
      <div class="strip" role="group" aria-label="What the boat does">
        <button
          v-for="item in COURSES"
          :key="item.value"
          :class="{ chosen: course === item.value }"
          :aria-pressed="course === item.value"
          :data-test="`course-${item.value}`"
          @click="course = item.value"
        >
          {{ item.title }}
        </button>
      </div>
      <button v-if="unfolding" class="small" data-test="toward" @click="toward = toward === 'port' ? 'starboard' : 'port'">
        {{ toward === 'port' ? 'left first' : 'right first' }}
      </button>
      <label v-if="course === 'straight'" class="dial">
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
      <template v-else>
        <label v-if="by === 'rate'" class="dial">
          <input v-model.number="rate" type="range" min="0.5" max="8" step="0.1" aria-label="Rate of turn" data-test="rate" />
          <span class="label"
            >{{ rate.toFixed(1) }}° a second: radius {{ radiusNow === null ? '…' : formatLength(radiusNow, display.units) }}</span
          >
        </label>
        <label v-else class="dial">
          <input v-model.number="radius" type="range" min="8" max="150" step="2" aria-label="Radius of the turn" data-test="radius" />
          <span class="label">radius {{ formatLength(radius, display.units) }}</span>
        </label>
        <button class="small" data-test="turn-by" @click="by = by === 'radius' ? 'rate' : 'radius'">
          {{ by === 'radius' ? 'by radius' : 'by rate' }}
        </button>
      </template>
      <label v-if="turn" class="dial">
        <input
          v-model.number="moment"
          type="range"
          min="0"
          :max="turn.frames.length - 1"
          aria-label="Moment of the turn"
          data-test="moment"
        />
        <span class="label">{{ Math.round(frameNow?.at_s ?? 0) }} s into it: push the boat along its way</span>
      </label>
    </div>
    <div class="middle">
      <TurnPicture
        :pose="pose"
        :rods="rods"
        :ways="ways"
        :troubles="troubles"
        :lit="lit"
        :boat-length-m="boatLengthM"
        :rod-index="rodIndex"
        :scrubs="turn !== null"
        :turning="course !== 'straight'"
        @moment="moment = $event"
      />
      <div class="words">
        <p v-for="text in warnings" :key="text" class="warning" data-test="turn-warning">{{ text }}</p>
        <p v-if="!warnings.length && rods.length" class="label">
          {{ course === 'straight' ? 'No lines near each other.' : 'No tangle in this turn.' }}
        </p>
        <button class="order" :aria-expanded="orders !== null" data-test="orders" @click="toggleOrders">Order of letting out</button>
        <p v-if="orders" class="label" data-test="order-out">
          out: {{ orders.out.map((step) => nameOf(step.rod_id)).join(', ') }} ({{ orders.out[0]?.why }}); in: the other way round
        </p>
        <p v-if="!turn" class="label" data-test="tightest">{{ limits }}</p>
      </div>
    </div>
  </div>
</template>

<style scoped>
.above {
  position: absolute;
  inset: 0;
  display: flex;
  flex-direction: column;
  background: var(--water);
}
.controls {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  padding: 4px 6px 0;
}
.strip {
  display: flex;
  border: 1px solid var(--ink);
  border-radius: 4px;
  overflow: hidden;
}
.strip button {
  min-height: 44px;
  min-width: 48px;
  padding: 0 12px;
  font-weight: 650;
  color: var(--ink);
  background: var(--frost);
}
.strip button + button {
  border-left: 1px solid var(--ink);
}
.strip button.chosen {
  background: var(--ink);
  color: var(--frost);
}
.small {
  min-height: 44px;
  padding: 0 10px;
  font-size: 14px;
  font-weight: 620;
  color: var(--ink);
  text-decoration: underline;
}
.dial {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-width: 120px;
  max-width: 240px;
}
.dial input {
  accent-color: var(--ink);
  min-height: 26px;
}
.middle {
  display: flex;
  flex: 1;
  min-height: 0;
}
.words {
  /* A short list beside; under it stands the switch between the two views. */
  flex: 0 0 210px;
  overflow-y: auto;
  margin-bottom: 54px;
  padding: 4px 10px 0 6px;
}
.words p {
  margin-bottom: 4px;
}
.warning {
  color: var(--now);
  font-weight: 700;
  font-size: 14px;
  line-height: 1.25;
}
.order {
  min-height: 44px;
  font-weight: 640;
  text-decoration: underline;
  color: var(--ink);
  text-align: left;
}
@media (max-width: 700px) {
  .middle {
    flex-direction: column;
  }
  .words {
    flex: 0 0 auto;
    max-height: 84px;
    margin-bottom: 0;
    padding: 2px 140px 6px 10px;
  }
}
</style>
