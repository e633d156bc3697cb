<script setup lang="ts">
// A rod's chain to scale above a rule, the school's leader as a mark on it. The leader is dragged.
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import type { BenchView } from '@/features/trip/api'
import { tickStep } from '@/features/trip/logic/scale'
import { hooksOf, outlineOf } from '@/features/trip/logic/outlines'
import { useDisplayStore } from '@/shared/units/store'
import { fishLengthToM, fishLengthUnit, formatLength, tackleLengthFromM, tieStepM } from '@/shared/units/units'

const props = defineProps<{ bench: BenchView; colour: string }>()
const emit = defineEmits<{ leader: [metres: number]; open: [piece: 'lure' | 'attractor'] }>()

const display = useDisplayStore()
const frame = useTemplateRef<HTMLElement>('frame')
const { width } = useElementSize(frame)
const LEFT = 24
const RIGHT = 40
const LINE_Y = 108
const RULE_Y = 186
/** Bare, disc, leaf, small dodger, large blade: the ladder's rungs, in the core. */
const RUNG_COUNT = 5

// A long setback would shrink the last six feet to nothing: it is broken, and says so.
const parts = computed(() => props.bench.chain.filter((part) => !(part.kind === 'line' && part.length_m > 2.5) && part.kind !== 'clip'))
const broken = computed(() => props.bench.chain.find((part) => part.kind === 'line' && part.length_m > 2.5))
const end = computed(() => {
  const spans = props.bench.leader ? [props.bench.leader.high_m * 1.1 + 0.1] : []
  return Math.max(0.5, ...spans, ...parts.value.map((part) => part.from_m + part.length_m)) * 1.06
})
const scale = computed(() => (width.value - LEFT - RIGHT) / end.value)
const x = (metres: number): number => LEFT + metres * scale.value
const lureEnd = computed(() => props.bench.chain[0]?.length_m ?? 0)
const blade = computed(() => props.bench.chain.find((part) => part.kind === 'attractor'))
const ticks = computed(() => {
  const span = tackleLengthFromM(end.value - lureEnd.value, display.units)
  const step = tickStep(span, 9)
  return Array.from({ length: Math.floor(span / step) + 1 }, (_, i) => ({
    value: i * step,
    metres: lureEnd.value + fishLengthToM(i * step, display.units),
  }))
})
/** A part's outline at this scale: never thinner than a pencil draws. */
type Part = BenchView['chain'][number]
const wide = (part: Part): number => Math.max(part.length_m * scale.value, 10)
const outline = (part: Part) => outlineOf(part.outline ?? '', wide(part), Math.max((part.width_m ?? 0) * scale.value, 6), part.lip)
const clipped = computed(() => props.bench.chain.some((part) => part.kind === 'clip'))
/** The sway is shown as it looks from above and a little behind: foreshortened. */
const SHOWN_SWAY = 0.55
const ACTIONS: Record<string, string> = {
  swings: 'swings',
  turns: 'turns',
  hangs: 'hangs: too slow for it',
  rolls: 'rolls: too fast for it',
}
const action = computed(() => {
  const does = blade.value?.action
  return does ? `at this speed it ${ACTIONS[does]}` : ''
})

const LETTER_PX = 7.2
const ROW_PX = 16
/** Names above the line and below it, each in the first row where the one before has ended. */
const names = computed(() => {
  const ends: Record<'above' | 'below', number[]> = { above: [], below: [] }
  return parts.value.map((part, index) => {
    if (part.kind === 'line') return null
    const where = index % 2 ? 'above' : 'below'
    const length = (part.name.length + (part.kind === 'leader' ? 6 : 0)) * LETTER_PX
    const at = Math.max(Math.min(x(part.from_m) + 4, width.value - length), 4)
    const free = ends[where].findIndex((end) => end < at)
    const row = free < 0 ? ends[where].length : free
    ends[where][row] = at + length
    return { x: at, y: where === 'above' ? LINE_Y - 30 - row * ROW_PX : LINE_Y + 34 + row * ROW_PX }
  })
})
const short = (metres: number): string => `${Math.round(tackleLengthFromM(metres, display.units) * 2) / 2} ${fishLengthUnit(display.units)}`

