<script setup lang="ts">
// A rod's mark: its shape in its colour, outlined in ink.
import { SHAPE_POINTS, rodColour } from '../logic/shapes'

const { shape, index, size = 18 } = defineProps<{ shape: string; index: number; size?: number }>()
</script>

<template>
  <svg :width="size" :height="size" viewBox="-1.3 -1.3 2.6 2.6" aria-hidden="true" class="rod-shape">
    <circle v-if="shape === 'circle'" r="0.95" :fill="rodColour(index)" />
    <polygon v-else :points="SHAPE_POINTS[shape]" :fill="rodColour(index)" />
  </svg>
</template>

<style scoped>
.rod-shape {
  flex: none;
  stroke: var(--ink);
  stroke-width: 0.16;
  stroke-linejoin: round;
}
</style>
