<script setup lang="ts">
// The questions of a task: a choice, a number, or acts that are tapped in their order.
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import type { Typed } from '@/shared/units/measures'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'
import { measureOf, type Ask, type Said } from '../logic/answers'

defineProps<{ asks: readonly Ask[] }>()
const said = defineModel<Said>({ required: true })

const set = (key: string, value: Typed | string[]): void => void (said.value = { ...said.value, [key]: value })
const ordered = (ask: Ask): string[] => (said.value[ask.key] as string[] | undefined) ?? []
const display = useDisplayStore()
const choices = (ask: Ask) =>
  (ask.options ?? []).map(({ key, words, depth_m }) => ({
    value: key,
    title: depth_m == null ? words : formatLength(depth_m, display.units),
  }))

function tap(ask: Ask, key: string): void {
  const before = ordered(ask)
  // Tapped again, it and what came after it are taken back.
  const at = before.indexOf(key)
  set(ask.key, at < 0 ? [...before, key] : before.slice(0, at))
}
</script>

<template>
  <div class="asks">
    <template v-for="ask in asks" :key="ask.key">
      <ChoiceRow
        v-if="ask.kind === 'choice'"
        :model-value="(said[ask.key] as string | undefined) ?? null"
        :label="ask.label"
        :options="choices(ask)"
        :test="`ask-${ask.key}`"
        @update:model-value="set(ask.key, $event)"
      />
      <NumberField
        v-else-if="ask.kind === 'number'"
        :model-value="(said[ask.key] as Typed | undefined) ?? null"
        :label="ask.label"
        :measure="measureOf(ask)"
        :test="`ask-${ask.key}`"
        @update:model-value="set(ask.key, $event)"
      />
      <fieldset v-else>
        <legend class="label">{{ ask.label }}</legend>
        <button
          v-for="option in ask.options"
          :key="option.key"
          type="button"
          :class="{ chosen: ordered(ask).includes(option.key) }"
          :aria-label="`${option.words}${ordered(ask).includes(option.key) ? `, number ${ordered(ask).indexOf(option.key) + 1}` : ''}`"
          :data-test="`ask-${ask.key}-${option.key}`"
          @click="tap(ask, option.key)"
        >
          <strong>{{ ordered(ask).includes(option.key) ? ordered(ask).indexOf(option.key) + 1 : '' }}</strong>
          {{ option.words }}
        </button>
      </fieldset>
    </template>
  </div>
</template>

<style scoped>
.asks {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(340px, 100%), 1fr));
  gap: 12px;
  align-items: start;
}
fieldset {
  display: grid;
  gap: 6px;
  border: 0;
  padding: 0;
  margin: 0;
}
fieldset button {
  display: grid;
  grid-template-columns: 32px 1fr;
  align-items: center;
  min-height: 48px;
  padding: 0 10px;
  text-align: left;
  color: var(--ink);
  border: 1px solid var(--line);
}
fieldset button.chosen {
  border-color: var(--ink);
}
</style>
