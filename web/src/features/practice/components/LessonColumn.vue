<script setup lang="ts">
// Water from the side, with marks and lures at their depths.
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'

const props = defineProps<{ column: Schemas['Column'] }>()
const HEIGHT = 320
const display = useDisplayStore()
const deep = computed(() => props.column.bottom_m * 1.06)
const y = (depthM: number): number => (depthM / deep.value) * HEIGHT
const words = computed(() => {
  const at = (depth: number): string => formatLength(depth, display.units)
  const lures = props.column.lures.map((lure) => `${lure.name} at ${at(lure.depth_m)}`)
  return `Marks at ${props.column.marks.map(at).join(', ')}; ${lures.join(', ')}; bottom at ${at(props.column.bottom_m)}.`
})
</script>

<template>
  <svg :viewBox="`0 0 640 ${HEIGHT}`" class="drawn-words" role="img" :aria-label="words">
    <rect x="0" :y="y(column.bottom_m)" width="640" :height="HEIGHT" class="bottom" />
    <g v-for="(mark, i) in column.marks" :key="i">
      <rect :x="500 + (i % 3) * 34" :y="y(mark) - 2.5" width="24" height="5" class="mark" />
    </g>
    <g v-for="(lure, i) in column.lures" :key="lure.name">
      <line :x1="640" y1="0" :x2="90 + i * 130" :y2="y(lure.depth_m)" class="line" />
      <circle :cx="90 + i * 130" :cy="y(lure.depth_m)" r="6" class="lure" />
      <text :x="78 + i * 130" :y="y(lure.depth_m) - 9" class="end">{{ lure.name }}</text>
    </g>
    <text x="632" :y="y(column.bottom_m) - 6" class="end small">bottom {{ formatLength(column.bottom_m, display.units) }}</text>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  background: var(--water);
}
.bottom {
  fill: var(--bed);
}
.mark {
  fill: var(--ink-2);
}
.line {
  stroke: var(--ink-2);
  opacity: 0.4;
}
.lure {
  fill: var(--ink);
}
</style>
