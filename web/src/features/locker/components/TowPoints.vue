<script setup lang="ts">
// A blade's choice of tow points: each another swing, each its own working speeds.
import { ref, watch } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { readIn, shownIn } from '../logic/fields'

interface Point {
  name: string
  works: { low_mps: number; high_mps: number }
}
const props = defineProps<{ points: Point[] }>()
const emit = defineEmits<{ change: [points: Point[]] }>()

const display = useDisplayStore()
const MOST = 6
const rows = ref<{ name: string; low: string; high: string }[]>([])
let sent = ''

watch(
  () => JSON.stringify(props.points),
  (now) => {
    if (now === sent) return
    rows.value = props.points.map((point) => ({
      name: point.name,
      low: shownIn(point.works.low_mps, 'speed', display.units),
      high: shownIn(point.works.high_mps, 'speed', display.units),
    }))
  },
  { immediate: true },
)

function send(): void {
  const points = rows.value.flatMap((row) => {
    const [low_mps, high_mps] = [readIn(row.low, 'speed', display.units), readIn(row.high, 'speed', display.units)]
    return low_mps === null || high_mps === null || !row.name.trim() ? [] : [{ name: row.name.trim(), works: { low_mps, high_mps } }]
  })
  sent = JSON.stringify(points)
  emit('change', points)
}
function drop(index: number): void {
  rows.value.splice(index, 1)
  send()
}
</script>

<template>
  <fieldset class="points">
    <legend class="label">Tow points, from tight to wide</legend>
    <div v-for="(row, index) in rows" :key="index" class="row">
      <label><span class="label">name</span><input v-model="row.name" maxlength="30" @change="send" /></label>
      <label
        ><span class="label">works from, {{ display.units.speed }}</span
        ><input v-model="row.low" inputmode="decimal" @change="send"
      /></label>
      <label><span class="label">to</span><input v-model="row.high" inputmode="decimal" @change="send" /></label>
      <button type="button" class="plain" @click="drop(index)">Remove</button>
    </div>
    <button v-if="rows.length < MOST" type="button" class="plain" @click="rows.push({ name: '', low: '', high: '' })">
      Add a tow point
    </button>
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
  grid-template-columns: 2fr 1fr 1fr auto;
  gap: 8px;
  align-items: end;
}
label {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
</style>
