<script setup lang="ts">
// The water column from the side, to scale: every line in its computed curve.
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatTemperature, lengthFromM, lengthToM, stepM } from '@/shared/units/units'
import type { FishView, RodLine, RodView } from '@/features/trip/api'
import { useLureDrag } from '../composables/useLureDrag'
import { formatDepth, formatNumber } from '@/features/trip/logic/format'
import { leastCovered, placeLabels, type Box, type Seated } from '../logic/labels'
import { columnScale, tickStep } from '@/features/trip/logic/scale'
import { SHAPE_POINTS, rodColour } from '@/features/trip/logic/shapes'
import BedProfile from './BedProfile.vue'
import MarkLane from './MarkLane.vue'
import TemperatureEdge from './TemperatureEdge.vue'

const props = defineProps<{
  view: FishView
  /** Lines at a speed that is being tried, in place of the view's own. */
  preview: RodLine[] | null
  /** A depth that is being typed: a mark's, or the bottom's. */
  level?: number | null
  rodIndex: (id: string) => number
  boatLengthM: number
  selected: string | null
  /** A tap on the water says a depth: of a mark, or for the rod that is chosen. */
  aim?: boolean
  numberFor: (rodId: string, depthM: number) => Promise<RodLine>
  setDepth: (rodId: string, depthM: number) => Promise<boolean>
}>()
const emit = defineEmits<{ select: [rodId: string]; at: [depthM: number]; mark: [mark: FishView['marks'][number]] }>()

const display = useDisplayStore()
const frame = useTemplateRef<HTMLElement>('frame')
const { width, height } = useElementSize(frame)
const drag = useLureDrag({ numberFor: props.numberFor, setDepth: props.setDepth, units: () => display.units })

const TOP = 34
const narrow = computed(() => width.value < 560)
const LEFT = computed(() => (narrow.value ? 60 : 74))
const RIGHT = computed(() => (narrow.value ? 54 : 86))

interface Drawn {
  rod: RodView
  line: RodLine
  dragged: boolean
}

const drawn = computed<Drawn[]>(() =>
  props.view.rods.flatMap((rod) => {
    const dragged = drag.rodId.value === rod.id && drag.line.value !== null
    const tried = props.preview?.find((line) => line.rod_id === rod.id)
    const line = dragged ? drag.line.value! : (tried ?? rod.line)
    return line ? [{ rod, line, dragged }] : []
  }),
)

// The deepest of what is drawn: sounded under the boat, or charted under the lines.
const bedM = computed(() => {
  const charted = props.view.ahead?.source === 'chart' ? props.view.ahead.profile : []
  return Math.max(props.view.bottom_m, ...charted.filter((p) => p.ahead_m <= 0).map((p) => p.bottom_m))
})
/** What is tried may be let out farther than anything that is out: it is in the picture then, and else nothing moves. */
const longestTrailM = computed(() =>
  Math.max(
    Math.max(...props.view.rods.map((rod) => rod.line?.trail_m ?? 0), 20) * 1.04,
    ...(props.preview ?? []).map((line) => line.trail_m),
  ),
)
const boatPx = computed(() => Math.max(props.boatLengthM * scale.value.along, narrow.value ? 26 : 36))
const scale = computed(() =>
  columnScale({
    widthPx: width.value - LEFT.value - RIGHT.value - (narrow.value ? 34 : 60),
    heightPx: height.value - TOP - 26,
    longestTrailM: longestTrailM.value,
    bottomM: bedM.value,
  }),
)
const sternX = computed(() => width.value - RIGHT.value - boatPx.value - 6)
const x = (behindM: number): number => sternX.value - behindM * scale.value.along
/** Above the water depth is not stretched, and the highest rod tip still fits. */
const upScale = computed(() => {
  const tips = props.view.rods.flatMap((rod) => (rod.line ? rod.line.paths.flat() : [])).map(([, depth]) => -depth!)
  return Math.min(scale.value.down, (TOP - 8) / Math.max(...tips, 0.5))
})
const y = (depthM: number): number => TOP + depthM * (depthM < 0 ? upScale.value : scale.value.down)
const bottomY = computed(() => y(bedM.value))

