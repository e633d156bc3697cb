<script setup lang="ts" generic="T extends string | number">
// One of a few, side by side: each can be hit with a wet thumb, and the arrows go through them.
defineProps<{ label: string; options: readonly { value: T; title: string; note?: string }[]; test?: string }>()
const value = defineModel<T | null>({ required: true })
</script>

<template>
  <fieldset class="choice-row">
    <legend class="label">{{ label }}</legend>
    <label v-for="option in options" :key="option.value" class="option" :class="{ chosen: option.value === value }">
      <input v-model="value" type="radio" :value="option.value" :data-test="test && `${test}-${option.value}`" />
      <span>{{ option.title }}</span>
      <small v-if="option.note">{{ option.note }}</small>
    </label>
  </fieldset>
</template>

<style scoped>
.choice-row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
}
legend {
  padding: 0 0 4px;
}
.option {
  position: relative;
  display: flex;
  flex-direction: column;
  justify-content: center;
  min-height: 56px;
  padding: 4px 16px;
  border: 1px solid var(--ink);
  border-radius: 4px;
  font-weight: 650;
  cursor: pointer;
}
.option small {
  font-weight: 520;
}
.option.chosen {
  background: var(--ink);
  color: var(--frost);
}
.option:focus-within {
  outline: 3px solid var(--ink);
  outline-offset: 2px;
}
input {
  position: absolute;
  inset: 0;
  opacity: 0;
  margin: 0;
  cursor: pointer;
}
</style>
