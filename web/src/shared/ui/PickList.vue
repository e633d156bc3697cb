<script setup lang="ts" generic="T extends string | number">
// A list at the side: one of it is looked at beside.
defineProps<{ label: string; items: readonly { value: T; title: string; note?: string; test?: string }[] }>()
const chosen = defineModel<T | null>({ required: true })
</script>

<template>
  <div class="pick-list" role="group" :aria-label="label">
    <button
      v-for="item in items"
      :key="item.value"
      type="button"
      class="pick"
      :class="{ chosen: item.value === chosen }"
      :aria-pressed="item.value === chosen"
      :data-test="item.test"
      @click="chosen = item.value"
    >
      <strong>{{ item.title }}</strong>
      <span v-if="item.note" class="label">{{ item.note }}</span>
    </button>
    <slot />
  </div>
</template>

<style scoped>
.pick-list {
  display: grid;
  gap: 8px;
  align-content: start;
}
.pick {
  display: grid;
  min-height: 56px;
  padding: 6px 10px;
  text-align: left;
  color: var(--ink);
  border: 1px solid var(--line);
  border-radius: 4px;
}
.pick.chosen {
  border-color: var(--ink);
  box-shadow: inset 0 0 0 1.5px var(--ink);
}
</style>
