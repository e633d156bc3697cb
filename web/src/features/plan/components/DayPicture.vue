<script setup lang="ts">
// The day by hours: light and cloud, wind, the column's temperature over depth, and the phases, on one clock.
// Cloud and wind are drawn with a finger; everything else follows from them.
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef, watchEffect } from 'vue'
import { formatClock } from '@/features/trip/logic/format'
import { cividis } from '@/features/trip/logic/scale'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed, formatTemperature, lengthFromM, lengthToM, speedFromMps, speedToMps, temperatureFromC } from '@/shared/units/units'
import type { DayTried, Phase, WeatherHour } from '../api'
import { bandPieces, depthShare, depthTicks, drawn, temperatureAt } from '../logic/picture'

const props = defineProps<{
  day: DayTried
  weather?: readonly WeatherHour[] | null
  deepestM: number
  nowS?: number | null
  fixed?: boolean
}>()
const emit = defineEmits<{ draw: [what: 'wind_mps' | 'cloud', values: number[], done: boolean] }>()
const chosen = defineModel<number>('hour', { default: 9 })

const display = useDisplayStore()
const frame = useTemplateRef<HTMLElement>('frame')
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const { width, height } = useElementSize(frame)
const LEFT = 50
const RIGHT = 12
const SKY = { top: 16, base: 66 }
const WIND = { top: 84, base: 132 }
const MOST_WIND = 10
const PHASES = 40

const hours = computed(() => props.day.view.hours)
/** What is drawn stands under the finger at once; the rest of the picture follows it. */
const weather = computed(() => (props.weather?.length === hours.value.length ? props.weather : props.day.hours))
const first = computed(() => hours.value[0]!.at_s)
const last = computed(() => hours.value.at(-1)!.at_s)
const x = (atS: number): number => LEFT + ((atS - first.value) / (last.value - first.value)) * (width.value - LEFT - RIGHT)
const column = computed(() => ({ top: 152, base: Math.max(height.value - PHASES - 22, 200) }))
const y = (depthM: number): number => column.value.top + depthShare(depthM, props.deepestM) * (column.value.base - column.value.top)
const step = computed(() => (width.value - LEFT - RIGHT) / (hours.value.length - 1))
const clock = (atS: number) => formatClock(atS, props.day.utc_offset_min)

// The ends of the scale stay for the day, so that a colour means one temperature along the whole picture.
const range = computed(() => {
  const all = hours.value.flatMap((hour) => hour.profile_degc)
  const low = Math.min(...all)
  return { low, span: Math.max(Math.max(...all) - low, 3) }
})

watchEffect(() => {
  const target = canvas.value?.getContext?.('2d')
  if (!target || width.value === 0) return
  const [across, down] = [96, 64]
  canvas.value!.width = across
  canvas.value!.height = down
  const picture = target.createImageData(across, down)
  for (let row = 0; row < down; row += 1) {
    const depth = ((row + 0.5) / down) ** 2 * props.deepestM
    for (let i = 0; i < across; i += 1) {
      const degc = temperatureAt(props.day.view, i / (across - 1), depth)
      const colour = cividis((degc - range.value.low) / range.value.span)
      const parts = colour.match(/\d+/g)!.map(Number)
      picture.data.set([parts[0]!, parts[1]!, parts[2]!, 255], 4 * (row * across + i))
    }
  }
  target.putImageData(picture, 0, 0)
})

const quads = (pieces: number[][]): string =>
  pieces.map(([x0, t0, b0, x1, t1, b1]) => `M${x(x0!)} ${y(t0!)}L${x(x1!)} ${y(t1!)}L${x(x1!)} ${y(b1!)}L${x(x0!)} ${y(b0!)}Z`).join('')
/** The edges of a band, upper and lower, without the joints between the hours. */
const edges = (pieces: number[][]): string =>
  pieces.map(([x0, t0, b0, x1, t1, b1]) => `M${x(x0!)} ${y(t0!)}L${x(x1!)} ${y(t1!)}M${x(x0!)} ${y(b0!)}L${x(x1!)} ${y(b1!)}`).join('')
const anglers = computed(() => bandPieces(hours.value, (hour) => hour.anglers))
const published = computed(() => bandPieces(hours.value, (hour) => hour.published))
const thermocline = computed(() =>
  hours.value
    .map((hour, i) =>
      hour.thermocline_m === null
        ? ''
        : `${i && hours.value[i - 1]!.thermocline_m !== null ? 'L' : 'M'}${x(hour.at_s)} ${y(hour.thermocline_m)}`,
    )
    .join(''),
)
const ticks = computed(() => depthTicks(lengthFromM(props.deepestM, display.units)))

