<script setup lang="ts">
// One number: it holds SI, and shows it in the reader's units. Until somebody types, nothing changes
// what it holds, whatever is done to the units.
import { computed, ref } from 'vue'
import { readIn, shownIn, unitOf, type Measure, type Typed } from '@/shared/units/measures'
import { useDisplayStore } from '@/shared/units/store'

defineOptions({ inheritAttrs: false })
const props = defineProps<{ label: string; measure: Measure; placeholder?: string; test?: string; bad?: boolean }>()
const value = defineModel<Typed>({ required: true })

const display = useDisplayStore()
/** The text under the fingers; null as soon as the field is left. */
const typing = ref<{ text: string; units: string } | null>(null)
const units = computed(() => JSON.stringify(display.units))
const text = computed(() => {
  // A text that was typed in other units is not what it says any more.
  if (typing.value?.units === units.value) return typing.value.text
  return typeof value.value === 'number' ? shownIn(value.value, props.measure, display.units) : (value.value ?? '')
})
const unit = computed(() => unitOf(props.measure, display.units))

function type(typed: string): void {
  typing.value = { text: typed, units: units.value }
  value.value = typed.trim() === '' ? null : (readIn(typed, props.measure, display.units) ?? typed)
}
</script>

<template>
  <label class="number-field" :class="{ bad }">
    <span class="label"
      >{{ label }}<template v-if="unit">, {{ unit }}</template></span
    >
    <input
      v-bind="$attrs"
      :value="text"
      :inputmode="measure === 'count' ? 'numeric' : 'decimal'"
      :placeholder="placeholder"
      :data-test="test"
      @input="type(($event.target as HTMLInputElement).value)"
      @blur="typing = null"
    />
  </label>
</template>

<style scoped>
.number-field {
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-width: 0;
}
input {
  width: 100%;
  min-height: 44px;
  padding: 0 8px;
  font-size: 16px;
  font-weight: 600;
  color: var(--ink);
  background: var(--frost);
  border: 1px solid var(--ink-2);
  border-radius: 4px;
}
.bad input {
  border-color: var(--now);
  border-width: 2px;
}
</style>
