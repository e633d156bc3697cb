<script setup lang="ts">
// A boat from above, to scale: where rods, riggers and board clips stand. With `movable` they are dragged there.
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, lengthFromM, lengthToM } from '@/shared/units/units'
import { beamOf, hullPath } from '../logic/hull'

/** A place on the boat, as far as a drawing goes. */
export interface DrawnPlace {
  id: string
  name: string
  kind: 'holder' | 'downrigger' | 'board'
  side_m: number
  aft_m: number
}
const props = defineProps<{ lengthM: number; places: DrawnPlace[]; movable?: boolean; selected?: string | null }>()
const emit = defineEmits<{ move: [id: string, sideM: number, aftM: number]; select: [id: string] }>()

const display = useDisplayStore()
const frame = useTemplateRef<HTMLElement>('frame')
const { width, height } = useElementSize(frame)

/** Boards run far outside a picture that shows the boat: each side has a strip of another scale for them, their line broken. */
const BOARDS_M = [4, 46] as const
const EDGE_M = 4.2
const boards = computed(() => props.places.some((place) => place.kind === 'board'))
const reach = computed(() => Math.max(...props.places.filter((p) => p.kind !== 'board').map((p) => Math.abs(p.side_m)), 1.6) + 1.1)
const scale = computed(() => {
  const aft = Math.max(...props.places.map((p) => p.aft_m), 0.5) + 0.9
  return Math.max(
    Math.min((height.value - 16) / (props.lengthM + aft + 0.3), (width.value * (boards.value ? 0.4 : 0.5)) / Math.min(reach.value, EDGE_M)),
    1,
  )
})
const middle = computed(() => width.value / 2)
/** What the boat and its rods leave of the width. */
const strip = computed(() => Math.max(middle.value - 22 - (Math.min(reach.value, EDGE_M) - 0.6) * scale.value, 4))
const transomY = computed(() => 10 + (props.lengthM + 0.2) * scale.value)
const edge = computed(() => middle.value - 22)
function x(place: DrawnPlace): number {
  const off = Math.abs(place.side_m)
  const [near, far] = BOARDS_M
  const along = Math.min(Math.max((off - near) / (far - near), 0), 1)
  return (
    middle.value +
    Math.sign(place.side_m) * (place.kind === 'board' ? edge.value - strip.value * (1 - along) : Math.min(off * scale.value, edge.value))
  )
}
/** What `x` draws there. */
function sideAt(px: number, kind: DrawnPlace['kind']): number {
  const off = px - middle.value
  if (kind !== 'board') return stepped(off / scale.value, kind)
  const along = Math.min(Math.max(1 - (edge.value - Math.abs(off)) / strip.value, 0), 1)
  return Math.sign(off) * stepped(BOARDS_M[0] + along * (BOARDS_M[1] - BOARDS_M[0]), kind)
}
const y = (place: DrawnPlace): number => transomY.value + place.aft_m * scale.value
const hull = computed(() => {
  const long = props.lengthM * scale.value
  return hullPath(long, middle.value, transomY.value, beamOf(long, props.lengthM))
})

const dragging = ref<string | null>(null)
/** A hand sets a place to a quarter of a foot, or five centimetres; a board's clip to five feet, or a metre. */
function stepOf(kind: DrawnPlace['kind']): number {
  const feet = display.units.length === 'ft'
  if (kind === 'board') return feet ? 5 : 1
  return feet ? 0.25 : 0.05
}
function stepped(metres: number, kind: DrawnPlace['kind'], step = stepOf(kind)): number {
  return lengthToM(Math.round(lengthFromM(metres, display.units) / step) * step, display.units)
}
function down(event: PointerEvent, place: DrawnPlace): void {
  emit('select', place.id)
  if (!props.movable) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  dragging.value = place.id
}
function move(event: PointerEvent, place: DrawnPlace): void {
  if (dragging.value !== place.id) return
  const box = frame.value!.getBoundingClientRect()
  emit(
    'move',
    place.id,
    sideAt(event.clientX - box.left, place.kind),
    stepped((event.clientY - box.top - transomY.value) / scale.value, 'holder'),
  )
}
function key(event: KeyboardEvent, place: DrawnPlace): void {
  const [side, aft] = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key] ?? [0, 0]
  if (!props.movable || (!side && !aft)) return
  event.preventDefault()
  const by = (kind: DrawnPlace['kind']): number => lengthToM(stepOf(kind), display.units)
  emit('move', place.id, stepped(place.side_m + side! * by(place.kind), place.kind), stepped(place.aft_m + aft! * by('holder'), 'holder'))
}
const told = (place: DrawnPlace): string =>
  `${place.name}: ${formatLength(Math.abs(place.side_m), display.units)} to ${place.side_m < 0 ? 'port' : 'starboard'}`
</script>

<template>
  <div ref="frame" class="boat-above">
    <svg v-if="width > 0" :width="width" :height="height" :role="movable ? 'group' : 'img'" aria-label="The boat from above">
      <path :d="hull" class="hull" />
      <line :x1="middle" :x2="middle" :y1="transomY - lengthM * scale * 0.86" :y2="transomY - 6" class="keel" />
      <g
        v-for="place in places"
        :key="place.id"
        class="place"
        :class="{ chosen: selected === place.id, movable }"
        :tabindex="movable ? 0 : undefined"
        :role="movable ? 'button' : undefined"
        :aria-label="movable ? told(place) : undefined"
        :data-test="`above-${place.id}`"
        @pointerdown="down($event, place)"
        @pointermove="move($event, place)"
        @pointerup="dragging = null"
        @pointercancel="dragging = null"
        @keydown="key($event, place)"
      >
        <line
          :x1="middle + Math.sign(place.side_m) * Math.min(lengthM * scale * 0.15, Math.abs(x(place) - middle))"
          :x2="x(place)"
          :y1="Math.min(y(place), transomY - 4)"
          :y2="y(place)"
          :class="{ broken: place.kind === 'board' }"
          class="arm"
        />
        <rect v-if="place.kind === 'downrigger'" :x="x(place) - 7" :y="y(place) - 7" width="14" height="14" class="mark" />
        <path v-else-if="place.kind === 'board'" :d="`M${x(place) - 5} ${y(place) + 11}v-16l5 -7 5 7v16z`" class="mark" />
        <circle v-else :cx="x(place)" :cy="y(place)" r="7" class="mark hollow" />
        <circle :cx="x(place)" :cy="y(place)" r="22" fill="transparent" />
        <text v-if="place.kind === 'board'" :x="x(place)" :y="y(place) + 28" text-anchor="middle">
          {{ formatLength(Math.abs(place.side_m), display.units) }}
        </text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.boat-above {
  min-height: 120px;
  overflow: hidden;
}
.hull {
  fill: var(--frost);
  stroke: var(--ink);
  stroke-width: 2;
}
.keel {
  stroke: var(--line);
}
.arm {
  stroke: var(--ink-2);
  stroke-width: 2;
}
.broken {
  stroke-dasharray: 3 5;
}
.mark {
  fill: var(--ink);
  stroke: var(--ink);
  stroke-width: 2;
}
.hollow {
  fill: var(--frost);
}
.movable {
  cursor: grab;
  touch-action: none;
}
.place.chosen .mark {
  stroke-width: 5;
}
.place:focus-visible .mark {
  stroke-width: 5;
}
text {
  font-size: 12px;
  font-weight: 620;
  fill: var(--ink);
}
</style>
