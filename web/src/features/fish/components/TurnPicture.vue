<script setup lang="ts">
// Boat, lines and the ways they go, to one scale on the water; the boat sets out to the right, as in the side view.
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import type { PlanView } from '@/features/trip/api'
import { beamOf, hullPath } from '@/features/trip/logic/hull'
import { SHAPE_POINTS, rodColour } from '@/features/trip/logic/shapes'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatSpeed } from '@/shared/units/units'
import { fromBoat, nearestMoment, type Pose, type Spot, type Ways } from '../logic/ground'
import { placeLabels, type Box } from '../logic/labels'

/** Something that goes wrong, at its place. */
export interface Trouble {
  text: string
  spot: Spot
}
const props = defineProps<{
  pose: Pose
  rods: (PlanView['rods'][number] & { shape: string })[]
  ways: Ways
  troubles: Trouble[]
  lit: Set<string>
  boatLengthM: number
  rodIndex: (id: string) => number
  /** Whether the boat can be pushed along its way. */
  scrubs: boolean
  turning: boolean
}>()
const emit = defineEmits<{ moment: [index: number] }>()

const display = useDisplayStore()
const frame = useTemplateRef<HTMLElement>('frame')
const { width, height } = useElementSize(frame)
const PAD = { left: 92, right: 60, top: 16, bottom: 16 }

const bow = computed(() => fromBoat(props.pose, -props.boatLengthM, 0))
const extent = computed(() => {
  const lines = props.rods.flatMap((rod) => (rod.path ?? []).map((at) => fromBoat(props.pose, at.behind_m, at.side_m)))
  const spots = [...props.ways.boat, ...[...props.ways.lures.values()].flat(), ...lines, bow.value]
  const ahead = spots.map((spot) => spot.ahead)
  const starboard = spots.map((spot) => spot.starboard)
  return { aft: Math.min(...ahead), fore: Math.max(...ahead), port: Math.min(-4, ...starboard), starboard: Math.max(4, ...starboard) }
})
const scale = computed(() => {
  const { aft, fore, port, starboard } = extent.value
  const across = (width.value - PAD.left - PAD.right) / Math.max(fore - aft, 10)
  return Math.max(Math.min(across, (height.value - PAD.top - PAD.bottom) / Math.max(starboard - port, 8)), 0.2)
})
// In the middle of what room there is.
const x = (spot: Spot): number => {
  const { aft, fore } = extent.value
  return PAD.left + (width.value - PAD.left - PAD.right - (fore - aft) * scale.value) / 2 + (spot.ahead - aft) * scale.value
}
const y = (spot: Spot): number => {
  const { port, starboard } = extent.value
  return (height.value - (starboard - port) * scale.value) / 2 + (spot.starboard - port) * scale.value
}
const points = (spots: Spot[]): string => spots.map((spot) => `${x(spot).toFixed(1)},${y(spot).toFixed(1)}`).join(' ')
const lineOf = (rod: PlanView['rods'][number]): Spot[] => (rod.path ?? []).map((at) => fromBoat(props.pose, at.behind_m, at.side_m))
const out = computed(() =>
  props.rods.flatMap((rod) => (rod.place ? [{ ...rod, at: fromBoat(props.pose, rod.place.behind_m, rod.place.side_m) }] : [])),
)

// To scale, but never so small that it is not seen which way it goes.
const SMALLEST_PX = 16
const hull = computed(() => {
  const long = Math.max(props.boatLengthM * scale.value, SMALLEST_PX)
  return {
    path: hullPath(long, 0, 0, beamOf(long, props.boatLengthM)),
    turn: `translate(${x(props.pose)} ${y(props.pose)}) rotate(${props.pose.turned + 90})`,
  }
})

const words = (rod: PlanView['rods'][number]): string =>
  formatLength(rod.depth_m, display.units) + (props.turning ? ` at ${formatSpeed(rod.speed_mps, display.units, false)}` : '')
const labels = computed(() => {
  const wish = (id: string, spot: Spot, text: string) => ({ id, x: x(spot), y: y(spot), width: text.length * 7.2, height: 16 })
  const boat = props.ways.boat.map((spot) => [x(spot), y(spot)] as const)
  return placeLabels(
    [
      ...props.troubles.map((trouble, i) => wish(`trouble-${i}`, trouble.spot, trouble.text)),
      ...out.value.map((rod) => wish(rod.rod_id, rod.at, words(rod))),
    ],
    {
      taken: [around(x(props.pose), y(props.pose), 14), ...out.value.map((rod) => around(x(rod.at), y(rod.at), 9))],
      lines: [...out.value.map((rod) => lineOf(rod).map((spot) => [x(spot), y(spot)] as const)), boat],
      bounds: { x0: 2, y0: 2, x1: width.value - 2, y1: height.value - 2 },
    },
  )
})
function around(cx: number, cy: number, r: number): Box {
  return { x0: cx - r, y0: cy - r, x1: cx + r, y1: cy + r }
}
const tied = (id: string, spot: Spot): { x: number; y: number } => {
  const box = labels.value.get(id)!
  return { x: Math.min(Math.max(x(spot), box.x0 - 2), box.x1 + 2), y: Math.min(Math.max(y(spot), box.y0 + 3), box.y1 - 3) }
}

