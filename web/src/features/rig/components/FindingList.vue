<script setup lang="ts">
// What the rules say of a rod, the worst first, each with whose rule it is.
import type { BenchView } from '@/features/trip/api'

defineProps<{ findings: BenchView['findings'] }>()
const SIGNS: Record<string, string> = { stop: 'Wrong', mend: 'Better', look: 'Look' }
</script>

<template>
  <ul class="findings" data-test="findings">
    <li v-for="item in findings" :key="item.rule_id" :class="item.severity" :data-test="`finding-${item.rule_id}`">
      <strong>{{ SIGNS[item.severity] }}: {{ item.message }}</strong>
      <span>{{ item.remedy }}</span>
      <span class="label">Rule: {{ item.school }}</span>
    </li>
    <li v-if="!findings.length" class="fine">Nothing against it.</li>
  </ul>
</template>

<style scoped>
.findings {
  list-style: none;
  padding: 0;
  display: flex;
  flex-direction: column;
  gap: 6px;
}
li {
  display: flex;
  flex-direction: column;
  border-left: 4px solid var(--line);
  padding: 2px 10px;
}
li.stop {
  border-left-color: var(--now);
}
li.stop strong {
  color: var(--now);
}
li.mend {
  border-left: 4px double var(--ink);
}
</style>
