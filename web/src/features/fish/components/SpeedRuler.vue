<script setup lang="ts">
// One axis of speed: every rod's working range as a bar, the shared window, the speed now.
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'
import NumberStepper from '@/shared/ui/NumberStepper.vue'
import { parseNumber } from '@/shared/units/parse'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed, speedFromMps, speedToMps } from '@/shared/units/units'
import type { FishView, RodLine } from '@/features/trip/api'
import { SHAPE_POINTS, rodColour } from '@/features/trip/logic/shapes'
import RodShape from '@/features/trip/components/RodShape.vue'
import { mostOnAxis, useSpeedDrag } from '../composables/useSpeedDrag'

const props = defineProps<{
  view: FishView
  /** A speed that is being tried, and the lines at it. */
  tried: number | null
  preview: RodLine[] | null
  rodIndex: (id: string) => number
}>()
const emit = defineEmits<{ try: [speedMps: number]; letGo: []; set: [speedMps: number]; bad: [text: string]; gps: [] }>()

const display = useDisplayStore()
const track = useTemplateRef<HTMLElement>('track')
const { width } = useElementSize(track)
const shown = computed(() => props.tried ?? props.view.speed_mps)
const typed = ref('')
watch([shown, () => display.units.speed], () => (typed.value = formatSpeed(shown.value, display.units, false)), { immediate: true })

const VERDICTS = { works: 'works', too_slow: 'too slow', too_fast: 'too fast' }
const most = computed(() => mostOnAxis(props.view))
const PAD = 14
const x = (mps: number): number => PAD + (Math.min(mps, most.value) / most.value) * (width.value - 2 * PAD)

const bars = computed(() =>
  props.view.rods
    .filter((rod) => rod.works && rod.status !== 'in')
    .map((rod) => {
      const line = props.preview?.find((candidate) => candidate.rod_id === rod.id) ?? rod.line
      return { rod, works: rod.works!, state: VERDICTS[line?.verdict ?? 'works'] }
    }),
)
const rowHeight = computed(() => (bars.value.length > 6 ? 9 : 11))
const height = computed(() => Math.max(bars.value.length, 1) * rowHeight.value + 30)
const odd = computed(() => bars.value.filter((bar) => bar.state !== 'works'))

const ticks = computed(() => {
  const last = speedFromMps(most.value, display.units)
  const step = display.units.speed === 'km/h' ? 1 : 0.5
  return Array.from({ length: Math.floor(last / step) + 1 }, (_, i) => i * step)
})

const { slider, hands, nudge } = useSpeedDrag({
  track,
  width,
  pad: PAD,
  mostMps: () => most.value,
  nowMps: () => shown.value,
  onTry: (mps) => emit('try', mps),
  onLetGo: () => emit('letGo'),
  onSet: (mps) => emit('set', mps),
})
function commitTyped(): void {
  const value = parseNumber(typed.value)
  if (value === null) emit('bad', typed.value)
  else if (Math.abs(speedToMps(value, display.units) - props.view.speed_mps) > 0.005) emit('set', speedToMps(value, display.units))
}
</script>

