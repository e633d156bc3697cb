<script setup lang="ts">
// One decision, from both sides: what was to be expected of it, and of leaving all as it was.
import { computed } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { changedWords, sidePaths, worth, type Decision } from '../logic/decision'
import { clockOf } from '../logic/truth'

const props = defineProps<{ decision: Decision }>()
const display = useDisplayStore()
const paths = computed(() => sidePaths(props.decision, 300, 80))
const rods = computed(() => props.decision.after.map((side) => side.rod_id.replace('rod-', 'rod ')).join(', '))
const gained = computed(() => worth(props.decision))
const expected = (hits: readonly number[]): string => hits.at(-1)!.toFixed(1)
</script>

<template>
  <article data-test="decision">
    <svg viewBox="0 -4 300 88" aria-hidden="true">
      <polyline :points="paths.stayed" class="stayed" />
      <polyline :points="paths.changed" class="changed" />
    </svg>
    <div>
      <h3>{{ clockOf(decision.minute) }}, {{ rods }}: {{ changedWords(decision, display.units) }}</h3>
      <p>
        <strong>{{ gained > 0 ? 'Gained' : 'Cost' }} {{ Math.abs(gained).toFixed(1) }} hits</strong> in
        {{ Math.round(decision.minutes) }} minutes: {{ expected(decision.changed) }} to be expected (line), against
        {{ expected(decision.stayed) }} had all been left as it was (dashes). {{ decision.hits }} came.
      </p>
    </div>
  </article>
</template>

<style scoped>
article {
  display: grid;
  grid-template-columns: 220px 1fr;
  gap: 16px;
  align-items: center;
}
svg {
  width: 100%;
  background: var(--frost-2);
}
polyline {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 2;
}
.changed {
  stroke: var(--ink);
  stroke-width: 3;
}
.stayed {
  stroke-dasharray: 6 5;
}
h3 {
  font-size: 16px;
}
@media (max-width: 700px) {
  article {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
