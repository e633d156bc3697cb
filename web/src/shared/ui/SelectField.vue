<script setup lang="ts" generic="T extends string | number">
// One of many, by name. The browser's own list: on a phone it is the phone's, as large as the hand needs.
defineOptions({ inheritAttrs: false })
withDefaults(
  defineProps<{
    label: string
    items: readonly { value: T; title: string }[]
    test?: string
    bad?: boolean
    /** The name is said to those who hear the page and not drawn: what stands around it says it. */
    silent?: boolean
  }>(),
  { test: undefined },
)
const value = defineModel<T | null>({ required: true })
</script>

<template>
  <label class="select-field" :class="{ bad }">
    <span v-if="!silent" class="label">{{ label }}</span>
    <select v-bind="$attrs" v-model="value" :aria-label="silent ? label : undefined" :data-test="test">
      <option v-for="item in items" :key="item.value" :value="item.value">{{ item.title }}</option>
    </select>
  </label>
</template>

<style scoped>
.select-field {
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-width: 0;
}
select {
  width: 100%;
  min-height: 44px;
  padding: 0 8px;
  font: inherit;
  font-size: 16px;
  font-weight: 600;
  color: var(--ink);
  background: var(--frost);
  border: 1px solid var(--ink-2);
  border-radius: 4px;
}
.bad select {
  border-color: var(--now);
  border-width: 2px;
}
</style>
