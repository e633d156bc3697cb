<script setup lang="ts">
// The mood ladder on two axes: where this rod stands, and what aboard gives a little less or more.
import { computed, reactive, shallowRef, watch } from 'vue'
import type { BenchView, LadderAsked, LadderStep, RodSetup } from '@/features/trip/api'
import { latestOnly } from '@/shared/core/latest'

const props = defineProps<{ bench: BenchView; colour: string; ladderFor: (asked: LadderAsked) => Promise<LadderStep[]> }>()
const emit = defineEmits<{ change: [setup: RodSetup]; failed: [error: unknown] }>()

type Want = LadderAsked['flash']
const WANTS: Want[] = ['less', 'same', 'more']
const AXES = ['flash', 'thump'] as const
const wanted = reactive<Record<(typeof AXES)[number], Want>>({ flash: 'same', thump: 'same' })
const steps = shallowRef<LadderStep[] | null>(null)
const SIZE = 150

const ask = latestOnly(
  (asked: LadderAsked) => props.ladderFor(asked),
  (answer) => (steps.value = answer),
  (error) => emit('failed', error),
)
watch(
  () => [JSON.stringify(props.bench.setup), wanted.flash, wanted.thump],
  () => ask({ setup: props.bench.setup, ...wanted }),
  { immediate: true },
)
const x = (value: number): number => 14 + value * (SIZE - 22)
const y = (value: number): number => SIZE - 14 - value * (SIZE - 22)
const asked = computed(() =>
  AXES.every((axis) => wanted[axis] === 'same')
    ? 'another look, no louder'
    : AXES.map((axis) => `${wanted[axis] === 'same' ? 'same' : `a little ${wanted[axis]}`} ${axis}`).join(', '),
)
</script>

<template>
  <section class="ladder" data-test="mood-ladder">
    <svg
      :width="SIZE"
      :height="SIZE"
      role="img"
      :aria-label="`Flash ${bench.mood.flash.toFixed(1)}, thump ${bench.mood.thump.toFixed(1)}: ${bench.rung}`"
    >
      <path :d="`M14 4 V${SIZE - 14} H${SIZE - 4}`" class="axis" />
      <text :x="SIZE - 6" :y="SIZE - 2" text-anchor="end">flash</text>
      <text x="10" y="10" transform="rotate(-90 10 10)" text-anchor="end">thump</text>
      <g v-for="(step, index) in steps ?? []" :key="index">
        <path :d="`M${x(bench.mood.flash)} ${y(bench.mood.thump)} L${x(step.mood.flash)} ${y(step.mood.thump)}`" class="way" />
        <circle :cx="x(step.mood.flash)" :cy="y(step.mood.thump)" r="8" class="step" />
        <text :x="x(step.mood.flash)" :y="y(step.mood.thump) + 4" text-anchor="middle" class="number">{{ index + 1 }}</text>
      </g>
      <circle :cx="x(bench.mood.flash)" :cy="y(bench.mood.thump)" r="6" :fill="colour" class="now" />
    </svg>
    <div class="ask">
      <p class="label">{{ bench.rung }}. Start with little, add until they answer; never a radical change.</p>
      <div v-for="axis in AXES" :key="axis" class="wants">
        <span class="label">{{ axis }}</span>
        <button
          v-for="want in WANTS"
          :key="want"
          :class="{ on: wanted[axis] === want }"
          :data-test="`${axis}-${want}`"
          @click="wanted[axis] = want"
        >
          {{ want }}
        </button>
      </div>
    </div>
    <ol v-if="steps?.length" class="steps">
      <li v-for="(step, index) in steps" :key="index">
        <button :data-test="`step-${index}`" @click="emit('change', step.setup)">
          <strong>{{ index + 1 }}</strong> {{ step.words }}<span v-if="!step.fits" class="label"> (shares no speed with the rest)</span>
        </button>
      </li>
    </ol>
    <p v-else-if="steps" class="label">Nothing aboard and free gives {{ asked }}.</p>
  </section>
</template>

<style scoped>
.ladder {
  display: grid;
  grid-template-columns: auto auto minmax(0, 1fr);
  gap: 4px 20px;
  align-items: start;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
.axis {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}
.way {
  stroke: var(--line);
  stroke-width: 1.5;
}
.step {
  fill: var(--frost);
  stroke: var(--ink);
}
.now {
  stroke: var(--ink);
  stroke-width: 1.5;
}
text {
  font-size: 11px;
  font-weight: 640;
  fill: var(--ink);
}
.ask {
  max-width: 250px;
  display: grid;
  gap: 6px;
}
.wants {
  display: grid;
  grid-template-columns: 46px repeat(3, 1fr);
  align-items: center;
}
.wants button {
  min-height: 44px;
  border: 1px solid var(--line);
  font-weight: 620;
}
.wants .on {
  background: var(--ink);
  color: var(--frost);
}
.steps {
  list-style: none;
  padding: 0;
  margin: 0;
}
.steps button {
  min-height: 44px;
  text-align: left;
  font-weight: 560;
}
@media (max-width: 900px) {
  .ladder {
    grid-template-columns: auto minmax(0, 1fr);
  }
  .steps {
    grid-column: 1 / -1;
  }
}
</style>