const HIGHEST = 75
const sunLine = computed(() =>
  hours.value.map((hour) => `${x(hour.at_s)} ${SKY.base - (Math.max(hour.elevation_deg, 0) / HIGHEST) * (SKY.base - SKY.top)}`).join('L'),
)
const cloudArea = computed(
  () =>
    `M${x(first.value)} ${SKY.top}` +
    weather.value.map((hour) => `L${x(hour.at_s)} ${SKY.top + hour.cloud * (SKY.base - SKY.top)}`).join('') +
    `L${x(last.value)} ${SKY.top}Z`,
)
const windY = (mps: number): number => WIND.base - (Math.min(mps, MOST_WIND) / MOST_WIND) * (WIND.base - WIND.top)
const windLine = computed(() => weather.value.map((hour) => `${x(hour.at_s)} ${windY(hour.wind_mps)}`).join('L'))
const windTicks = computed(() => {
  const most = speedFromMps(MOST_WIND, display.units)
  const by = most > 30 ? 15 : 10
  return [by, 2 * by].filter((tick) => tick <= most)
})
const everyThird = computed(() => hours.value.filter((_, i) => i % 3 === 0))
const arrows = computed(() => weather.value.filter((_, i) => i % 3 === 0))

type Drawn = 'wind_mps' | 'cloud'
const from = ref<{ what: Drawn; hour: number; value: number } | null>(null)

function valueAt(what: Drawn, atY: number): number {
  const strip = what === 'cloud' ? SKY : WIND
  const share = Math.min(Math.max((atY - strip.top) / (strip.base - strip.top), 0), 1)
  return what === 'cloud' ? Math.round(share * 20) / 20 : Math.round((1 - share) * MOST_WIND * 4) / 4
}

function drag(what: Drawn, event: PointerEvent, phase: 'down' | 'move' | 'up'): void {
  if (props.fixed || (phase !== 'down' && from.value?.what !== what)) return
  const box = frame.value!.getBoundingClientRect()
  const hour = Math.min(Math.max(Math.round((event.clientX - box.left - LEFT) / step.value), 0), hours.value.length - 1)
  if (phase === 'down') (event.currentTarget as Element).setPointerCapture(event.pointerId)
  const to = { hour, value: valueAt(what, event.clientY - box.top) }
  const values = drawn(
    weather.value.map((item) => item[what]),
    phase === 'down' ? null : from.value,
    to,
  )
  from.value = phase === 'up' ? null : { what, ...to }
  chosen.value = hour
  emit('draw', what, values, phase === 'up')
}

/** By keys: left and right go through the hours, up and down change the one that is chosen. */
function key(what: Drawn, event: KeyboardEvent): void {
  const along = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
  const up = { ArrowUp: 1, ArrowDown: -1 }[event.key]
  if (along) chosen.value = Math.min(Math.max(chosen.value + along, 0), hours.value.length - 1)
  else if (up && !props.fixed) {
    const values = weather.value.map((hour) => hour[what])
    const changed = values[chosen.value]! + up * (what === 'cloud' ? 0.05 : 0.25)
    values[chosen.value] = Math.min(Math.max(changed, 0), what === 'cloud' ? 1 : MOST_WIND)
    emit('draw', what, values, true)
  } else return
  event.preventDefault()
}

function look(event: PointerEvent): void {
  const box = frame.value!.getBoundingClientRect()
  chosen.value = Math.min(Math.max(Math.round((event.clientX - box.left - LEFT) / step.value), 0), hours.value.length - 1)
}

const seen = computed(() => hours.value[Math.min(chosen.value, hours.value.length - 1)]!)
const air = computed(() => weather.value[Math.min(chosen.value, weather.value.length - 1)]!)
const phaseTitle = (phase: Phase) => (phase.falling ? 'Falling again' : phase.method.name)
const words = computed(
  () =>
    `At ${clock(seen.value.at_s)}: surface ${formatTemperature(seen.value.surface.middle, display.units)}, cloud ${Math.round(
      air.value.cloud * 100,
    )} %, wind ${formatSpeed(air.value.wind_mps, display.units)}`,
)
</script>

