<script setup lang="ts">
// The wind: where from, how the boat drifts before it, and the user's own look into it and with it.
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import { computed, ref, watch } from 'vue'
import { parseNumber } from '@/shared/units/parse'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed, speedToMps } from '@/shared/units/units'
import type { FishView } from '@/features/trip/api'
import CompassPoints from './CompassPoints.vue'

interface Wind {
  from_deg: number
  drift_mps: number
  into_mps: number | null
  with_mps: number | null
}
const props = defineProps<{ view: FishView; note: (wind: Wind) => Promise<string | null> }>()
const open = defineModel<boolean>({ required: true })

const display = useDisplayStore()
const from = ref(270)
const drift = ref('')
const into = ref('')
const behind = ref('')
const error = ref<string | null>(null)
const noted = computed(() => props.view.wind)

function shown(mps: number | null | undefined): string {
  return mps ? formatSpeed(mps, display.units, false) : ''
}
watch(
  open,
  (now) => {
    if (!now) return
    const wind = noted.value?.wind
    from.value = wind?.from_deg ?? 270
    drift.value = shown(wind?.drift_mps)
    into.value = shown(wind?.into_mps)
    behind.value = shown(wind?.with_mps)
    error.value = null
  },
  { immediate: true },
)

async function save(): Promise<void> {
  const read: Record<string, number | null> = {}
  for (const [name, text] of [
    ['Drift', drift.value],
    ['Into the wind', into.value],
    ['With the wind', behind.value],
  ] as const) {
    const value = text.trim() === '' ? null : parseNumber(text)
    if (text.trim() !== '' && value === null) {
      error.value = `${name}: “${text}” is no number. Type one, such as 1.2, or leave it empty.`
      return
    }
    read[name] = value === null ? null : speedToMps(value, display.units)
  }
  error.value = await props.note({
    from_deg: from.value,
    drift_mps: read['Drift'] ?? 0,
    into_mps: read['Into the wind'] ?? null,
    with_mps: read['With the wind'] ?? null,
  })
  if (error.value === null) open.value = false
}
</script>

<template>
  <entry-sheet v-model="open" title="Wind" data-test="wind-dialog">
    <v-card-text>
      <span class="label">blowing from</span>
      <CompassPoints v-model="from" label="Blowing from" />
      <label class="row"
        ><input v-model="drift" inputmode="decimal" aria-label="Drift in neutral" data-test="wind-drift" /><span class="label"
          >{{ display.units.speed }} drift in neutral, current taken off: it says how far the lines stream to windward</span
        ></label
      >
      <p class="label">Your own look: lures working alike beside the boat, at these speeds by GPS</p>
      <div class="looks">
        <label
          ><input v-model="into" inputmode="decimal" aria-label="GPS into the wind" data-test="wind-into" /><span class="label"
            >into the wind</span
          ></label
        >
        <label
          ><input v-model="behind" inputmode="decimal" aria-label="GPS with the wind" data-test="wind-with" /><span class="label"
            >with it, or in a calm</span
          ></label
        >
      </div>
      <p v-if="noted && noted.across_deg >= 1" class="label" data-test="wind-across">
        Across the wind the lines stream {{ Math.round(noted.across_deg) }}° to windward at this speed.
      </p>
      <p v-if="error" class="error" role="alert">{{ error }}</p>
    </v-card-text>
    <v-card-actions>
      <v-btn class="big" @click="open = false">Cancel</v-btn>
      <v-btn class="big solid" data-test="wind-save" @click="save">Save</v-btn>
    </v-card-actions>
  </entry-sheet>
</template>

<style scoped src="./dialog.css"></style>
<style scoped>
.looks {
  display: flex;
  gap: 20px;
  margin-top: 8px;
}
.looks label {
  display: flex;
  flex-direction: column;
}
</style>
