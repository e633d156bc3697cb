<script setup lang="ts">
// Recent sonar marks by depth down the other edge, the newest nearest to the boat.
import { computed } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'
import type { FishView } from '@/features/trip/api'
import { labelsWithRoom } from '@/features/trip/logic/scale'

const props = defineProps<{
  view: FishView
  y: (depthM: number) => number
  /** Width of the picture and of the lane at its right, and where the water ends, px. */
  width: number
  lane: number
  narrow: boolean
  base: number
}>()
const emit = defineEmits<{ mark: [mark: FishView['marks'][number]] }>()

const display = useDisplayStore()

const marks = computed(() =>
  props.view.marks.map((mark) => {
    const age = (props.view.now_s - mark.at_s) / 60
    const lane = props.lane - (props.narrow ? 34 : 44)
    const wide = Math.min(8 + mark.count * 4, 26)
    // One made over deeper water is not in the mud here: it waits at the edge of it, and says so.
    const at = mark.here ? props.y(mark.depth_m) : props.base - 8
    return { mark, wide, at, left: props.width - props.lane + 4 + Math.max(0, lane - wide) * (1 - Math.min(age / 60, 1)) }
  }),
)
const labelled = computed(() =>
  labelsWithRoom(
    marks.value
      .filter((m) => m.mark.recent)
      .sort((one, other) => other.mark.at_s - one.mark.at_s)
      .map((m) => ({ id: m.mark.event_id, y: m.at })),
    15,
  ),
)
</script>

<template>
  <g>
    <g v-for="{ mark, wide, left, at } in marks" :key="mark.event_id">
      <g
        class="mark"
        :class="{ old: !mark.recent, elsewhere: !mark.here }"
        :tabindex="mark.recent ? 0 : -1"
        role="button"
        :aria-label="`Mark at ${formatLength(mark.depth_m, display.units)}, ${mark.count} fish${mark.here ? '' : ', over deeper water than here'}`"
        data-test="mark"
        @click="emit('mark', mark)"
        @keydown.enter="emit('mark', mark)"
      >
        <rect :x="width - lane" :y="at - 14" :width="lane" height="28" fill="transparent" />
        <rect :x="left" :y="at - 4" :width="wide" height="8" rx="2" fill="url(#mark-hatch)" stroke="var(--ink)" />
      </g>
      <text v-if="labelled.has(mark.event_id)" :x="width - 4" :y="at + 4" class="small end strong" aria-hidden="true">
        {{ formatLength(mark.depth_m, display.units, false) }}{{ mark.here ? '' : ' deeper' }}
      </text>
    </g>
  </g>
</template>

<style scoped>
.mark {
  cursor: pointer;
}
.mark.old {
  opacity: 0.35;
}
.mark.elsewhere rect {
  fill: none;
  stroke-dasharray: 3 2;
}
</style>