<template>
  <section ref="frame" class="picture" aria-label="The day by hours" data-test="day-picture" :data-phases="day.view.phases.length">
    <canvas
      ref="canvas"
      class="column"
      aria-hidden="true"
      :style="{ left: `${LEFT}px`, top: `${column.top}px`, width: `${width - LEFT - RIGHT}px`, height: `${column.base - column.top}px` }"
    />
    <svg v-if="width > 0" :width="width" :height="height" role="group" :aria-label="words">
      <defs>
        <pattern id="cloud" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(35)">
          <line x1="0" y1="0" x2="0" y2="7" class="cloud-line" />
        </pattern>
        <pattern id="band" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <line x1="0" y1="0" x2="0" y2="6" class="band-line" />
        </pattern>
      </defs>
      <rect
        v-for="side in [
          [first, day.sun.sunrise_s],
          [day.sun.sunset_s, last],
        ]"
        :key="side[0]"
        :x="x(side[0]!)"
        :y="SKY.top"
        :width="Math.max(x(side[1]!) - x(side[0]!), 0)"
        :height="WIND.base - SKY.top"
        class="night"
      />
      <text :x="LEFT" :y="SKY.top - 4" class="strip-name">sun, and cloud from above{{ fixed ? '' : ' (draw it)' }}</text>
      <path :d="`M${x(first)} ${SKY.base}L${sunLine}L${x(last)} ${SKY.base}Z`" class="sun" />
      <path :d="cloudArea" fill="url(#cloud)" class="cloud" />
      <text :x="LEFT" :y="WIND.top - 4" class="strip-name">wind, {{ display.units.speed }}{{ fixed ? '' : ' (draw it)' }}</text>
      <path :d="`M${x(first)} ${WIND.base}L${windLine}L${x(last)} ${WIND.base}Z`" class="wind" />
      <g v-for="tick in windTicks" :key="`w${tick}`">
        <line
          :x1="LEFT"
          :x2="width - RIGHT"
          :y1="windY(speedToMps(tick, display.units))"
          :y2="windY(speedToMps(tick, display.units))"
          class="grid"
        />
        <text :x="LEFT - 6" :y="windY(speedToMps(tick, display.units)) + 4" class="end">{{ tick }}</text>
      </g>
      <g
        v-for="hour in arrows"
        :key="`a${hour.at_s}`"
        :transform="`translate(${x(hour.at_s)} ${windY(hour.wind_mps) - 8}) rotate(${hour.wind_from_deg + 180})`"
      >
        <path d="M0 6L0 -6M-3.4 -1.5L0 -6L3.4 -1.5" class="arrow">
          <title>from {{ Math.round(hour.wind_from_deg) }}°</title>
        </path>
      </g>

      <path :d="quads(anglers)" fill="url(#band)" />
      <path :d="edges(anglers)" class="band-edge" />
      <path :d="edges(published)" class="published-edge" />
      <path :d="thermocline" class="thermocline" />
      <g v-for="tick in ticks" :key="tick">
        <line :x1="LEFT - 4" :x2="LEFT" :y1="y(lengthToM(tick, display.units))" :y2="y(lengthToM(tick, display.units))" class="axis" />
        <text :x="LEFT - 6" :y="y(lengthToM(tick, display.units)) + 4" class="end">{{ tick }}</text>
      </g>
      <text :x="LEFT - 6" :y="column.top + 4" class="end">{{ display.units.length }}</text>
      <g v-for="hour in everyThird" :key="`t${hour.at_s}`">
        <text :x="x(hour.at_s)" :y="column.top - 5" class="surface" :class="{ start: hour.at_s === first }">
          {{ Math.round(temperatureFromC(hour.surface.middle, display.units)) }}°
        </text>
        <text :x="x(hour.at_s)" :y="height - 4" class="hour" :class="{ start: hour.at_s === first }">
          {{ clock(hour.at_s).slice(0, 2) }}
        </text>
      </g>

      <g v-for="phase in day.view.phases" :key="phase.start_s" class="phase">
        <rect
          :x="x(phase.start_s) + 1"
          :y="column.base + 4"
          :width="Math.max(x(phase.end_s) - x(phase.start_s) - 2, 1)"
          :height="PHASES - 6"
          rx="2"
          :class="{ on: seen.at_s >= phase.start_s && seen.at_s < phase.end_s }"
        />
        <foreignObject
          :x="x(phase.start_s) + 6"
          :y="column.base + 4"
          :width="Math.max(x(phase.end_s) - x(phase.start_s) - 10, 1)"
          :height="PHASES - 6"
        >
          <div class="phase-name" :class="{ on: seen.at_s >= phase.start_s && seen.at_s < phase.end_s }">{{ phaseTitle(phase) }}</div>
        </foreignObject>
      </g>
      <line :x1="x(seen.at_s)" :x2="x(seen.at_s)" :y1="SKY.top" :y2="column.base + PHASES - 2" class="seen" />
      <line v-if="nowS" :x1="x(nowS)" :x2="x(nowS)" :y1="SKY.top" :y2="column.base + PHASES" class="now" />

      <rect
        :x="LEFT"
        :y="column.top"
        :width="width - LEFT - RIGHT"
        :height="column.base - column.top + PHASES"
        class="hand"
        @pointerdown="look"
        @pointermove="look"
      />
      <rect
        v-for="strip in [
          { what: 'cloud' as const, at: SKY, name: 'Cloud', now: Math.round(air.cloud * 100), most: 100 },
          { what: 'wind_mps' as const, at: WIND, name: 'Wind', now: Math.round(air.wind_mps * 100) / 100, most: MOST_WIND },
        ]"
        :key="strip.what"
        :x="LEFT"
        :y="strip.at.top - 8"
        :width="width - LEFT - RIGHT"
        :height="strip.at.base - strip.at.top + 14"
        class="hand"
        :class="{ pen: !fixed }"
        tabindex="0"
        role="slider"
        :aria-label="`${strip.name} at ${clock(seen.at_s)}`"
        aria-valuemin="0"
        :aria-valuemax="strip.most"
        :aria-valuenow="strip.now"
        :data-test="`draw-${strip.what}`"
        @pointerdown="drag(strip.what, $event, 'down')"
        @pointermove="drag(strip.what, $event, 'move')"
        @pointerup="drag(strip.what, $event, 'up')"
        @keydown="key(strip.what, $event)"
      />
    </svg>
  </section>
