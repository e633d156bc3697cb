<script setup lang="ts">
// A word or two to type, with its name above it.
defineOptions({ inheritAttrs: false })
defineProps<{ label: string; test?: string }>()
const value = defineModel<string>({ required: true })
</script>

<template>
  <label class="text-field">
    <span class="label">{{ label }}</span>
    <input v-bind="$attrs" v-model="value" :data-test="test" />
  </label>
</template>

<style scoped>
.text-field {
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-width: 0;
  text-align: left;
}
input {
  width: 100%;
  min-height: 48px;
  padding: 0 10px;
  font-size: 17px;
  font-weight: 600;
  color: var(--ink);
  background: var(--frost);
  border: 1px solid var(--ink-2);
  border-radius: 4px;
}
</style>
