<script setup lang="ts">
// What is chosen once and then forgotten: theme, units, account. One button, so that the rail holds places only.
import { mdiDotsHorizontal } from '@mdi/js'
import { ref } from 'vue'
import { useSessionStore } from '@/features/account/store'
import { useDisplayStore } from '@/shared/units/store'

const open = ref(false)
const emit = defineEmits<{ leave: [] }>()
const display = useDisplayStore()
const session = useSessionStore()
</script>

<template>
  <v-menu v-model="open" location="end bottom" :close-on-content-click="false" content-class="quiet-menu">
    <template #activator="{ props }">
      <button class="opener" v-bind="props" data-test="menu">
        <svg viewBox="0 0 24 24" aria-hidden="true"><path :d="mdiDotsHorizontal" /></svg>More
      </button>
    </template>
    <div class="sheet">
      <button class="row" data-test="theme" @click="display.toggleTheme">
        <span>Theme</span><strong>{{ display.theme === 'glare' ? 'Glare' : 'Before dawn' }}</strong>
      </button>
      <button class="row" data-test="units" @click="display.toggleUnits">
        <span>Units</span><strong>{{ display.units.length }}, {{ display.units.temperature }}</strong>
      </button>
      <button class="row" data-test="knots" :aria-pressed="display.units.speed === 'kn'" @click="display.toggleNautical">
        <span>Speed</span><strong>{{ display.units.speed }}</strong>
      </button>
      <button class="row" data-test="spoken" :aria-pressed="display.spoken" @click="display.spoken = !display.spoken">
        <span>Numbers spoken</span><strong>{{ display.spoken ? 'yes' : 'no' }}</strong>
      </button>
      <router-link class="row" to="/instruments" data-test="to-instruments" @click="open = false"
        ><span>Instruments</span><strong>›</strong></router-link
      >
      <router-link class="row" to="/account" data-test="to-account" @click="open = false"
        ><span>Account</span><strong>›</strong></router-link
      >
      <button class="row" data-test="leave" @click="emit('leave')">
        <span>Leave</span><strong>{{ session.username }}</strong>
      </button>
    </div>
  </v-menu>
</template>

<style scoped>
.opener {
  display: flex;
  flex: none;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 2px;
  min-height: 56px;
  min-width: 50px;
  font-size: 12px;
  font-weight: 620;
  color: var(--ink);
}
.opener svg {
  width: 24px;
  fill: currentColor;
}
.sheet {
  min-width: 230px;
  background: var(--frost);
  border: 1px solid var(--ink);
  border-radius: 4px;
}
.row {
  display: flex;
  justify-content: space-between;
  gap: 24px;
  width: 100%;
  min-height: 56px;
  padding: 0 16px;
  align-items: center;
  color: var(--ink);
  text-decoration: none;
}
.row + .row {
  border-top: 1px solid var(--line);
}
</style>
