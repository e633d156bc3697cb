<script setup lang="ts">
// Nothing here yet: what to do first, and one button that does it.
defineProps<{ title: string; text?: string; act?: string; test?: string }>()
const emit = defineEmits<{ act: [] }>()
</script>

<template>
  <section class="empty-state" :data-test="test">
    <h1>{{ title }}</h1>
    <p v-if="text">{{ text }}</p>
    <slot />
    <v-btn v-if="act" class="act" @click="emit('act')">{{ act }}</v-btn>
  </section>
</template>

<style scoped>
.empty-state {
  display: grid;
  gap: 12px;
  justify-items: center;
  max-width: 460px;
  margin: 18vh auto;
  padding: 0 16px;
  text-align: center;
}
h1 {
  font-size: 24px;
  font-weight: 720;
  font-stretch: 90%;
}
.act {
  --v-btn-height: var(--touch);
  background: var(--ink);
  color: var(--frost);
}
</style>
