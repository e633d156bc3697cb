<script setup lang="ts">
// The boat's way over the depths it carried along, with what happened where.
import { computed, ref, shallowRef, watch } from 'vue'
import type { TripDocument } from '@/features/trip/api'
import { lengthFromM, lengthToM } from '@/shared/units/units'
import { useDisplayStore } from '@/shared/units/store'
import { getTrack } from '../api'
import { placeAt, trackOf, type TrackFile } from '../logic/track'

type Place = { latitude_deg: number; longitude_deg: number }
const props = defineProps<{ trip: TripDocument; atS: number; schools?: readonly Place[] }>()
const emit = defineEmits<{ go: [atS: number] }>()
const display = useDisplayStore()
const file = shallowRef<TrackFile | null>(null)
const failed = ref(false)
watch(
  () => props.trip.id,
  async (id) => {
    failed.value = false
    file.value = null
    const told = await getTrack(id).catch(() => null)
    if (id !== props.trip.id) return
    file.value = told
    failed.value = told === null
  },
  { immediate: true },
)
const track = computed(() => file.value && trackOf(file.value, props.trip.chart))
const boat = computed(() => track.value && placeAt(track.value, props.atS))
const gone = computed(() => track.value?.way.filter((one) => one.atS <= props.atS) ?? [])
const line = (points: readonly { x: number; y: number }[]): string => points.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ')
const unitM = computed(() => Math.max(track.value?.width ?? 1, track.value?.height ?? 1) / 100)
/** A bar of a round number of the reader's units, about a fifth of the width. */
const bar = computed(() => {
  const wish = Math.max(lengthFromM((track.value?.width ?? 0) / 5, display.units), 1)
  const step = 10 ** Math.floor(Math.log10(wish))
  const round = [1, 2, 5].map((by) => by * step).findLast((value) => value <= wish) ?? step
  return { m: lengthToM(round, display.units), words: `${round} ${display.units.length}` }
})
</script>

<template>
  <figure class="track" data-test="track">
    <svg v-if="track" :viewBox="`0 0 ${track.width} ${track.height}`" role="img" aria-label="The boat's way and what happened on it">
      <rect
        v-for="(cell, i) in track.cells"
        :key="i"
        :x="cell.x"
        :y="cell.y"
        :width="cell.size"
        :height="cell.size"
        class="cell"
        :style="{ fillOpacity: 0.1 + 0.5 * cell.share }"
      />
      <polyline :points="line(track.way)" class="way" :stroke-width="unitM * 0.5" />
      <polyline :points="line(boat ? [...gone, boat] : gone)" class="way gone" :stroke-width="unitM * 0.9" />
      <g v-for="spot in track.spots" :key="spot.kind + spot.atS" @click="emit('go', spot.atS)">
        <title>{{ spot.kind }}{{ spot.text ? `: ${spot.text}` : '' }}</title>
        <path
          v-if="spot.kind === 'landed'"
          :d="`M ${spot.x} ${spot.y - 2 * unitM} l ${2 * unitM} ${2 * unitM} l ${-2 * unitM} ${2 * unitM} l ${-2 * unitM} ${-2 * unitM} z`"
          class="spot"
        />
        <circle v-else :cx="spot.x" :cy="spot.y" :r="unitM" class="spot faint" />
      </g>
      <circle
        v-for="(school, i) in (schools ?? []).map(track.at)"
        :key="`s${i}`"
        :cx="school.x"
        :cy="school.y"
        :r="unitM * 4"
        class="school"
        :stroke-width="unitM * 0.6"
        data-test="school"
      />
      <circle v-if="boat" :cx="boat.x" :cy="boat.y" :r="unitM * 1.6" class="boat" :stroke-width="unitM * 0.8" />
      <g :transform="`translate(${unitM * 3}, ${track.height - unitM * 4})`">
        <line x1="0" :x2="bar.m" y1="0" y2="0" class="way gone" :stroke-width="unitM * 0.6" />
        <text :y="-unitM" :font-size="unitM * 3.6">{{ bar.words }}</text>
      </g>
    </svg>
    <figcaption v-if="!track" class="label">
      {{ failed ? 'The track could not be fetched.' : file ? 'No place was noted on this trip.' : 'Looking for the track…' }}
    </figcaption>
    <figcaption v-else class="label">
      North up; darker is deeper. A diamond is a fish in the net<template v-if="schools?.length">, a ring a school that lay there</template
      >.
    </figcaption>
  </figure>
</template>

<style scoped>
.school {
  fill: none;
  stroke: var(--now);
}
.track {
  display: grid;
  gap: 4px;
  margin: 0;
  align-content: start;
}
svg {
  width: 100%;
  max-height: 320px;
  background: var(--frost-2);
}
.cell {
  fill: var(--ink-2);
  shape-rendering: crispedges;
}
.way {
  fill: none;
  stroke: var(--line);
  stroke-linejoin: round;
}
.way.gone {
  stroke: var(--ink);
}
.spot {
  fill: var(--ink);
  stroke: var(--frost);
  cursor: pointer;
}
.spot.faint {
  fill: var(--frost);
  stroke: var(--ink);
}
.boat {
  fill: var(--frost);
  stroke: var(--ink);
}
text {
  fill: var(--ink);
}
</style>