const pushing = ref(false)
function push(event: PointerEvent): void {
  if (!props.scrubs || (event.type === 'pointermove' && !pushing.value)) return
  if (event.type === 'pointerdown') {
    pushing.value = true
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  }
  const box = frame.value!.getBoundingClientRect()
  const origin = { ahead: extent.value.aft, starboard: extent.value.port }
  const spot = {
    ahead: origin.ahead + (event.clientX - box.left - x(origin)) / scale.value,
    starboard: origin.starboard + (event.clientY - box.top - y(origin)) / scale.value,
  }
  emit('moment', nearestMoment(props.ways.boat, spot))
}

/** A round length to measure by. */
const rule = computed(() => {
  const step = display.units.length === 'ft' ? 0.3048 : 1
  const fits = [10, 20, 50, 100, 200].map((n) => n * step).filter((metres) => metres * scale.value < 130)
  return fits.at(-1) ?? 10 * step
})
</script>

<template>
  <div ref="frame" class="frame" :class="{ scrubs }">
    <svg
      v-if="width > 0"
      :width="width"
      :height="height"
      role="img"
      aria-label="The spread from above"
      @pointerdown="push"
      @pointermove="push"
      @pointerup="pushing = false"
      @pointercancel="pushing = false"
    >
      <polyline v-for="[id, way] in ways.lures" :key="id" :points="points(way)" :stroke="rodColour(rodIndex(id))" class="way" />
      <polyline :points="points(ways.boat)" class="way boat-way" data-test="boat-way" />
      <g v-for="rod in out" :key="rod.rod_id">
        <polyline
          :points="points(lineOf(rod))"
          :data-test="`line-${rod.rod_id}`"
          :stroke="rodColour(rodIndex(rod.rod_id))"
          class="line"
          :class="{ lit: lit.has(rod.rod_id) }"
        />
        <g :transform="`translate(${x(rod.at)} ${y(rod.at)}) scale(8)`" class="shape">
          <circle v-if="rod.shape === 'circle'" r="0.95" :fill="rodColour(rodIndex(rod.rod_id))" />
          <polygon v-else :points="SHAPE_POINTS[rod.shape]" :fill="rodColour(rodIndex(rod.rod_id))" />
        </g>
      </g>
      <path :d="hull.path" :transform="hull.turn" class="hull" data-test="hull" />
      <g v-for="rod in out" :key="`label-${rod.rod_id}`">
        <line :x1="x(rod.at)" :y1="y(rod.at)" :x2="tied(rod.rod_id, rod.at).x" :y2="tied(rod.rod_id, rod.at).y" class="leader" />
        <text :x="labels.get(rod.rod_id)!.x0" :y="labels.get(rod.rod_id)!.y1 - 4">{{ words(rod) }}</text>
      </g>
      <g v-for="(trouble, i) in troubles" :key="trouble.text" class="trouble">
        <circle :cx="x(trouble.spot)" :cy="y(trouble.spot)" r="11" />
        <line
          :x1="x(trouble.spot)"
          :y1="y(trouble.spot)"
          :x2="tied(`trouble-${i}`, trouble.spot).x"
          :y2="tied(`trouble-${i}`, trouble.spot).y"
        />
        <text :x="labels.get(`trouble-${i}`)!.x0" :y="labels.get(`trouble-${i}`)!.y1 - 4">{{ trouble.text }}</text>
      </g>
      <g :transform="`translate(14 ${height - 12})`" class="rule">
        <path :d="`M0 -6V0H${rule * scale}V-6`" />
        <text :x="rule * scale + 6" y="0">{{ formatLength(rule, display.units) }}</text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.frame {
  position: relative;
  flex: 1;
  min-width: 0;
  min-height: 120px;
}
.scrubs svg {
  cursor: ew-resize;
  touch-action: none;
}
svg {
  position: absolute;
  inset: 0;
}
.hull {
  fill: var(--ink);
  stroke: var(--frost);
}
.way {
  fill: none;
  stroke-width: 1.2;
  stroke-dasharray: 1 5;
  stroke-linecap: round;
}
.boat-way {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 7 6;
}
.line {
  fill: none;
  stroke-width: 2.2;
}
.line.lit,
.trouble circle,
.trouble line {
  stroke: var(--now);
}
.line.lit {
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
  paint-order: stroke;
  stroke: var(--water);
  stroke-width: 3px;
}
.trouble circle {
  fill: none;
  stroke-width: 3;
}
.trouble text {
  fill: var(--now);
  font-weight: 760;
}
.rule path {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 2;
}
</style>