</template>

<style scoped>
.picture {
  position: relative;
  min-height: 420px;
  background: var(--frost);
  user-select: none;
}
canvas.column {
  position: absolute;
}
svg {
  position: absolute;
  inset: 0;
}
.night {
  fill: var(--comfort);
}
.sun {
  fill: var(--bed);
  stroke: var(--ink-2);
  stroke-width: 1;
}
.cloud {
  stroke: var(--ink);
  stroke-width: 1.2;
}
.cloud-line {
  stroke: var(--ink);
  stroke-width: 1.6;
}
.wind {
  fill: var(--line);
  stroke: var(--ink);
  stroke-width: 1.6;
}
.grid {
  stroke: var(--line);
  stroke-width: 0.8;
}
.axis {
  stroke: var(--ink-2);
}
.arrow {
  stroke: var(--ink);
  stroke-width: 1.8;
  fill: none;
}
.band-line {
  stroke: #fff;
  stroke-width: 2;
  opacity: 0.75;
}
.band-edge {
  fill: none;
  stroke: #fff;
  stroke-width: 2;
}
.published-edge {
  fill: none;
  stroke: #fff;
  stroke-width: 1.4;
  stroke-dasharray: 2 4;
}
.thermocline {
  fill: none;
  stroke: #fff;
  stroke-width: 1.2;
  stroke-dasharray: 9 4;
}
text {
  font-size: 12px;
  fill: var(--ink);
  font-weight: 600;
}
.strip-name {
  fill: var(--ink-2);
}
.end {
  text-anchor: end;
}
.hour,
.surface {
  text-anchor: middle;
}
.surface {
  font-size: 14px;
  font-weight: 720;
}
.start {
  text-anchor: start;
}
.phase rect {
  fill: var(--water);
  stroke: var(--line);
}
.phase rect.on {
  fill: var(--ink);
}
.phase-name {
  height: 100%;
  display: flex;
  align-items: center;
  font-size: 13px;
  line-height: 1.15;
  font-weight: 640;
  font-stretch: 88%;
  overflow: hidden;
  color: var(--ink);
}
.phase-name.on {
  color: var(--frost);
}
.seen {
  stroke: var(--ink);
  stroke-width: 1.2;
  stroke-dasharray: 1 3;
}
.now {
  stroke: var(--ink);
  stroke-width: 2.5;
}
.hand {
  fill: transparent;
}
.hand.pen {
  cursor: crosshair;
  touch-action: none;
}
.hand:focus-visible {
  outline: 3px solid var(--ink);
}
</style>
