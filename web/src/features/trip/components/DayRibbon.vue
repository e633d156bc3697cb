<script setup lang="ts">
// The ribbon of the day: surface temperature, light, bites and moves from first light to dark.
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { formatTemperature, temperatureFromC } from '@/shared/units/units'
import type { FishView, TripDocument } from '../api'
import { formatClock } from '../logic/format'
import { tickStep } from '../logic/scale'
import { SHAPE_POINTS, rodColour } from '../logic/shapes'

const props = defineProps<{ view: FishView; trip: TripDocument; nowS: number; rodIndex: (id: string) => number }>()
const emit = defineEmits<{ temperature: [] }>()

const display = useDisplayStore()
const frame = useTemplateRef<HTMLElement>('frame')
const { width, height } = useElementSize(frame)
const LEFT = 42
const RIGHT = 10

/** A day and a night: a trip that nobody ended goes on for months. */
const LONGEST_S = 30 * 3600
const span = computed(() => {
  const first = Math.min(props.trip.sun.first_light_s, props.view.temperatures[0]?.at_s ?? Infinity)
  const last = Math.max(props.trip.sun.dark_s, Math.min(props.nowS, first + LONGEST_S))
  return { first, last }
})
const x = (atS: number): number => LEFT + ((atS - span.value.first) / (span.value.last - span.value.first)) * (width.value - LEFT - RIGHT)
const plotBase = computed(() => height.value - 17)
/** The surface as it was planned, as far as the ribbon goes. */
const planned = computed(() => (props.view.day?.planned ?? []).filter((p) => p.at_s >= span.value.first && p.at_s <= span.value.last))
const path = (points: readonly { at_s: number; temperature_degc: number }[]): string =>
  points.map((p, i) => `${i ? 'L' : 'M'}${x(p.at_s).toFixed(1)} ${y(p.temperature_degc).toFixed(1)}`).join('')
const expected = computed(() => (props.view.day?.expected ?? []).filter((p) => p.at_s <= span.value.last))
const range = computed(() => {
  const values = [...props.view.temperatures, ...planned.value, ...(props.view.day?.expected ?? [])].map((point) => point.temperature_degc)
  const low = Math.min(...values)
  const high = Math.max(...values)
  const pad = Math.max(0.4, (1.5 - (high - low)) / 2)
  return { low: low - pad, high: high + pad }
})
const y = (degc: number): number => {
  const { low, high } = range.value
  return plotBase.value - ((degc - low) / (high - low)) * (plotBase.value - 20)
}
const line = computed(() => path(props.view.temperatures))
const gridTemperatures = computed(() => {
  if (!props.view.temperatures.length && !planned.value.length) return []
  const low = temperatureFromC(range.value.low, display.units)
  const high = temperatureFromC(range.value.high, display.units)
  // As many as can be read one above the other.
  const step = Math.max(tickStep(high - low, (plotBase.value - 20) / 15), 1)
  const list: number[] = []
  for (let value = Math.ceil(low / step) * step; value <= high; value += step) list.push(value)
  return list.map((value) => ({ value, at: plotBase.value - ((value - low) / (high - low)) * (plotBase.value - 20) }))
})
const hours = computed(() => {
  const offset = props.trip.utc_offset_min * 60
  const every = width.value < 500 ? 3 : 1
  const list: number[] = []
  for (let hour = Math.ceil((span.value.first + offset) / 3600); hour * 3600 - offset <= span.value.last; hour += 1) {
    if (hour % every === 0) list.push(hour * 3600 - offset)
  }
  return list
})
const rodOf = (id: string | null) => props.view.rods.find((rod) => rod.id === id)
const bites = computed(() => props.view.ribbon.filter((mark) => !mark.kind.startsWith('move')))
const moves = computed(() => props.view.ribbon.filter((mark) => mark.kind === 'move_taken'))
</script>

