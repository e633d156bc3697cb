<script setup lang="ts">
// A blade's choice of tow points: each another swing, each its own working speeds.
import NumberField from '@/shared/ui/NumberField.vue'
import type { Typed } from '@/shared/units/measures'
import { usePointRows } from '../composables/usePointRows'

interface Point {
  name: string
  works: { low_mps: number; high_mps: number }
}
const props = defineProps<{ points: Point[] }>()
const emit = defineEmits<{ change: [points: Point[]] }>()

const MOST = 6
interface Row {
  name: string
  low: Typed
  high: Typed
}
const { rows, send, drop } = usePointRows<Point, Row>({
  points: () => props.points,
  toRow: ({ name, works }) => ({ name, low: works.low_mps, high: works.high_mps }),
  toPoint: ({ name, low, high }) =>
    typeof low === 'number' && typeof high === 'number' && name.trim()
      ? { name: name.trim(), works: { low_mps: low, high_mps: high } }
      : null,
  emit: (points) => emit('change', points),
})
</script>

<template>
  <fieldset class="point-list">
    <legend class="label">Tow points, from tight to wide</legend>
    <div v-for="(row, index) in rows" :key="index" class="row">
      <label><span class="label">name</span><input v-model="row.name" maxlength="30" @change="send" /></label>
      <NumberField v-model="row.low" label="works from" measure="speed" @change="send" />
      <NumberField v-model="row.high" label="to" measure="speed" @change="send" />
      <button type="button" class="plain" @click="drop(index)">Remove</button>
    </div>
    <button v-if="rows.length < MOST" type="button" class="plain" @click="rows.push({ name: '', low: null, high: null })">
      Add a tow point
    </button>
  </fieldset>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 2fr 1fr 1fr auto;
  gap: 8px;
  align-items: end;
}
</style>