const path = (points: number[][]): string =>
  points.map(([behind, depth], i) => `${i ? 'L' : 'M'}${x(behind!).toFixed(1)} ${y(depth!).toFixed(1)}`).join('')

const LABEL_HEIGHT = 17
const LETTER_PX = 7.4
const words = (item: Drawn): string =>
  (item.line.at_surface ? 'surface' : formatDepth(item.line, display.units)) + (flag(item) ? ` ${flag(item)}` : '')

const bandWords = computed(
  () =>
    `${formatTemperature(props.view.comfort.low_degc, display.units, false)}–${formatTemperature(props.view.comfort.high_degc, display.units)} water`,
)
const linePoints = computed(() =>
  drawn.value.flatMap(({ line }) => line.paths.map((points) => points.map(([behind, depth]) => [x(behind!), y(depth!)] as const))),
)

/** Where the labels stood: they stay there as long as that is nearly as good. */
let seated = new Map<string, Seated>()
const labels = computed(() =>
  placeLabels(
    drawn.value.map((item) => ({
      id: item.rod.id,
      x: x(item.line.trail_m),
      y: y(item.line.depth_m),
      width: words(item).length * LETTER_PX,
      height: LABEL_HEIGHT,
    })),
    {
      taken: [
        ...drawn.value.flatMap(({ line }) =>
          line.ball_depth_m == null ? [] : [boxAround(x(line.ball_trail_m ?? 0), y(line.ball_depth_m), 6, 6)],
        ),
        ...depthTicks.value.map((tick) => boxAround(LEFT.value - 16, y(tick), 12, 8)),
      ],
      lines: linePoints.value,
      bounds: { x0: LEFT.value, y0: TOP + 1, x1: width.value - (narrow.value ? 0 : RIGHT.value), y1: bottomY.value - 2 },
    },
    seated,
  ),
)

function boxAround(cx: number, cy: number, rx: number, ry: number): Box {
  return { x0: cx - rx, y0: cy - ry, x1: cx + rx, y1: cy + ry }
}

/** The middle of a band's words: on its lower edge, or under it where the band has no room for them below the surface. */
const bandY = (baseM: number): number => y(baseM) + (y(baseM) - 17 < TOP ? 9 : -9)
/** The end of a band's lower edge, or the place between, where its words cover least. */
const bandX = computed(() => {
  const taken = [...labels.value.values()]
  const lures = drawn.value.map(({ line }) => boxAround(x(line.trail_m), y(line.depth_m), 11, 11))
  return props.view.comfort.layers.map((layer) => {
    const long = bandWords.value.length * 6.4
    const middle = bandY(layer.base_m)
    const wish = (from: number): Box => ({ x0: from, y0: middle - 7, x1: from + long, y1: middle + 7 })
    const room = width.value - RIGHT.value - LEFT.value - long - 16
    const starts = Array.from({ length: 9 }, (_, i) => LEFT.value + 8 + (room * i) / 8)
    return leastCovered(starts.map(wish), [...taken, ...lures], linePoints.value)?.x0 ?? null
  })
})

/** Where a label is tied to its lure: its nearest edge. */
const tie = (id: string, item: Drawn): { x: number; y: number } => {
  const box = labels.value.get(id)!
  return {
    x: Math.min(Math.max(x(item.line.trail_m), box.x0 - 2), box.x1 + 2),
    y: Math.min(Math.max(y(item.line.depth_m), box.y0 + 3), box.y1 - 3),
  }
}