<template>
  <section ref="frame" class="ribbon" aria-label="Ribbon of the day" data-test="ribbon" :data-temperatures="view.temperatures.length">
    <svg v-if="width > 0" :width="width" :height="height" role="img" aria-label="Surface temperature, bites and moves of the day">
      <rect :x="x(span.first)" y="0" :width="Math.max(x(trip.sun.sunrise_s) - x(span.first), 0)" :height="plotBase" class="dusk" />
      <rect :x="x(trip.sun.sunset_s)" y="0" :width="Math.max(x(span.last) - x(trip.sun.sunset_s), 0)" :height="plotBase" class="dusk" />
      <g v-for="grid in gridTemperatures" :key="grid.value">
        <line :x1="LEFT" :x2="width - RIGHT" :y1="grid.at" :y2="grid.at" class="grid" />
        <text :x="LEFT - 5" :y="grid.at + 4" class="end">{{ grid.value }}°</text>
      </g>
      <g v-for="hour in hours" :key="hour">
        <line :x1="x(hour)" :x2="x(hour)" :y1="plotBase" :y2="plotBase + 4" class="axis" />
        <text :x="x(hour)" :y="height - 2" class="middle">{{ formatClock(hour, trip.utc_offset_min).slice(0, 2) }}</text>
      </g>
      <line :x1="LEFT" :x2="width - RIGHT" :y1="plotBase" :y2="plotBase" class="axis" />
      <g v-for="phase in view.day?.phases ?? []" :key="`p${phase.from_s}`">
        <rect :x="x(phase.from_s)" :y="plotBase - 3" :width="Math.max(x(phase.to_s) - x(phase.from_s) - 2, 0)" height="3" class="phase" />
        <title>{{ phase.name }} from {{ formatClock(phase.from_s, trip.utc_offset_min) }}</title>
      </g>
      <path v-if="planned.length" :d="path(planned)" class="planned" data-test="ribbon-planned"><title>as planned</title></path>
      <path v-if="expected.length" :d="path(expected)" class="expected"><title>as expected from here on</title></path>
      <path :d="line" class="temperature" />
      <circle
        v-for="point in view.temperatures"
        :key="point.at_s"
        :cx="x(point.at_s)"
        :cy="y(point.temperature_degc)"
        r="3.2"
        class="reading"
      />
      <g v-for="move in moves" :key="`m${move.at_s}`">
        <line :x1="x(move.at_s)" :x2="x(move.at_s)" y1="12" :y2="plotBase" class="moved" />
        <title>{{ move.text }}</title>
      </g>
      <g
        v-for="bite in bites"
        :key="`${bite.at_s}${bite.kind}`"
        :transform="`translate(${x(bite.at_s)} 10) scale(${bite.kind === 'landed' ? 7.5 : 5})`"
        class="bite"
        :class="bite.kind"
      >
        <circle v-if="rodOf(bite.rod_id)?.shape === 'circle'" r="0.95" :fill="rodColour(rodIndex(bite.rod_id ?? ''))" />
        <polygon v-else :points="SHAPE_POINTS[rodOf(bite.rod_id)?.shape ?? 'square']" :fill="rodColour(rodIndex(bite.rod_id ?? ''))" />
        <title>{{ rodOf(bite.rod_id)?.name }}: {{ bite.kind }} at {{ formatClock(bite.at_s, trip.utc_offset_min) }}</title>
      </g>
      <line v-if="nowS <= span.last" :x1="x(nowS)" :x2="x(nowS)" y1="0" :y2="plotBase" class="now" />
      <text
        v-if="view.temperatures.length"
        :x="Math.min(x(Math.min(nowS, span.last)) + 6, width - 70)"
        :y="Math.max(y(view.temperatures.at(-1)!.temperature_degc) - 5, 28)"
        class="strong"
      >
        {{ formatTemperature(view.temperatures.at(-1)!.temperature_degc, display.units) }}
      </text>
    </svg>
    <button v-if="!view.temperatures.length" class="start" @click="emit('temperature')">
      Enter the surface temperature to begin the ribbon of the day
    </button>
  </section>
</template>

<style scoped>
.ribbon {
  position: relative;
  height: 76px;
  flex: none;
  background: var(--frost);
  overflow: hidden;
}
.dusk {
  fill: var(--comfort);
}
.grid {
  stroke: var(--line);
  stroke-width: 0.8;
}
.axis {
  stroke: var(--ink-2);
}
.planned {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.4;
  stroke-dasharray: 2 4;
}
.expected {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
  stroke-dasharray: 7 4;
}
.phase {
  fill: var(--ink-2);
}
text {
  font-size: 12px;
  fill: var(--ink);
}
.end {
  text-anchor: end;
}
.middle {
  text-anchor: middle;
}
.strong {
  font-weight: 720;
  font-size: 14px;
  paint-order: stroke;
  stroke: var(--frost);
  stroke-width: 4px;
}
.temperature {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.reading {
  fill: var(--frost);
  stroke: var(--ink);
  stroke-width: 2;
}
.now {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 2 3;
}
.moved {
  stroke: var(--ink-2);
  stroke-width: 1.5;
}
.bite {
  stroke: var(--ink);
  stroke-width: 0.2;
}
.bite.hit {
  fill-opacity: 0.35;
}
.start {
  position: absolute;
  inset: 20px;
  color: var(--ink);
}
</style>
