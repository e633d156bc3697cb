<script setup lang="ts">
// What depths a plug is said to reach: as printed on its package or seen on the water, up to five.
import { computed } from 'vue'
import NumberField from '@/shared/ui/NumberField.vue'
import SelectField from '@/shared/ui/SelectField.vue'
import type { Typed } from '@/shared/units/measures'
import type { Catalogue } from '../api'
import { usePointRows } from '../composables/usePointRows'

interface Point {
  out_m: number
  depth_m: number
  speed_mps: number
  material_id: string
}
const props = defineProps<{ points: Point[]; materials: Catalogue['materials'] }>()
const strings = computed(() =>
  props.materials.filter((item) => !item.is_cable && !item.has_core).map((item) => ({ value: item.id, title: item.name })),
)
const emit = defineEmits<{ change: [points: Point[]] }>()

const MOST = 5
interface Row {
  out: Typed
  depth: Typed
  speed: Typed
  material: string
}
const { rows, send, drop } = usePointRows<Point, Row>({
  points: () => props.points,
  toRow: (point) => ({ out: point.out_m, depth: point.depth_m, speed: point.speed_mps, material: point.material_id }),
  toPoint: ({ out, depth, speed, material }) =>
    typeof out === 'number' && typeof depth === 'number' && typeof speed === 'number'
      ? { out_m: out, depth_m: depth, speed_mps: speed, material_id: material }
      : null,
  emit: (points) => emit('change', points),
})
function add(): void {
  rows.value.push({ out: null, depth: null, speed: null, material: 'mono-10' })
}
</script>

<template>
  <fieldset class="point-list">
    <legend class="label">Depths as printed or seen, up to {{ MOST }}: the plug is fitted to them</legend>
    <div v-for="(row, index) in rows" :key="index" class="row">
      <NumberField v-model="row.out" label="line out" measure="long" :test="`point-out-${index}`" @change="send" />
      <NumberField v-model="row.depth" label="depth" measure="long" :test="`point-depth-${index}`" @change="send" />
      <NumberField v-model="row.speed" label="at" measure="speed" :test="`point-speed-${index}`" @change="send" />
      <SelectField v-model="row.material" label="on" :items="strings" @change="send" />
      <button type="button" class="plain" @click="drop(index)">Remove</button>
    </div>
    <button v-if="rows.length < MOST" type="button" class="plain" data-test="add-point" @click="add">Add a depth</button>
  </fieldset>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: repeat(3, minmax(64px, 1fr)) minmax(110px, 2fr) auto;
  gap: 8px;
  align-items: end;
}
</style>
