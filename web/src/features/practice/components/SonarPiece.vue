<script setup lang="ts">
// A piece of sonar screen: echoes by their time and the depth that is read.
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'

const props = defineProps<{ screen: Schemas['DrillScreen'] }>()
const WIDTH = 640
const HEIGHT = 300
const display = useDisplayStore()
const deep = computed(() => props.screen.bottom_m * 1.08)
const x = (seconds: number): number => (seconds / props.screen.seconds) * WIDTH
const y = (depthM: number): number => (depthM / deep.value) * HEIGHT
</script>

<template>
  <figure>
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" aria-label="A piece of screen">
      <line v-for="i in 4" :key="i" x1="0" :x2="WIDTH" :y1="(HEIGHT * i) / 5" :y2="(HEIGHT * i) / 5" class="grid" />
      <text v-for="i in 4" :key="`t${i}`" x="4" :y="(HEIGHT * i) / 5 - 3">{{ formatLength((deep * i) / 5, display.units) }}</text>
      <line
        v-for="(echo, i) in screen.echoes"
        :key="`e${i}`"
        :x1="x(echo[0]!)"
        :x2="x(echo[0]!)"
        :y1="y(echo[1]!) - 3"
        :y2="y(echo[1]!) + 3"
        class="echo"
      />
      <rect x="0" :y="y(screen.bottom_m)" :width="WIDTH" :height="HEIGHT" class="bottom" />
    </svg>
    <figcaption class="label">{{ screen.seconds }} seconds from left to right</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  width: 100%;
  background: var(--frost-2);
}
.grid {
  stroke: var(--line);
}
.echo {
  stroke: var(--ink);
  stroke-width: 2;
}
.bottom {
  fill: var(--bed);
}
text {
  fill: var(--ink-2);
  font-size: 11px;
}
</style>
