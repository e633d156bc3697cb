<script setup lang="ts">
// A blade's choice of tow points: each another swing, each its own working speeds.
import { ref, watch } from 'vue'
import NumberField from '@/shared/ui/NumberField.vue'
import type { Typed } from '@/shared/units/measures'

interface Point {
  name: string
  works: { low_mps: number; high_mps: number }
}
const props = defineProps<{ points: Point[] }>()
const emit = defineEmits<{ change: [points: Point[]] }>()

const MOST = 6
const rows = ref<{ name: string; low: Typed; high: Typed }[]>([])
let sent = ''

watch(
  () => JSON.stringify(props.points),
  (now) => {
    if (now === sent) return
    rows.value = props.points.map((point) => ({
      name: point.name,
      low: point.works.low_mps,
      high: point.works.high_mps,
    }))
  },
  { immediate: true },
)

function send(): void {
  const points = rows.value.flatMap((row) => {
    const { low, high } = row
    if (typeof low !== 'number' || typeof high !== 'number' || !row.name.trim()) return []
    return [{ name: row.name.trim(), works: { low_mps: low, high_mps: high } }]
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
