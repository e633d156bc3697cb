<script setup lang="ts">
// The bottom under the lines: along the track where a chart tells, else level by the last sounding.
import { computed } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'
import type { FishView } from '@/features/trip/api'
import { formatAge } from '@/features/trip/logic/format'

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
const charted = computed(() => props.view.ahead?.source === 'chart' && props.view.ahead.known)
const outline = computed(() => {
  const points = charted.value ? props.view.ahead!.profile : []
  if (points.length < 2) return `M0 ${flat.value}H${props.width}`
  const line = points.map((point) => `${props.x(-point.ahead_m).toFixed(1)} ${props.y(point.bottom_m).toFixed(1)}`)
  return `M0 ${props.y(points[0]!.bottom_m).toFixed(1)}L${line.join('L')}`
})
/** The last place or sounding is too old to say what is under the boat now. */
const lost = computed(() => props.view.ahead?.known === false)
const words = computed(() => {
  if (lost.value) {
    const age = formatAge(props.view.ahead!.age_s)
    const last = props.view.ahead!.source === 'chart' ? `place ${age} old` : `sounded ${age} ago`
    return props.narrow ? last : `${last}: what is under the boat is not known. Tell the place, or sound`
  }
  const text = `bottom ${formatLength(props.view.bottom_m, display.units)}`
  if (props.narrow) return text
  const under = charted.value ? props.view.ahead!.profile.find((point) => point.ahead_m >= 0) : undefined
  const round = props.view.ahead?.place_doubt_m
  const within = round ? `, place within ${formatLength(round, display.units)}` : ''
  const chart = under ? ` sounded, ${formatLength(under.bottom_m, display.units)} here by the chart${within}` : ''
  return text + chart + (props.stretch > 1.05 ? ` · depth drawn ×${props.stretch}` : '')
})
</script>

<template>
  <g data-test="bed" :data-source="view.ahead?.source ?? 'none'" :data-known="!lost">
    <path :d="`${outline}V${height}H0Z`" fill="url(#bed-grain)" :opacity="lost ? 0.35 : 1" />
    <path :d="outline" class="edge" :class="{ lost }" />
    <g :transform="`translate(${left + 8} ${height - 9})`">
      <rect x="-4" y="-12" :width="words.length * 6.3" height="16" fill="var(--frost)" opacity="0.85" />
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
.edge.lost {
  stroke-dasharray: 3 9;
}
.words {
  fill: var(--ink);
  font-size: 12px;
  font-weight: 680;
}
</style>
