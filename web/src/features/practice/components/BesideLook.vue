<script setup lang="ts">
// A lure beside the boat, seen from above as it is towed from left to right.
import { useRafFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Schemas } from '@/shared/api/client'

const props = defineProps<{ look: Schemas['Beside'] }>()
const seconds = ref(0)
useRafFn(({ timestamp }) => (seconds.value = timestamp / 1000))

const phase = computed(() => seconds.value * props.look.beat_hz * 2 * Math.PI)
const turned = computed(() => props.look.aside_deg + props.look.swing_deg * Math.sin(phase.value))
/** A lure that goes over shows its edge, then its other face. */
const face = computed(() => (props.look.turns_over ? Math.cos(phase.value) : 1))
const OUTLINES: Record<Schemas['Beside']['outline'], string> = {
  blade: 'M0 0 C 20 -26 90 -30 120 -14 C 130 -6 130 6 120 14 C 90 30 20 26 0 0 Z',
  spoon: 'M0 0 C 16 -8 60 -24 92 -16 C 112 -10 112 10 92 16 C 60 24 16 8 0 0 Z',
  plug: 'M-14 -9 L0 -5 C 30 -18 100 -14 128 -3 L140 -12 L136 0 L140 12 L128 3 C 100 14 30 18 0 5 L-14 9 Z',
}
const words = computed(() => {
  const { swing_deg, beat_hz, turns_over, aside_deg } = props.look
  const side = Math.abs(aside_deg) > 1 ? `, about a line ${Math.abs(Math.round(aside_deg))}° off the boat's` : ''
  return `It swings ${Math.round(swing_deg)}° to either side${side}, ${beat_hz.toFixed(1)} times a second, and ${turns_over ? 'goes right over' : 'never goes over'}.`
})
</script>

<template>
  <svg viewBox="0 0 640 220" role="img" :aria-label="words" data-test="beside-look">
    <line x1="0" y1="110" x2="640" y2="110" class="wake" />
    <g :transform="`translate(430 110) rotate(${turned})`">
      <g transform="rotate(180)">
        <path :d="OUTLINES[look.outline]" :transform="`scale(1 ${face})`" :class="face < 0 ? 'back' : 'front'" />
      </g>
    </g>
    <line x1="430" y1="110" x2="640" y2="110" class="line" />
    <text x="632" y="98" class="end">to the boat</text>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  background: var(--water);
}
.wake {
  stroke: var(--line);
  stroke-dasharray: 4 8;
}
.line {
  stroke: var(--ink);
  stroke-width: 1.5;
}
.front {
  fill: var(--frost);
  stroke: var(--ink);
  stroke-width: 2;
}
.back {
  fill: var(--ink);
  stroke: var(--ink);
  stroke-width: 2;
}
text {
  fill: var(--ink);
  font-size: 13px;
}
.end {
  text-anchor: end;
}
</style>
