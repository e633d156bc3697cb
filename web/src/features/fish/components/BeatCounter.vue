<script setup lang="ts">
// Tap along with the nodding tip: the count of the boat side teaches, later counts tell the speed below.
import { computed, ref, shallowRef, watch } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed } from '@/shared/units/units'
import type { RodView } from '@/features/trip/api'

interface SpeedAtDepth {
  speed_mps: number
  doubt_mps: number
}

const props = defineProps<{
  rod: RodView
  speedMps: number
  speedAtDepth: (rodId: string, beats: number, seconds: number) => Promise<SpeedAtDepth>
}>()
const emit = defineEmits<{ count: [beats: number, seconds: number]; failed: [error: unknown] }>()

const FEWEST = 7
const PAUSE_MS = 4000

const display = useDisplayStore()
const taps = ref<number[]>([])
const found = shallowRef<SpeedAtDepth | null>(null)
const beats = computed(() => taps.value.length - 1)
const seconds = computed(() => (taps.value.length > 1 ? (taps.value.at(-1)! - taps.value[0]!) / 1000 : 0))
const enough = computed(() => taps.value.length >= FEWEST && seconds.value > 0)
const rate = computed(() => (enough.value ? (beats.value / seconds.value) * 10 : null))

function tap(event: Event): void {
  const now = event.timeStamp
  const last = taps.value.at(-1)
  // After a pause a new count begins: nobody has to press a button for that.
  taps.value = last !== undefined && now - last < PAUSE_MS ? [...taps.value, now] : [now]
}

watch(taps, async () => {
  if (!enough.value || !props.rod.beat) return
  try {
    found.value = await props.speedAtDepth(props.rod.id, beats.value, seconds.value)
  } catch (error) {
    emit('failed', error)
  }
})
</script>

<template>
  <div class="beat" data-test="beat">
    <v-btn class="tap" data-test="beat-tap" @pointerdown="tap" @keydown.enter="tap">Tap with the tip</v-btn>
    <div class="words">
      <span v-if="rate !== null" class="figure" data-test="beat-rate">{{ rate.toFixed(0) }} in 10 s</span>
      <span v-else class="label">{{ taps.length ? `${taps.length} of ${FEWEST} taps` : 'one tap a nod, seven or more' }}</span>
      <span v-if="rod.beats_per_10s != null" class="label"
        >should beat {{ rod.beats_per_10s.toFixed(0) }} in 10 s at {{ formatSpeed(speedMps, display.units) }}</span
      >
      <strong v-if="found && enough" data-test="beat-speed">
        the blade goes {{ formatSpeed(found.speed_mps, display.units) }} ±
        {{ formatSpeed(Math.max(found.doubt_mps, 0.045), display.units, false) }}
      </strong>
    </div>
    <v-btn v-if="enough" class="keep" data-test="beat-keep" @click="emit('count', beats, Math.round(seconds * 100) / 100)">
      Counted beside the boat at {{ formatSpeed(speedMps, display.units) }}
    </v-btn>
  </div>
</template>

<style scoped>
.beat {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  margin: 6px 0;
}
.tap {
  min-height: 72px;
  min-width: 150px;
  touch-action: manipulation;
}
.words {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-width: 150px;
}
.figure {
  font-size: 24px;
}
.keep {
  min-height: var(--touch);
}
</style>
