<script setup lang="ts">
// What a look back is at; the page behind the other tab is fetched while nobody waits for it.
import { onMounted } from 'vue'

onMounted(() => (window.requestIdleCallback ?? setTimeout)(() => void import('../pages/SeasonPage.vue')))
</script>

<template>
  <h1>Review</h1>
  <nav class="tabs" aria-label="Kinds of looking back">
    <router-link to="/review" data-test="tab-trips">Trips</router-link>
    <router-link to="/review/season" data-test="tab-season">Season</router-link>
  </nav>
</template>

<style scoped>
h1 {
  font-size: 20px;
}
.tabs {
  display: flex;
  gap: 4px;
}
a {
  display: inline-flex;
  align-items: center;
  min-height: 48px;
  padding: 0 16px;
  color: var(--ink);
  font-weight: 650;
  text-decoration: none;
  border-bottom: 3px solid transparent;
}
a.router-link-exact-active {
  border-bottom-color: var(--ink);
}
</style>
