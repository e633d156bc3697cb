<script setup lang="ts">
// A figure that is read from a distance, and what it is, small under it.
defineProps<{ value: string | number; label: string }>()
</script>

<template>
  <span class="figure-read"
    ><span class="figure">{{ value }}</span
    ><span class="label"
      ><slot>{{ label }}</slot></span
    ></span
  >
</template>

<style scoped>
.figure-read {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 3px;
}
.figure {
  font-size: 26px;
}
</style>
