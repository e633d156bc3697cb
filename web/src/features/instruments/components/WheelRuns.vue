<script setup lang="ts">
// A wheel set right by runs both ways: what to do now, what is heard meanwhile, and what comes of it.
import { computed, ref } from 'vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed } from '@/shared/units/units'
import { useWheelRuns, type RunStep } from '../composables/useWheelRuns'

const props = defineProps<{ sourceId: string; present: number }>()
const emit = defineEmits<{ found: [factor: number] }>()
const display = useDisplayStore()
const { step, now, count, go, leave } = useWheelRuns(
  () => props.sourceId,
  () => props.present,
)
const problem = ref<string | null>(null)
const found = ref<number | null>(null)

const WORDS: Record<RunStep, string> = {
  ready: 'One straight line at one throttle, half a minute or more each way: what the current gives there it takes on the way back.',
  there: 'Hold course and throttle.',
  turn: 'Turn round and come back on the same line; begin when the boat runs straight.',
  back: 'Hold course and throttle.',
  done: '',
}
const ACTS: Record<RunStep, string> = {
  ready: 'Begin the run there',
  there: 'End this run',
  turn: 'Begin the run back',
  back: 'End this run',
  done: 'Run it again',
}
const heard = computed(() =>
  now.value
    ? `GPS ${formatSpeed(now.value.ground_mps, display.units)}, wheel ${formatSpeed(now.value.wheel_mps, display.units)}`
    : 'Wheel and GPS must both be heard: one of them is silent.',
)

async function act(): Promise<void> {
  problem.value = null
  found.value = null
  try {
    const factor = await go()
    if (factor === null) return
    found.value = factor
    emit('found', factor)
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}
</script>

<template>
  <div class="runs" role="group" aria-label="Runs both ways" data-test="wheel-runs" :data-step="step">
    <p class="label">{{ WORDS[step] }}</p>
    <p>
      {{ heard }}<template v-if="count"> · heard {{ count }} times</template>
    </p>
    <p v-if="found !== null" data-test="wheel-found">
      <strong>The water passes {{ found.toFixed(2) }} times as fast as the wheel shows.</strong> It stands above; keep it there.
    </p>
    <ErrorNote :text="problem" />
    <div class="acts">
      <v-btn :disabled="!now && (step === 'ready' || step === 'turn')" data-test="wheel-run" @click="act">{{ ACTS[step] }}</v-btn>
      <v-btn v-if="step !== 'ready' && step !== 'done'" @click="leave">Leave it</v-btn>
    </div>
  </div>
</template>

<style scoped>
.runs {
  display: grid;
  gap: 6px;
  padding-left: 10px;
  border-left: 3px solid var(--line);
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