const depthTicks = computed(() => {
  const span = lengthFromM(bedM.value, display.units)
  const step = tickStep(span, Math.max(2, (bottomY.value - TOP) / 46))
  return Array.from({ length: Math.floor(span / step) }, (_, i) => lengthToM((i + 1) * step, display.units))
})

const hint = ref<{ x: number; y: number } | null>(null)

/** To the step that a hand can set: a whole foot, or half a metre. */
function aimed(event: PointerEvent): void {
  const step = stepM(display.units)
  emit('at', Math.max(Math.round(depthAt(event) / step), 1) * step)
}

function depthAt(event: PointerEvent): number {
  const box = frame.value!.getBoundingClientRect()
  const depth = (event.clientY - box.top - TOP) / scale.value.down
  return Math.min(Math.max(depth, 0.15), props.view.bottom_m)
}

function grab(event: PointerEvent, rod: RodView): void {
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  emit('select', rod.id)
  drag.start(rod.id)
  hint.value = null
}

function move(event: PointerEvent, rod: RodView): void {
  if (drag.rodId.value !== rod.id) return
  hint.value = { x: 0, y: 0 }
  drag.to(depthAt(event))
}

function release(rod: RodView): void {
  if (drag.rodId.value !== rod.id) return
  // A tap is no drag: it only chooses the rod.
  if (hint.value === null) drag.cancel()
  else void drag.finish()
  hint.value = null
}

function key(event: KeyboardEvent, { rod, line }: Drawn): void {
  const steps: Record<string, number> = { ArrowUp: -1, ArrowDown: 1, PageUp: -5, PageDown: 5 }
  const step = steps[event.key]
  if (step !== undefined) {
    event.preventDefault()
    event.stopPropagation()
    if (drag.rodId.value !== rod.id) drag.start(rod.id)
    const size = stepM(display.units)
    const next = Math.round(line.depth_m / size) * size + step * size
    drag.to(Math.min(Math.max(next, size / 2), props.view.bottom_m))
  } else if (event.key === 'Enter' && drag.rodId.value === rod.id) {
    void drag.finish()
  } else if (event.key === 'Escape') {
    drag.cancel()
  }
}

const flag = (item: Drawn): string => {
  if ((item.line.clearance_m ?? 0) < 0) return 'in the bottom'
  return item.line.at_surface ? 'at the surface' : ''
}
watch(labels, (now) => (seated = now), { flush: 'post' })
</script>

