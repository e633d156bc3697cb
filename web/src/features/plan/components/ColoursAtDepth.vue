<script setup lang="ts">
// What is left of each colour at a few depths, as swatches beside the fish. Rough, and says so.
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'
import type { DayView } from '../api'

defineProps<{ light: DayView['light'] }>()
const display = useDisplayStore()
const ORDER = ['red', 'orange', 'yellow', 'green', 'blue'] as const
const IN_AIR: Record<string, [number, number, number]> = {
  red: [214, 40, 40],
  orange: [240, 130, 20],
  yellow: [245, 215, 40],
  green: [40, 170, 70],
  blue: [40, 90, 215],
}
type Colour = DayView['light'][number]['colours'][number]
const named = (colours: readonly Colour[]) => ORDER.map((name) => colours.find((colour) => colour.name === name)!)
/** As dark as what is left of it, against the colour that shows best there, in the light that is left. */
const paint = (colour: Colour, left: number): string => {
  const bright = colour.against * (0.35 + 0.65 * Math.sqrt(left))
  return `rgb(${IN_AIR[colour.name]!.map((channel) => Math.round(channel * bright)).join(',')})`
}
</script>

<template>
  <section aria-label="Colours at depth">
    <h2 class="label">what is left of a colour, seen from beside it</h2>
    <table>
      <thead>
        <tr>
          <th scope="col" class="label">depth</th>
          <th v-for="name in ORDER" :key="name" scope="col" class="label">{{ name }}</th>
          <th scope="col" class="label">light</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="at in light" :key="at.depth_m">
          <th scope="row">{{ formatLength(at.depth_m, display.units) }}</th>
          <td v-for="colour in named(at.colours)" :key="colour.name">
            <span class="swatch" :style="{ background: paint(colour, at.left) }" :class="{ gone: !colour.shows }">
              <span class="words">{{ colour.shows ? 'shows' : 'only dark' }}</span>
            </span>
          </td>
          <td class="left">{{ at.left < 0.01 ? 'under 1 %' : `${Math.round(100 * at.left)} %` }}</td>
        </tr>
      </tbody>
    </table>
    <p class="label">Crossed: no colour any more, only dark. UV is gone within a few feet of stain; glow needs no light. Rough.</p>
  </section>
</template>

<style scoped>
table {
  border-spacing: 3px 3px;
}
th {
  text-align: left;
  font-size: 13px;
  padding-right: 10px;
}
.swatch {
  position: relative;
  display: block;
  width: 46px;
  height: 22px;
  border: 1px solid var(--ink-2);
}
.swatch.gone::after {
  content: '';
  position: absolute;
  inset: 0;
  background: linear-gradient(to top right, transparent 46%, #fff 46% 54%, transparent 54%);
}
.words {
  position: absolute;
  clip-path: inset(50%);
  width: 1px;
  height: 1px;
  overflow: hidden;
}
.left {
  font-size: 13px;
  padding-left: 8px;
}
</style>
