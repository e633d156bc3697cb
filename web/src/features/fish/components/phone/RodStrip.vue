<script setup lang="ts">
// All rods at the thumb: a shape each with its clock as a ring, its depth, and one tap for a hit.
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'
import type { RodView } from '@/features/trip/api'
import { SHAPE_POINTS, rodColour } from '@/features/trip/logic/shapes'
import { formatElapsed } from '@/features/trip/logic/format'
import type { RodAct } from '../RodTile.vue'

/** A ring is full after an hour in the water: an hour without a look is long (common practice). */
const FULL_S = 3600

const props = defineProps<{
  rods: readonly RodView[]
  rodIndex: (id: string) => number
  nowS: number
  selected: string | null
  ended: boolean
}>()
const emit = defineEmits<{ act: [act: RodAct, rod: RodView]; choose: [rodId: string] }>()
const display = useDisplayStore()

const soaked = (rod: RodView): number =>
  rod.soak_since_s === null ? 0 : Math.min(Math.max((props.nowS - rod.soak_since_s) / FULL_S, 0.001), 0.9999)
/** The ring from twelve o'clock on, clockwise. */
function ring(share: number): string {
  const angle = 2 * Math.PI * share
  return `M0 -1.75A1.75 1.75 0 ${share > 0.5 ? 1 : 0} 1 ${(1.75 * Math.sin(angle)).toFixed(3)} ${(-1.75 * Math.cos(angle)).toFixed(3)}`
}
function under(rod: RodView): string {
  if (rod.status === 'fish_on') return 'fish on'
  if (!rod.line) return 'in'
  return rod.line.at_surface ? 'top' : formatLength(rod.line.depth_m, display.units)
}
const wrong = (rod: RodView): boolean =>
  rod.line !== null && (rod.verdict === 'too_fast' || rod.verdict === 'too_slow' || (rod.line.clearance_m ?? 0) < 0)
function press(rod: RodView): RodAct {
  if (rod.status === 'fishing') return 'hit'
  if (rod.status === 'fish_on') return 'landed'
  return rod.last_setting_m === null ? 'depth' : 'reset'
}
const WORDS: Partial<Record<RodAct, string>> = { hit: 'Hit', landed: 'Net', depth: 'Set', reset: 'Reset' }
</script>

<template>
  <div class="rod-strip" data-test="rods">
    <div v-for="rod in rods" :key="rod.id" class="cell" :class="{ selected: selected === rod.id, on: rod.status === 'fish_on' }">
      <button
        type="button"
        class="rod"
        :aria-label="`${rod.name}, ${under(rod)}, soak ${formatElapsed(rod.soak_since_s, nowS)}`"
        :aria-pressed="selected === rod.id"
        :data-test="`strip-${rod.id}`"
        @click="emit('choose', rod.id)"
      >
        <svg viewBox="-2.1 -2.1 4.2 4.2" width="42" height="42" aria-hidden="true">
          <circle r="1.75" class="dial" />
          <path v-if="rod.line" :d="ring(soaked(rod))" class="clock" />
          <circle v-if="rod.shape === 'circle'" r="1" class="shape" :fill="rodColour(rodIndex(rod.id))" />
          <polygon v-else :points="SHAPE_POINTS[rod.shape]" class="shape" :fill="rodColour(rodIndex(rod.id))" />
        </svg>
        <span :class="{ wrong: wrong(rod) }" :data-test="`depth-${rod.id}`">{{ under(rod) }}{{ wrong(rod) ? ' !' : '' }}</span>
      </button>
      <button
        type="button"
        class="act"
        :class="{ solid: rod.status === 'fish_on' }"
        :disabled="ended || !rod.setup"
        :aria-label="`${WORDS[press(rod)]}, ${rod.name}`"
        :data-test="`${press(rod)}-${rod.id}`"
        @click="emit('act', press(rod), rod)"
      >
        {{ WORDS[press(rod)] }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.rod-strip {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(56px, 1fr);
  gap: 3px;
  overflow-x: auto;
}
.cell {
  display: grid;
  min-width: 0;
  background: var(--frost);
  border: 1px solid var(--line);
  border-radius: 4px;
}
.cell.selected {
  border-color: var(--ink);
  box-shadow: inset 0 0 0 1.5px var(--ink);
}
.cell.on {
  border: 3px double var(--ink);
}
.rod {
  display: grid;
  justify-items: center;
  align-content: center;
  height: 62px;
  font-size: 14px;
  font-weight: 680;
  font-stretch: 86%;
  line-height: 1;
  color: var(--ink);
  white-space: nowrap;
}
.wrong {
  color: var(--now);
  font-weight: 780;
}
.dial,
.clock {
  fill: none;
  stroke: var(--line);
  stroke-width: 0.3;
}
.clock {
  stroke: var(--ink);
}
.shape {
  stroke: var(--ink);
  stroke-width: 0.13;
}
.act {
  height: 56px;
  font-size: 17px;
  font-weight: 700;
  color: var(--ink);
  border-top: 1px solid var(--line);
}
.act:disabled {
  color: var(--ink-2);
}
.act.solid {
  background: var(--ink);
  color: var(--frost);
}
</style>
