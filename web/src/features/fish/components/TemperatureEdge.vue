<script setup lang="ts">
// Temperature down one edge of the water column: the latest reading at each depth.
import { computed } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { formatTemperature } from '@/shared/units/units'
import type { FishView } from '@/features/trip/api'
import { cividis } from '@/features/trip/logic/scale'

const props = defineProps<{ view: FishView; y: (depthM: number) => number }>()

const display = useDisplayStore()

const profile = computed(() => {
  const points = props.view.profile.filter((point) => point.depth_m <= props.view.bottom_m)
  if (points.length === 0) return []
  const values = points.map((point) => point.temperature_degc)
  const low = Math.min(...values)
  const span = Math.max(Math.max(...values) - low, 2)
  return points.map((point, i) => {
    const above = points[i - 1]?.depth_m ?? 0
    const below = points[i + 1]?.depth_m ?? point.depth_m + (point.depth_m - above || 1)
    const top = i === 0 ? 0 : (above + point.depth_m) / 2
    const base = Math.min((point.depth_m + below) / 2, props.view.bottom_m)
    return { ...point, top, base, colour: cividis((point.temperature_degc - low) / span) }
  })
})

const profileLabels = computed(() => {
  let last = -100
  return profile.value.filter((point) => {
    const at = props.y((point.top + point.base) / 2)
    if (at - last < 17) return false
    last = at
    return true
  })
})
</script>

<template>
  <g aria-hidden="true">
    <rect
      v-for="cell in profile"
      :key="cell.depth_m"
      x="0"
      :y="y(cell.top)"
      width="9"
      :height="Math.max(y(cell.base) - y(cell.top), 1)"
      :fill="cell.colour"
    />
    <text v-for="cell in profileLabels" :key="`t${cell.depth_m}`" x="13" :y="y((cell.top + cell.base) / 2) + 4" class="small">
      {{ formatTemperature(cell.temperature_degc, display.units, false).replace(/\.\d$/, '') }}°
    </text>
  </g>
</template>
