<script setup lang="ts">
// Speed under a thumb: one strip, the shared window in it, the number in its middle.
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed } from '@/shared/units/units'
import type { FishView } from '@/features/trip/api'
import { mostOnAxis, useSpeedDrag } from '../../composables/useSpeedDrag'

const props = defineProps<{ view: FishView; tried: number | null }>()
const emit = defineEmits<{ try: [speedMps: number]; letGo: []; set: [speedMps: number] }>()

const display = useDisplayStore()
const track = useTemplateRef<HTMLElement>('track')
const { width } = useElementSize(track)
const shown = computed(() => props.tried ?? props.view.speed_mps)
const most = computed(() => mostOnAxis(props.view))
const share = (mps: number): string => `${(100 * Math.min(mps, most.value)) / most.value}%`
const window = computed(() => (props.view.window?.is_open ? props.view.window : null))
const outside = computed(
  () => window.value !== null && (shown.value < window.value.low_mps - 0.005 || shown.value > window.value.high_mps + 0.005),
)
const { slider, hands, nudge } = useSpeedDrag({
  track,
  width,
  pad: 0,
  mostMps: () => most.value,
  nowMps: () => shown.value,
  onTry: (mps) => emit('try', mps),
  onLetGo: () => emit('letGo'),
  onSet: (mps) => emit('set', mps),
})
</script>

<template>
  <section class="strip" aria-label="Speed" data-test="speed-strip">
    <button type="button" class="step" aria-label="Slower" data-test="slower" @click="nudge(-1)">−</button>
    <div ref="track" class="track" v-bind="slider" v-on="hands">
      <span v-if="window" class="window" :style="{ left: share(window.low_mps), right: `calc(100% - ${share(window.high_mps)})` }" />
      <span class="thumb" :style="{ left: share(shown) }" />
      <span class="words">
        <b :class="{ outside }">{{ formatSpeed(shown, display.units) }}</b>
        <small v-if="window"
          >all work {{ formatSpeed(window.low_mps, display.units, false) }}–{{ formatSpeed(window.high_mps, display.units, false) }}</small
        >
        <small v-else-if="view.window">no speed suits all</small>
      </span>
    </div>
    <button type="button" class="step" aria-label="Faster" data-test="faster" @click="nudge(1)">+</button>
  </section>
</template>

<style scoped>
.strip {
  display: flex;
  height: 56px;
  background: var(--frost);
}
.step {
  flex: none;
  width: 52px;
  font-size: 26px;
  font-weight: 700;
  color: var(--ink);
}
.track {
  position: relative;
  flex: 1;
  touch-action: none;
  border-inline: 1px solid var(--line);
}
.window {
  position: absolute;
  inset-block: 0;
  min-width: 3px;
  background: var(--comfort);
  border-inline: 2px solid var(--ink);
}
.thumb {
  position: absolute;
  inset-block: 0;
  width: 5px;
  margin-left: -2.5px;
  background: var(--ink);
}
.words {
  position: absolute;
  inset: 0;
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  padding: 0 8px;
  pointer-events: none;
}
.words b {
  font-size: 22px;
  font-stretch: 88%;
  font-variant-numeric: tabular-nums;
  padding: 0 4px;
  background: var(--frost);
}
.words b.outside {
  color: var(--now);
}
.words small {
  font-size: 12px;
  font-weight: 600;
  padding: 0 3px;
  background: var(--frost);
}
</style>
