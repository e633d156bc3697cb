<script setup lang="ts">
// The bottom under the lines: along the track where a chart tells, else level by the last sounding.
import { computed } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'
import type { FishView } from '../api'

const props = defineProps<{
  view: FishView
  x: (behindM: number) => number
  y: (depthM: number) => number
  width: number
  height: number
  left: number
  stretch: number
  narrow: boolean
}>()

const display = useDisplayStore()
const flat = computed(() => props.y(props.view.bottom_m))
const charted = computed(() => props.view.ahead?.source === 'chart')
const outline = computed(() => {
  const points = charted.value ? props.view.ahead!.profile : []
  if (points.length < 2) return `M0 ${flat.value}H${props.width}`
  const line = points.map((point) => `${props.x(-point.ahead_m).toFixed(1)} ${props.y(point.bottom_m).toFixed(1)}`)
  return `M0 ${props.y(points[0]!.bottom_m).toFixed(1)}L${line.join('L')}`
})
const words = computed(() => {
  const text = `bottom ${formatLength(props.view.bottom_m, display.units)}`
  if (props.narrow) return text
  const under = charted.value ? props.view.ahead!.profile.find((point) => point.ahead_m >= 0) : undefined
  const chart = under ? ` sounded, ${formatLength(under.bottom_m, display.units)} here by the chart` : ''
  return text + chart + (props.stretch > 1.05 ? ` · depth drawn ×${props.stretch}` : '')
})
</script>

<template>
  <g data-test="bed" :data-source="view.ahead?.source ?? 'none'">
    <path :d="`${outline}V${height}H0Z`" fill="url(#bed-grain)" />
    <path :d="outline" class="edge" />
    <g :transform="`translate(${left + 8} ${height - 9})`">
      <rect x="-4" y="-12" :width="narrow ? 84 : words.length * 6.1" height="16" fill="var(--frost)" opacity="0.85" />
      <text class="words">{{ words }}</text>
    </g>
  </g>
</template>

<style scoped>
.edge {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.5;
}
.words {
  fill: var(--ink);
  font-size: 12px;
  font-weight: 680;
}
</style>
