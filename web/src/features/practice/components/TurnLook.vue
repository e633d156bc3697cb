<script setup lang="ts">
// A boat from above as it begins a turn with three lines out; with the answer, where they lie in it.
import { computed } from 'vue'
import type { Schemas } from '@/shared/api/client'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'

const props = defineProps<{ look: Schemas['TurnLook']; paths: Schemas['OnPlan'][][] }>()
const display = useDisplayStore()
const WIDE = 640
const HIGH = 300
const ROOM = 28
const HULL_M = { long: 5, half: 1 }
/** How much of the circle is drawn, to either side of the boat. */
const ARC_RAD = 0.9

const across = computed(() => (props.look.toward === 'starboard' ? 1 : -1))
const arc = computed(() =>
  Array.from({ length: 31 }, (_, i) => {
    const angle = ((i - 15) / 15) * ARC_RAD
    return { side_m: across.value * props.look.radius_m * (1 - Math.cos(angle)), ahead_m: props.look.radius_m * Math.sin(angle) }
  }),
)
// The same room before and after the answer, or the picture would jump and tell.
const scale = computed(() => {
  const far = Math.max(...props.look.lures.map((lure) => -lure.ahead_m), props.look.radius_m)
  return (HIGH - 2 * ROOM) / (far + 0.6 * props.look.radius_m)
})
const at = (place: Schemas['OnPlan']) => ({
  x: WIDE / 2 + place.side_m * scale.value,
  y: ROOM + (0.6 * props.look.radius_m - place.ahead_m) * scale.value,
})
const drawn = (places: Schemas['OnPlan'][]) => places.map((place) => `${at(place).x.toFixed(1)},${at(place).y.toFixed(1)}`).join(' ')
const lines = computed(() => props.look.tips.map((tip, i) => ({ tip, lure: props.look.lures[i]! })))
const hull = computed(() => {
  const { long, half } = HULL_M
  const corners = [
    { side_m: -half, ahead_m: 0 },
    { side_m: -half, ahead_m: 0.6 * long },
    { side_m: 0, ahead_m: long },
    { side_m: half, ahead_m: 0.6 * long },
    { side_m: half, ahead_m: 0 },
  ]
  return drawn(corners)
})
const words = computed(() => {
  const tips = props.look.tips.map((tip, i) => {
    const side = tip.side_m < 0 ? 'port' : 'starboard'
    return `rod ${i + 1} ${formatLength(Math.abs(tip.side_m), display.units)} to ${side}`
  })
  return `From above: the boat turns to ${props.look.toward} on a circle of ${formatLength(props.look.radius_m, display.units)}; ${tips.join(', ')}.`
})
</script>

<template>
  <svg :viewBox="`0 0 ${WIDE} ${HIGH}`" role="img" :aria-label="words" class="drawn-words" data-test="turn-look">
    <polyline :points="drawn(arc)" class="way" />
    <polygon :points="hull" class="hull" />
    <g v-for="(line, i) in lines" :key="i">
      <polyline :points="drawn([line.tip, line.lure])" class="straight" />
      <template v-if="!paths.length">
        <circle :cx="at(line.lure).x" :cy="at(line.lure).y" r="4" class="lure" />
        <text :x="at(line.lure).x + 8 * (line.tip.side_m < 0 ? -1 : 1)" :y="at(line.lure).y + 16" text-anchor="middle">{{ i + 1 }}</text>
      </template>
    </g>
    <g v-for="(path, i) in paths" :key="`turned-${i}`" data-test="turned-line">
      <polyline :points="drawn(path)" class="turned" />
      <circle :cx="at(path[path.length - 1]!).x" :cy="at(path[path.length - 1]!).y" r="4" class="lure" />
      <text :x="at(path[path.length - 1]!).x + 10 * across" :y="at(path[path.length - 1]!).y - 6" text-anchor="middle">{{ i + 1 }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  background: var(--water);
}
.way {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.5;
  stroke-dasharray: 2 7;
}
.hull {
  fill: var(--frost);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.straight {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1;
  stroke-dasharray: 5 5;
}
.turned {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.lure {
  fill: var(--ink);
}
</style>
