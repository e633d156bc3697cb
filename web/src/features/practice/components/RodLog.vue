<script setup lang="ts">
// Hits of rods along the hours, each rod a line of its own; changes cut it, marks lie below.
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'

const props = defineProps<{ log: Schemas['Log'] }>()
const display = useDisplayStore()
const onIt = (rod: Schemas['LogRod']): string => rod.words + (rod.depth_m == null ? '' : `, ${formatLength(rod.depth_m, display.units)}`)
const LEFT = 168
const WIDTH = 640
const ROW = 40
const x = (minute: number): number => LEFT + (minute / props.log.minutes) * (WIDTH - LEFT - 20)
const marksY = computed(() => props.log.rods.length * ROW + 22)
const height = computed(() => marksY.value + ((props.log.marks ?? []).length ? 44 : 22))
const halves = computed(() => Array.from({ length: Math.floor(props.log.minutes / 30) + 1 }, (_, i) => i * 30))
const clock = (minute: number): string => `${Math.floor(minute / 60)}:${String(minute % 60).padStart(2, '0')}`
const words = computed(() =>
  props.log.rods
    .map((rod) => {
      const at = rod.hits.map((minute) => clock(Math.floor(minute))).join(', ')
      const changed = (rod.changed ?? []).map((minute) => `, changed at ${clock(minute)}`).join('')
      return `${rod.name} ${onIt(rod)}${changed}: ${at || 'no hits'}`
    })
    .join('; '),
)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDTH} ${height}`" class="drawn-words" role="img" :aria-label="words" data-test="rod-log">
    <g v-for="minute in halves" :key="minute">
      <line :x1="x(minute)" :x2="x(minute)" y1="0" :y2="marksY - 18" class="grid" />
      <text :x="x(minute)" :y="height - 4" class="small middle">{{ clock(minute) }}</text>
    </g>
    <g v-for="(rod, i) in log.rods" :key="rod.name">
      <text x="4" :y="i * ROW + 18" class="strong">{{ rod.name }}</text>
      <text x="4" :y="i * ROW + 33" class="small">{{ onIt(rod) }}</text>
      <line :x1="LEFT" :x2="WIDTH - 20" :y1="i * ROW + 22" :y2="i * ROW + 22" class="rod" />
      <rect v-for="minute in rod.changed" :key="`c${minute}`" :x="x(minute) - 2" :y="i * ROW + 6" width="4" height="32" class="change" />
      <circle v-for="(minute, n) in rod.hits" :key="n" :cx="x(minute)" :cy="i * ROW + 22" r="5" class="hit" />
    </g>
    <g v-if="(log.marks ?? []).length">
      <text x="4" :y="marksY + 4" class="small">fish marked</text>
      <rect v-for="(minute, n) in log.marks" :key="n" :x="x(minute) - 1" :y="marksY - 6" width="2" height="12" class="mark" />
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  background: var(--water);
}
.grid {
  stroke: var(--line);
}
.rod {
  stroke: var(--ink-2);
}
.change {
  fill: var(--now);
}
.hit {
  fill: var(--ink);
}
.mark {
  fill: var(--ink-2);
}
.middle {
  text-anchor: middle;
}
</style>
