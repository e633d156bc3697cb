<script setup lang="ts">
// How many fish, how long, and when: of all fish, or of one species alone.
import NumberField from '@/shared/ui/NumberField.vue'
import type { FishForm } from '../logic/rules'

defineProps<{ test: string }>()
const rules = defineModel<FishForm>({ required: true })
</script>

<template>
  <NumberField v-model="rules.bag" label="fish a day, at most" measure="count" placeholder="not said" :test="`${test}-bag`" />
  <NumberField
    v-model="rules.possession"
    label="in possession, at most"
    measure="count"
    placeholder="not said"
    :test="`${test}-possession`"
  />
  <label class="switch"
    ><input v-model="rules.baitCounts" type="checkbox" :data-test="`${test}-bait-counts`" /> a fish caught on bait counts, let go or
    not</label
  >
  <NumberField v-model="rules.least" label="kept fish: shortest" measure="short" placeholder="not said" :test="`${test}-least`" />
  <NumberField v-model="rules.longest" label="kept fish: longest" measure="short" placeholder="not said" :test="`${test}-longest`" />
  <NumberField v-model="rules.slotLow" label="those from … go back" measure="short" placeholder="no slot" :test="`${test}-slot-low`" />
  <NumberField v-model="rules.slotHigh" label="… to" measure="short" placeholder="no slot" :test="`${test}-slot-high`" />
  <label class="field"
    ><span class="label">season from, as 04-15</span
    ><input v-model="rules.from" maxlength="5" placeholder="all year" :data-test="`${test}-season-from`"
  /></label>
  <label class="field"
    ><span class="label">to, as 10-31</span><input v-model="rules.to" maxlength="5" placeholder="all year" :data-test="`${test}-season-to`"
  /></label>
</template>

<style scoped>
.switch input {
  flex: none;
}
</style>