<template>
  <div ref="frame" class="column drawn-words" data-test="water-column">
    <svg v-if="width > 0" :width="width" :height="height" role="group" aria-label="Water column from the side">
      <defs>
        <pattern id="mark-hatch" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="5" height="5" fill="var(--water)" />
          <rect width="2.4" height="5" fill="var(--ink)" />
        </pattern>
        <pattern id="bed-grain" width="14" height="8" patternUnits="userSpaceOnUse">
          <rect width="14" height="8" fill="var(--bed)" />
          <path d="M1 3h4M8 6h4" stroke="var(--ink-2)" stroke-width="1" />
        </pattern>
      </defs>

      <rect x="0" :y="TOP" :width="width" :height="Math.max(bottomY - TOP, 0)" fill="var(--water)" />
      <g v-for="(layer, i) in view.comfort.layers" :key="layer.top_m" data-test="comfort">
        <rect
          :x="LEFT"
          :y="y(layer.top_m)"
          :width="width - LEFT - RIGHT"
          :height="Math.max(y(layer.base_m) - y(layer.top_m), 2)"
          fill="var(--comfort)"
        />
        <line :x1="LEFT" :x2="width - RIGHT" :y1="y(layer.base_m)" :y2="y(layer.base_m)" class="comfort-edge" />
        <text v-if="bandX[i] !== null" :x="bandX[i]!" :y="bandY(layer.base_m) + 4" class="small">{{ bandWords }}</text>
      </g>
      <g v-for="tick in depthTicks" :key="tick">
        <line :x1="LEFT" :x2="width - RIGHT" :y1="y(tick)" :y2="y(tick)" class="tick" />
        <text v-if="y(tick) < bottomY - 8" :x="LEFT - 6" :y="y(tick) + 4" class="small end">
          {{ formatLength(tick, display.units, false) }}
        </text>
      </g>
      <BedProfile :view="view" :x="x" :y="y" :width="width" :height="height" :left="LEFT" :stretch="scale.stretch" :narrow="narrow" />
      <TemperatureEdge :view="view" :y="y" />

      <line x1="0" :x2="width" :y1="TOP" :y2="TOP" class="surface" />
      <path
        :d="`M${sternX} ${TOP - 13} L${sternX + boatPx + 8} ${TOP - 16} L${sternX + boatPx - 6} ${TOP + 4} L${sternX + 3} ${TOP + 4} Z`"
        class="boat"
      />
      <path :d="`M${sternX - 4} ${TOP - 2} l-26 -7 M${sternX - 4} ${TOP + 1} l-34 4`" class="wake" />

      <g v-for="item in drawn" :key="item.rod.id">
        <path
          v-for="(points, i) in item.line.paths"
          :key="i"
          :d="path(points)"
          class="line"
          :class="{ cable: item.rod.on_cable && i === 0, chosen: selected === item.rod.id }"
          :stroke="rodColour(rodIndex(item.rod.id))"
        />
        <circle
          v-if="item.line.ball_depth_m != null"
          :cx="x(item.line.ball_trail_m ?? 0)"
          :cy="y(item.line.ball_depth_m)"
          r="4.5"
          class="ball"
        />
      </g>

      <line v-if="level" :x1="LEFT" :x2="width - RIGHT" :y1="y(level)" :y2="y(level)" class="level" data-test="level" />
      <g v-for="item in drawn" :key="`label-${item.rod.id}`" class="tag" aria-hidden="true">
        <line
          :x1="x(item.line.trail_m)"
          :y1="y(item.line.depth_m)"
          :x2="tie(item.rod.id, item).x"
          :y2="tie(item.rod.id, item).y"
          class="leader"
        />
        <text :x="labels.get(item.rod.id)!.x0" :y="labels.get(item.rod.id)!.y1 - 4" :class="{ strong: selected === item.rod.id }">
          {{ item.line.at_surface ? 'surface' : formatDepth(item.line, display.units) }}
          <tspan v-if="flag(item) && !item.line.at_surface" class="alarm">{{ flag(item) }}</tspan>
        </text>
      </g>

      <g
        v-for="item in drawn"
        :key="`lure-${item.rod.id}`"
        class="lure"
        tabindex="0"
        role="slider"
        :data-test="`lure-${item.rod.id}`"
        :data-depth="item.line.depth_m"
        :aria-label="`${item.rod.name} lure depth`"
        :aria-valuenow="Math.round(lengthFromM(item.line.depth_m, display.units))"
        aria-valuemin="0"
        :aria-valuemax="Math.round(lengthFromM(view.bottom_m, display.units))"
        :aria-valuetext="formatDepth(item.line, display.units)"
        @pointerdown="grab($event, item.rod)"
        @pointermove="move($event, item.rod)"
        @pointerup="release(item.rod)"
        @pointercancel="drag.cancel()"
        @keydown="key($event, item)"
        @focus="emit('select', item.rod.id)"
      >
        <rect
          v-if="item.line.shallow_m !== null && item.line.deep_m !== null"
          :x="x(item.line.trail_m) - 4"
          :y="y(item.line.shallow_m)"
          width="8"
          rx="4"
          :height="Math.max((item.line.deep_m - item.line.shallow_m) * scale.down, 6)"
          class="doubt"
          :fill="rodColour(rodIndex(item.rod.id))"
        />
        <circle :cx="x(item.line.trail_m)" :cy="y(item.line.depth_m)" r="28" fill="transparent" />
        <g
          :transform="`translate(${x(item.line.trail_m)} ${y(item.line.depth_m)}) scale(${selected === item.rod.id ? 9.5 : 7.5})`"
          class="shape"
        >
          <circle v-if="item.rod.shape === 'circle'" r="0.95" :fill="rodColour(rodIndex(item.rod.id))" />
          <polygon v-else :points="SHAPE_POINTS[item.rod.shape]" :fill="rodColour(rodIndex(item.rod.id))" />
        </g>
      </g>

      <rect
        v-if="aim"
        :x="LEFT"
        :y="TOP"
        :width="Math.max(width - LEFT, 0)"
        :height="Math.max(bottomY - TOP, 0)"
        class="aim"
        data-test="aim"
        @click="aimed($event as PointerEvent)"
      />
      <MarkLane
        v-if="!aim"
        :view="view"
        :y="y"
        :width="width"
        :lane="RIGHT"
        :narrow="narrow"
        :base="bottomY"
        @mark="emit('mark', $event)"
      />
      <text :x="width - 4" :y="TOP - 10" class="small end">marks</text>
      <text x="2" :y="TOP - 10" class="small">{{ display.units.temperature }}</text>
    </svg>

    <div v-if="drag.rodId.value && (drag.line.value || drag.problem.value)" class="readout" role="status" data-test="drag-readout">
      <template v-if="drag.line.value">
        <div class="figure big">{{ formatNumber(drag.line.value.number, display.units) }}</div>
        <div>puts it at {{ formatDepth(drag.line.value, display.units) }}</div>
      </template>
      <div v-if="drag.problem.value" class="alarm" data-test="drag-problem">{{ drag.problem.value }}</div>
    </div>
    <p v-if="drawn.length === 0" class="empty">No line is out. Set a rod below: choose it, then type its depth.</p>
  </div>
