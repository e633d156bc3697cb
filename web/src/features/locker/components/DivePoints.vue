<script setup lang="ts">
// What depths a plug is said to reach: as printed on its package or seen on the water, up to five.
import { ref, watch } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { speedToMps } from '@/shared/units/units'
import type { Catalogue } from '../api'
import { readIn, shownIn } from '../logic/fields'

interface Point {
  out_m: number
  depth_m: number
  speed_mps: number
  material_id: string
}
const props = defineProps<{ points: Point[]; materials: Catalogue['materials'] }>()
const emit = defineEmits<{ change: [points: Point[]] }>()

const display = useDisplayStore()
const MOST = 5
const rows = ref<{ out: string; depth: string; speed: string; material: string }[]>([])
let sent = ''

watch(
  () => JSON.stringify(props.points),
  (now) => {
    if (now === sent) return
    rows.value = props.points.map((point) => ({
      out: shownIn(point.out_m, 'long', display.units),
      depth: shownIn(point.depth_m, 'long', display.units),
      speed: shownIn(point.speed_mps, 'speed', display.units),
      material: point.material_id,
    }))
  },
  { immediate: true },
)

/** Whole rows only go out; half-typed ones stay where they are typed. */
function send(): void {
  const points = rows.value.flatMap((row) => {
    const [out_m, depth_m] = [readIn(row.out, 'long', display.units), readIn(row.depth, 'long', display.units)]
    const speed_mps = readIn(row.speed, 'speed', display.units)
    return out_m === null || depth_m === null || speed_mps === null ? [] : [{ out_m, depth_m, speed_mps, material_id: row.material }]
  })
  sent = JSON.stringify(points)
  emit('change', points)
}
function add(): void {
  rows.value.push({ out: '', depth: '', speed: shownIn(speedToMps(2, display.units), 'speed', display.units), material: 'mono-10' })
}
function drop(index: number): void {
  rows.value.splice(index, 1)
  send()
}
</script>

<template>
  <fieldset class="points">
    <legend class="label">Depths as printed or seen, up to {{ MOST }}: the plug is fitted to them</legend>
    <div v-for="(row, index) in rows" :key="index" class="row">
      <label
        ><span class="label">line out, {{ display.units.length }}</span
        ><input v-model="row.out" inputmode="decimal" :data-test="`point-out-${index}`" @change="send"
      /></label>
      <label
        ><span class="label">depth, {{ display.units.length }}</span
        ><input v-model="row.depth" inputmode="decimal" :data-test="`point-depth-${index}`" @change="send"
      /></label>
      <label
        ><span class="label">at {{ display.units.speed }}</span
        ><input v-model="row.speed" inputmode="decimal" @change="send"
      /></label>
      <label
        ><span class="label">on</span
        ><select v-model="row.material" @change="send">
          <option v-for="item in materials.filter((m) => !m.is_cable && !m.has_core)" :key="item.id" :value="item.id">
            {{ item.name }}
          </option>
        </select></label
      >
      <button type="button" class="plain" @click="drop(index)">Remove</button>
    </div>
    <button v-if="rows.length < MOST" type="button" class="plain" data-test="add-point" @click="add">Add a depth</button>
  </fieldset>
</template>

<style scoped>
.points {
  min-width: 0;
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 8px;
}
.row {
  display: grid;
  grid-template-columns: repeat(3, minmax(64px, 1fr)) minmax(110px, 2fr) auto;
  gap: 8px;
  align-items: end;
}
label {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
</style>
