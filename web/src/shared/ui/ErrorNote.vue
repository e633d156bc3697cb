<script setup lang="ts">
// What went wrong, where it went wrong, said to those who do not see it too.
defineProps<{ text: string | null }>()
</script>

<template>
  <p v-if="text" class="error-note" role="alert">{{ text }}</p>
</template>

<style scoped>
.error-note {
  border-left: 4px solid var(--now);
  padding-left: 10px;
  color: var(--now);
  font-weight: 700;
}
</style>