<template>
  <section class="ruler" aria-label="Speed" data-test="speed-ruler">
    <NumberStepper
      v-model="typed"
      class="control"
      label="Speed through the water"
      :unit="`${display.units.speed} through water`"
      less="Slower"
      more="Faster"
      less-test="slower"
      more-test="faster"
      data-test="speed-input"
      @step="nudge"
      @change="commitTyped"
      @keydown.enter="($event.target as HTMLInputElement).blur()"
    />
    <div ref="track" class="track" v-bind="slider" v-on="hands">
      <svg v-if="width > 0" :width="width" :height="height" aria-hidden="true">
        <rect
          v-if="view.window?.is_open"
          :x="x(view.window.low_mps)"
          y="0"
          class="window"
          :width="Math.max(x(view.window.high_mps) - x(view.window.low_mps), 3)"
          :height="height - 18"
        />
        <g v-for="(bar, i) in bars" :key="bar.rod.id">
          <rect
            :x="x(bar.works.low_mps)"
            :y="6 + i * rowHeight"
            :width="Math.max(x(bar.works.high_mps) - x(bar.works.low_mps), 3)"
            :height="rowHeight - 4"
            :fill="rodColour(rodIndex(bar.rod.id))"
            class="bar"
          />
          <g :transform="`translate(${x(bar.works.low_mps) - 7} ${6 + i * rowHeight + (rowHeight - 4) / 2}) scale(4.4)`" class="sign">
            <circle v-if="bar.rod.shape === 'circle'" r="0.95" :fill="rodColour(rodIndex(bar.rod.id))" />
            <polygon v-else :points="SHAPE_POINTS[bar.rod.shape]" :fill="rodColour(rodIndex(bar.rod.id))" />
          </g>
        </g>
        <g v-for="tick in ticks" :key="tick">
          <line
            :x1="x(speedToMps(tick, display.units))"
            :x2="x(speedToMps(tick, display.units))"
            :y1="height - 18"
            :y2="height - 13"
            class="tick"
          />
          <text :x="x(speedToMps(tick, display.units))" :y="height - 2">{{ tick }}</text>
        </g>
        <line :x1="x(shown)" :x2="x(shown)" y1="0" :y2="height - 14" class="now" />
        <path :d="`M${x(shown) - 7} 0 h14 l-7 9 Z`" class="now-head" />
      </svg>
    </div>
    <button class="gps" data-test="gps" @click="emit('gps')">
      <span class="label head">by GPS</span>
      <template v-if="view.passes">
        <span class="label">up-current</span><strong data-test="gps-up">{{ formatSpeed(view.passes.up_mps, display.units) }}</strong>
        <span class="label">down</span><strong data-test="gps-down">{{ formatSpeed(view.passes.down_mps, display.units) }}</strong>
      </template>
      <span v-else-if="view.current && view.current.speed_mps > 0" class="head faster" data-test="current-too-fast"
        >current faster than the boat</span
      >
      <template v-if="view.wind && view.wind.into_mps !== null">
        <span class="label">into the wind</span><strong data-test="gps-into">{{ formatSpeed(view.wind.into_mps, display.units) }}</strong>
        <span class="label">with it</span><strong data-test="gps-with">{{ formatSpeed(view.wind.with_mps!, display.units) }}</strong>
      </template>
      <span v-else-if="!view.current" class="label head">no current or wind noted</span>
    </button>
    <div class="verdict" data-test="speed-verdict">
      <template v-if="bars.length === 0"><span class="label">No rod is out.</span></template>
      <template v-else-if="odd.length">
        <div v-for="bar in odd" :key="bar.rod.id" class="odd" :data-test="`odd-${bar.rod.id}`">
          <RodShape :shape="bar.rod.shape" :index="rodIndex(bar.rod.id)" :size="15" /> {{ bar.state }}
        </div>
      </template>
      <span v-else class="label">every lure works</span>
      <div class="label">
        <template v-if="view.window?.is_open"
          >shared {{ formatSpeed(view.window.low_mps, display.units, false) }}–{{
            formatSpeed(view.window.high_mps, display.units)
          }}</template
        >
        <template v-else-if="view.window">no speed suits all</template>
      </div>
    </div>
  </section>
</template>

<style scoped>
.ruler {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 6px 10px;
  background: var(--frost);
}
.control {
  flex: none;
  width: 236px;
}
.track {
  flex: 1;
  min-width: 0;
  cursor: ew-resize;
  touch-action: none;
  min-height: var(--touch);
}
.window {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.bar {
  stroke: var(--ink);
  stroke-width: 0.6;
}
.sign {
  stroke: var(--ink);
  stroke-width: 0.2;
}
.tick {
  stroke: var(--ink-2);
}
text {
  fill: var(--ink);
  font-size: 12px;
  text-anchor: middle;
}
.now {
  stroke: var(--ink);
  stroke-width: 3;
}
.now-head {
  fill: var(--ink);
}
.gps {
  display: grid;
  grid-template-columns: auto auto;
  align-content: center;
  align-items: baseline;
  justify-items: start;
  gap: 0 8px;
  min-width: 92px;
  min-height: var(--touch);
  padding: 2px 6px;
  line-height: 1.15;
  color: var(--ink);
  border: 1px solid var(--line);
  border-radius: 3px;
}
.head {
  grid-column: 1 / -1;
}
.faster {
  color: var(--now);
  font-weight: 700;
  max-width: 90px;
}
.verdict {
  width: 130px;
  font-size: 14px;
}
.odd {
  display: flex;
  gap: 6px;
  align-items: center;
  font-weight: 700;
}
</style>
