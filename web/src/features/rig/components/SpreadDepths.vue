<script setup lang="ts">
// The spread by depth: wanted depths as ticks, each lure where it runs, surface at the top.
import { computed } from 'vue'
import type { OpeningSpread } from '@/features/trip/api'
import { rodColour, SHAPE_POINTS } from '@/features/trip/logic/shapes'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'

const props = defineProps<{
  spread: OpeningSpread
  shapeOf: (id: string) => string
  index: (id: string) => number
  uncovered: Set<number>
}>()
const display = useDisplayStore()
const HEIGHT = 420
const WIDTH = 250
const deepest = computed(() => 1.1 * Math.max(3, ...props.spread.wanted.map((w) => w.depth_m), ...props.spread.rods.map((r) => r.depth_m)))
const y = (depthM: number): number => 16 + (depthM / deepest.value) * (HEIGHT - 30)
const x = (order: number): number => 92 + (order * (WIDTH - 112)) / Math.max(1, props.spread.rods.length - 1)
</script>

<template>
  <svg :width="WIDTH" :height="HEIGHT" role="img" aria-label="Depths of the spread" data-test="spread-depths">
    <rect x="0" y="16" :width="WIDTH" :height="HEIGHT - 16" class="water" />
    <line x1="0" y1="16" :x2="WIDTH" y2="16" class="surface" />
    <g v-for="wanted in spread.wanted" :key="wanted.depth_m">
      <line
        x1="78"
        :y1="y(wanted.depth_m)"
        :x2="WIDTH"
        :y2="y(wanted.depth_m)"
        class="wanted"
        :class="{ bare: uncovered.has(wanted.depth_m) }"
      />
      <text x="72" :y="y(wanted.depth_m) + 4" text-anchor="end">{{ formatLength(wanted.depth_m, display.units) }}</text>
    </g>
    <g v-for="(rod, order) in spread.rods" :key="rod.setup.rod_id">
      <line :x1="x(order)" y1="16" :x2="x(order)" :y2="y(rod.depth_m)" class="line" />
      <g :transform="`translate(${x(order)} ${y(rod.depth_m)}) scale(8)`" class="shape">
        <circle v-if="shapeOf(rod.setup.rod_id) === 'circle'" r="0.95" :fill="rodColour(index(rod.setup.rod_id))" />
        <polygon
          v-else
          :points="SHAPE_POINTS[shapeOf(rod.setup.rod_id) as keyof typeof SHAPE_POINTS]"
          :fill="rodColour(index(rod.setup.rod_id))"
        />
      </g>
    </g>
  </svg>
</template>

<style scoped>
.water {
  fill: var(--water);
}
.surface {
  stroke: var(--ink);
  stroke-width: 2;
}
.wanted {
  stroke: var(--ink-2);
  stroke-width: 1.5;
  stroke-dasharray: 5 4;
}
.wanted.bare {
  stroke: var(--now);
  stroke-width: 3;
}
.line {
  stroke: var(--ink-2);
  stroke-width: 1;
}
.shape {
  stroke: var(--ink);
  stroke-width: 0.17;
}
text {
  font-size: 13px;
  font-weight: 640;
  fill: var(--ink);
}
</style>
