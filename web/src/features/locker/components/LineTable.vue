<script setup lang="ts">
// What lines are made of, with where each figure comes from.
import { useDisplayStore } from '@/shared/units/store'
import { formatThickness } from '@/shared/units/units'
import type { Catalogue } from '../api'

defineProps<{ materials: Catalogue['materials'] }>()
const display = useDisplayStore()

const WATER_KGPM3 = 1000
const thick = (metres: number): string => formatThickness(metres, display.units)
</script>

<template>
  <details class="lines" data-test="line-table">
    <summary>What the lines are made of</summary>
    <p class="label">Depths hang on thickness and weight. Yours differs? A depth seen on the water teaches that line from then on.</p>
    <table>
      <thead>
        <tr>
          <th>line</th>
          <th>thick</th>
          <th>times water's weight</th>
          <th>figures from</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="item in materials" :key="item.id">
          <td>{{ item.name }}</td>
          <td>{{ thick(item.diameter_m) }}</td>
          <td>{{ (item.density_kgpm3 / WATER_KGPM3).toFixed(2) }}</td>
          <td>{{ item.origin }}</td>
        </tr>
      </tbody>
    </table>
  </details>
</template>

<style scoped>
.lines {
  padding: 8px 6px;
}
summary {
  min-height: 44px;
  font-weight: 640;
  cursor: pointer;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 14px;
}
th {
  text-align: left;
  font-weight: 640;
}
td {
  border-top: 1px solid var(--line);
  padding: 4px 8px 4px 0;
}
</style>
