<script setup lang="ts">
// Eight directions, one tap each.
defineProps<{ label: string }>()
const degrees = defineModel<number>({ required: true })
const POINTS = ['N', 'NE', 'E', 'SE', 'S', 'SW', 'W', 'NW'].map((name, i) => ({ name, degrees: i * 45 }))
</script>

<template>
  <div class="points" role="group" :aria-label="label">
    <v-btn
      v-for="point in POINTS"
      :key="point.name"
      class="point"
      :class="{ chosen: Math.round(degrees / 45) % 8 === point.degrees / 45 }"
      :data-test="`point-${point.name}`"
      @click="degrees = point.degrees"
      >{{ point.name }}</v-btn
    >
  </div>
</template>

<style scoped>
.points {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 6px;
  margin: 12px 0;
}
.point {
  --v-btn-height: var(--touch);
}
</style>