const dragging = ref(false)
/** A press on the blade that drags nothing asks for another. */
let moved = false
function at(event: PointerEvent): number {
  const box = frame.value!.getBoundingClientRect()
  return Math.max((event.clientX - box.left - LEFT) / scale.value - lureEnd.value, 0)
}
function grab(event: PointerEvent): void {
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  dragging.value = true
  moved = false
}
function letGo(): void {
  dragging.value = false
  if (!moved) emit('open', 'attractor')
}
function move(event: PointerEvent): void {
  if (!dragging.value || (!moved && Math.abs(event.movementX) < 1)) return
  moved = true
  // To the half inch, or centimetre, that a hand can tie.
  const step = tieStepM(display.units)
  emit('leader', Math.min(Math.round(at(event) / step) * step, 3))
}
function key(event: KeyboardEvent): void {
  const steps: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageDown: -6, PageUp: 6 }
  const step = steps[event.key]
  if (step === undefined || !blade.value) return
  event.preventDefault()
  const now = blade.value.from_m - lureEnd.value
  emit('leader', Math.max(now + step * 2 * tieStepM(display.units), 0))
}
</script>

<template>
  <div ref="frame" class="frame" data-test="chain">
    <svg v-if="width > 0" :width="width" height="230" role="group" aria-label="The chain to scale">
      <line :x1="x(lureEnd)" :x2="width - 6" :y1="LINE_Y" :y2="LINE_Y" class="line" />
      <g v-for="(part, index) in parts" :key="index">
        <g
          v-if="part.kind === 'lure' || part.kind === 'attractor'"
          :transform="`translate(${x(part.from_m)} ${LINE_Y})`"
          class="piece"
          role="button"
          tabindex="0"
          :aria-label="`${part.name}: choose another`"
          :data-test="`other-${part.kind}`"
          @click="emit('open', part.kind)"
          @keydown.enter="emit('open', part.kind)"
        >
          <rect x="-6" y="-26" :width="wide(part) + 12" height="52" fill="transparent" />
          <template v-if="part.sway_deg">
            <path
              v-for="side in [-1, 1]"
              :key="side"
              :d="outline(part).body"
              :transform="`rotate(${side * part.sway_deg * SHOWN_SWAY} ${wide(part)} 0)`"
              class="swung"
            />
          </template>
          <g :class="part.kind" :transform="part.action === 'rolls' ? 'scale(1 0.35)' : undefined" :data-test="`outline-${part.outline}`">
            <path :d="outline(part).body" class="body" :fill="part.kind === 'lure' ? colour : undefined" />
            <path :d="outline(part).strokes" class="strokes" />
          </g>
          <path v-if="part.hook" :d="hooksOf(part.hook, (part.hook_from_tail_m ?? 0) * scale, wide(part))" class="hook" data-test="hooks" />
        </g>
        <path v-else-if="part.kind === 'weight'" :d="`M${x(part.from_m) - 11} ${LINE_Y}q11 -13 22 0q-11 13 -22 0Z`" class="weight" />
        <path v-else-if="part.kind === 'snubber'" :d="`M${x(part.from_m)} ${LINE_Y}l4-6 6 12 6-12 6 12 4-6`" class="snubber" />
        <text v-if="names[index]" :x="names[index]!.x" :y="names[index]!.y" class="name">
          {{ part.name }}
          <tspan v-if="part.kind === 'leader'" class="strong">{{ short(part.length_m) }}</tspan>
        </text>
      </g>
      <g
        v-if="!blade"
        :transform="`translate(${Math.min(x(lureEnd) + 70, width - 80)} ${LINE_Y})`"
        class="piece"
        role="button"
        tabindex="0"
        aria-label="Add an attractor"
        data-test="other-attractor"
        @click="emit('open', 'attractor')"
        @keydown.enter="emit('open', 'attractor')"
      >
        <rect x="-6" y="-28" width="120" height="56" fill="transparent" />
        <ellipse cx="28" cy="0" rx="28" ry="13" class="swung" />
        <text x="28" y="7" class="name add">+</text>
      </g>
      <g v-if="broken">
        <path :d="`M${width - 60} ${LINE_Y - 10}l8 20m4-20l8 20`" class="break" />
        <path v-if="clipped" :d="`M${width - 30} ${LINE_Y}l16 -7v5l-10 2 10 2v5Z`" class="weight" />
        <text :x="width - 8" :y="LINE_Y - 18" class="name end">
          {{ broken.name }} {{ formatLength(broken.length_m, display.units) }} more
        </text>
      </g>

      <g v-if="bench.leader" data-test="leader-span">
        <rect
          :x="x(lureEnd + bench.leader.low_m)"
          :y="RULE_Y - 17"
          :width="(bench.leader.high_m - bench.leader.low_m) * scale"
          height="17"
          class="span"
        />
        <line
          :x1="x(lureEnd + bench.leader.start_m)"
          :x2="x(lureEnd + bench.leader.start_m)"
          :y1="RULE_Y - 22"
          :y2="RULE_Y"
          class="start"
        />
      </g>
      <g class="mood" :transform="`translate(${LEFT} 18)`" data-test="mood">
        <text x="0" y="4" class="name">calm</text>
        <g v-for="rung in RUNG_COUNT" :key="rung">
          <circle :cx="36 + rung * 20" cy="0" :r="rung - 1 === bench.mood.rung ? 8 : 4.5" :class="{ here: rung - 1 === bench.mood.rung }" />
        </g>
        <text :x="36 + (RUNG_COUNT + 1) * 20 - 4" y="4" class="name">wild</text>
        <text :x="36 + (RUNG_COUNT + 1) * 20 + 38" y="4" class="name strong">{{ bench.rung }}</text>
      </g>
      <text v-if="action" :x="width - 10" y="22" class="name end" :class="{ wrong: blade?.action === 'rolls' }" data-test="blade-action">
        {{ action }}
      </text>
      <line :x1="LEFT" :x2="width - RIGHT" :y1="RULE_Y" :y2="RULE_Y" class="rule" />
      <g v-for="tick in ticks" :key="tick.value">
        <line :x1="x(tick.metres)" :x2="x(tick.metres)" :y1="RULE_Y" :y2="RULE_Y + 7" class="rule" />
        <text :x="x(tick.metres)" :y="RULE_Y + 22" class="tick">{{ tick.value }}</text>
      </g>
      <text :x="width - 8" :y="RULE_Y + 22" class="tick end">{{ fishLengthUnit(display.units) }}</text>
      <g
        v-if="blade"
        class="handle"
        tabindex="0"
        role="slider"
        aria-label="Leader"
        aria-valuemin="0"
        :aria-valuenow="Math.round(tackleLengthFromM(blade.from_m - lureEnd, display.units))"
        :aria-valuetext="short(blade.from_m - lureEnd)"
        data-test="leader-handle"
        @pointerdown="grab"
        @pointermove="move"
        @pointerup="letGo"
        @pointercancel="dragging = false"
        @keydown="key"
      >
        <rect :x="x(blade.from_m) - 28" :y="LINE_Y - 28" width="56" height="56" fill="transparent" />
        <path :d="`M${x(blade.from_m)} ${LINE_Y - 20}v${RULE_Y - LINE_Y + 16}`" class="grip" />
        <circle :cx="x(blade.from_m)" :cy="LINE_Y" r="7" class="knob" />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.frame {
  background: var(--water);
}
.line,
.rule,
.grip,
.break,
.snubber {
  stroke: var(--ink);
  stroke-width: 1.5;
  fill: none;
}
.grip {
  stroke-dasharray: 3 3;
}
.body,
.weight,
.knob {
  stroke: var(--ink);
  stroke-width: 1.5;
  stroke-linejoin: round;
}
.attractor .body {
  fill: var(--frost);
}
.strokes,
.hook {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.3;
  stroke-linecap: round;
}
.swung {
  fill: none;
  stroke: var(--ink-2);
  stroke-dasharray: 3 4;
}
.piece {
  cursor: pointer;
}
.add {
  font-size: 20px;
  text-anchor: middle;
}
.mood circle {
  fill: var(--frost);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.mood circle.here {
  fill: var(--ink);
}
.wrong {
  fill: var(--now);
  font-weight: 760;
}
.weight {
  fill: var(--ink);
}
.knob {
  fill: var(--frost);
  stroke-width: 3;
}
.handle {
  cursor: ew-resize;
  touch-action: none;
}
.span {
  fill: var(--comfort);
  stroke: var(--ink-2);
}
.start {
  stroke: var(--ink);
  stroke-width: 3;
}
.name,
.tick {
  fill: var(--ink);
  font-size: 13px;
  font-weight: 560;
}
.tick {
  text-anchor: middle;
  font-size: 12px;
}
.end {
  text-anchor: end;
}
.strong {
  font-weight: 760;
}
</style>