</template>

<style scoped>
.level {
  stroke: var(--now);
  stroke-width: 3;
  stroke-dasharray: 10 6;
}
.column {
  position: relative;
  width: 100%;
  height: 100%;
  min-height: 260px;
  overflow: hidden;
  background: var(--frost);
}
svg {
  /* Out of the flow: its size follows the frame's and must not push it. */
  position: absolute;
  inset: 0;
  display: block;
  touch-action: pan-y;
  user-select: none;
}
.tick {
  stroke: var(--line);
  stroke-width: 1;
  stroke-dasharray: 1 5;
}
.aim {
  fill: transparent;
  stroke: var(--now);
  stroke-width: 3;
  cursor: crosshair;
}
.comfort-edge {
  stroke: var(--ink-2);
  stroke-dasharray: 6 4;
}
.surface {
  stroke: var(--ink);
  stroke-width: 1.5;
}
.boat {
  fill: var(--ink);
}
.wake,
.leader {
  stroke: var(--ink-2);
  fill: none;
}
.line {
  fill: none;
  stroke-width: 2;
}
.line.cable {
  stroke-width: 1.2;
  stroke-dasharray: 4 2;
}
.line.chosen {
  stroke-width: 3.5;
}
.ball {
  fill: var(--ink);
}
.lure {
  cursor: ns-resize;
  touch-action: none;
}
.shape {
  stroke: var(--ink);
  stroke-width: 0.17;
}
.doubt {
  opacity: 0.38;
}
.alarm {
  fill: var(--now);
  color: var(--now);
  font-weight: 700;
}
.readout {
  position: absolute;
  left: 50%;
  top: 8px;
  transform: translateX(-50%);
  padding: 8px 14px;
  background: var(--frost);
  border: 2px solid var(--ink);
  border-radius: 4px;
  text-align: center;
  pointer-events: none;
}
.big {
  font-size: 26px;
  margin-bottom: 4px;
}
.empty {
  position: absolute;
  inset: auto 12px 45% 84px;
  text-align: center;
  background: var(--water);
}
</style>
