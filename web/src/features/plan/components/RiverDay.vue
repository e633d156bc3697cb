<script setup lang="ts">
// A river's day: by GPS up and down the current for each phase, what stands over the bars, what the level says.
import { formatClock } from '@/features/trip/logic/format'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatSpeed } from '@/shared/units/units'
import type { DayTried } from '../api'

const props = defineProps<{ day: DayTried }>()
const display = useDisplayStore()
const clock = (atS: number) => formatClock(atS, props.day.utc_offset_min)
type Ground = NonNullable<DayTried['river']>['ground'][number]
type Way = 'up_mps' | 'down_mps'
function speeds(ground: Ground, way: Way): string {
  const { slow, fast } = ground
  if (!fast) return 'the current is faster'
  const high = formatSpeed(fast[way], display.units)
  return slow ? `${formatSpeed(slow[way], display.units, false)}–${high}` : `up to ${high}`
}
</script>

<template>
  <section v-if="day.river" class="river" aria-label="River" data-test="river">
    <h2 class="label">the river: by GPS</h2>
    <p v-for="ground in day.river.ground" :key="ground.start_s" data-test="river-ground">
      from {{ clock(ground.start_s) }} <b>{{ speeds(ground, 'up_mps') }}</b> going up, <b>{{ speeds(ground, 'down_mps') }}</b> going down
    </p>
    <p v-if="day.river.shallows.length" data-test="shallows">
      <template v-for="(bar, i) in day.river.shallows" :key="bar.name"
        ><template v-if="i"> · </template>{{ bar.name }} <b>{{ formatLength(bar.depth_m, display.units) }}</b></template
      >
    </p>
    <p v-for="said in day.river.words" :key="said">{{ said }}</p>
  </section>
</template>

<style scoped>
p {
  margin: 4px 0;
  font-size: 13px;
  line-height: 1.35;
}
</style>
