<script setup lang="ts">
// The current: typed, or found from two runs at the same throttle.
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import { ref, watch } from 'vue'
import { parseNumber } from '@/shared/units/parse'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed, speedToMps } from '@/shared/units/units'
import type { FishView } from '@/features/trip/api'
import CompassPoints from './CompassPoints.vue'

const props = defineProps<{
  view: FishView
  note: (speedMps: number, towardDeg: number) => Promise<string | null>
  fromRuns: (up: number, down: number, towardDeg: number) => Promise<{ speed_mps: number; toward_deg: number }>
}>()
const open = defineModel<boolean>({ required: true })

const display = useDisplayStore()
const typed = ref('')
const up = ref('')
const down = ref('')
const toward = ref(180)
const error = ref<string | null>(null)

watch(open, (now) => {
  if (!now) return
  const current = props.view.current
  typed.value = current ? formatSpeed(current.speed_mps, display.units, false) : ''
  toward.value = current?.toward_deg ?? 180
  up.value = down.value = ''
  error.value = null
})

async function fill(): Promise<void> {
  const runs = [up.value, down.value].map(parseNumber)
  if (runs.some((value) => value === null)) {
    error.value = 'Type what the GPS shows going up and going down, such as 1.8 and 4.2.'
    return
  }
  try {
    const found = await props.fromRuns(speedToMps(runs[0]!, display.units), speedToMps(runs[1]!, display.units), toward.value)
    typed.value = formatSpeed(found.speed_mps, display.units, false)
    toward.value = (Math.round(found.toward_deg / 45) % 8) * 45
    error.value = null
  } catch (caught) {
    error.value = caught instanceof Error ? caught.message : String(caught)
  }
}

async function save(): Promise<void> {
  const value = parseNumber(typed.value)
  if (value === null) {
    error.value = `Current: “${typed.value}” is no number. Type one, such as 1.2; 0 for none.`
    return
  }
  error.value = await props.note(speedToMps(value, display.units), toward.value)
  if (error.value === null) open.value = false
}
</script>

<template>
  <entry-sheet v-model="open" title="Current" data-test="current-dialog">
    <v-card-text>
      <label class="row"
        ><input
          v-model="typed"
          inputmode="decimal"
          aria-label="Speed of the current"
          data-test="current-speed"
          @keydown.enter="save"
        /><span class="label">{{ display.units.speed }}, flowing toward</span></label
      >
      <CompassPoints v-model="toward" label="Flowing toward" />
      <p class="label">Not known? Run up and down at the same throttle and type what the GPS shows:</p>
      <div class="runs">
        <label
          ><input v-model="up" inputmode="decimal" aria-label="GPS going up" data-test="run-up" /><span class="label">going up</span></label
        >
        <label
          ><input v-model="down" inputmode="decimal" aria-label="GPS going down" data-test="run-down" /><span class="label"
            >going down</span
          ></label
        >
        <v-btn class="find" data-test="find-current" @click="fill">Find it</v-btn>
      </div>
      <p v-if="error" class="error" role="alert">{{ error }}</p>
    </v-card-text>
    <v-card-actions>
      <v-btn class="big" @click="open = false">Cancel</v-btn>
      <v-btn class="big chosen" data-test="current-save" @click="save">Save</v-btn>
    </v-card-actions>
  </entry-sheet>
</template>

<style scoped src="./dialog.css"></style>
<style scoped>
.runs {
  display: flex;
  gap: 12px;
  align-items: center;
}
.runs input {
  width: 80px;
  font-size: 24px;
}
.runs label {
  display: flex;
  flex-direction: column;
  align-items: center;
}
.find {
  --v-btn-height: var(--touch);
}
</style>
