<script setup lang="ts">
// The shell: a slim rail on a wide screen, a bar at the bottom on a phone.
import { mdiBrightness4, mdiFish, mdiFormatListBulleted, mdiHook, mdiLogout, mdiRuler, mdiToolboxOutline } from '@mdi/js'
import { computed, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useTheme } from 'vuetify'
import { useSessionStore } from '@/features/account/store'
import { useDisplayStore } from '@/shared/units/store'

const display = useDisplayStore()
const session = useSessionStore()
const theme = useTheme()
const route = useRoute()
const router = useRouter()
const inside = computed(() => !route.meta.open && session.username !== null)

watchEffect(() => theme.change(display.theme))

const PLACES = [
  { to: '/rig', title: 'Rig', icon: mdiHook },
  { to: '/fish', title: 'Fish', icon: mdiFish },
  { to: '/trips', title: 'Trips', icon: mdiFormatListBulleted },
  { to: '/locker', title: 'Locker', icon: mdiToolboxOutline },
]

async function leave(): Promise<void> {
  await session.logOut()
  await router.push('/login')
}
</script>

<template>
  <v-app>
    <div class="shell" :class="{ inside }">
      <nav v-if="inside" class="rail" aria-label="Places">
        <svg class="wake" viewBox="0 0 64 48" aria-hidden="true"><path d="M6 4 32 44 58 4M20 4l12 18L44 4" /></svg>
        <router-link v-for="place in PLACES" :key="place.to" :to="place.to" class="place">
          <svg viewBox="0 0 24 24" aria-hidden="true"><path :d="place.icon" /></svg>{{ place.title }}
        </router-link>
        <span class="gap" />
        <button class="place" data-test="theme" @click="display.toggleTheme">
          <svg viewBox="0 0 24 24" aria-hidden="true"><path :d="mdiBrightness4" /></svg>{{ display.theme === 'glare' ? 'Glare' : 'Dawn' }}
        </button>
        <button class="place" data-test="units" @click="display.toggleUnits">
          <svg viewBox="0 0 24 24" aria-hidden="true"><path :d="mdiRuler" /></svg>{{ display.units.length }} {{ display.units.temperature }}
        </button>
        <button class="place knots" data-test="knots" :aria-pressed="display.units.speed === 'kn'" @click="display.toggleNautical">
          {{ display.units.speed }}
        </button>
        <button class="place" @click="leave">
          <svg viewBox="0 0 24 24" aria-hidden="true"><path :d="mdiLogout" /></svg>Leave
        </button>
      </nav>
      <div class="page"><router-view /></div>
    </div>
  </v-app>
</template>

<style scoped>
.shell {
  display: flex;
  min-height: 100vh;
}
.page {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
}
.page > * {
  flex: 1;
}
.rail {
  position: sticky;
  top: 0;
  height: 100vh;
  width: 64px;
  display: flex;
  flex-direction: column;
  align-items: stretch;
  background: var(--frost);
  border-right: 1px solid var(--line);
}
.wake {
  width: 36px;
  margin: 12px auto;
  fill: none;
  stroke: var(--ink);
  stroke-width: 4;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.place {
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 2px;
  min-height: 56px;
  font-size: 12px;
  font-weight: 620;
  color: var(--ink);
  text-decoration: none;
}
.place svg {
  width: 24px;
  fill: currentColor;
}
.place.router-link-active {
  box-shadow: inset 4px 0 0 var(--ink);
}
.gap {
  flex: 1;
}
@media print {
  .rail {
    display: none;
  }
}
@media (max-width: 700px) {
  .shell {
    flex-direction: column;
  }
  .page {
    padding-bottom: 60px;
  }
  .rail {
    position: fixed;
    z-index: 5;
    inset: auto 0 0 0;
    top: auto;
    width: auto;
    height: 58px;
    flex-direction: row;
    border-right: 0;
    border-top: 1px solid var(--line);
  }
  .wake,
  .gap,
  .knots {
    display: none;
  }
  .place {
    flex: 1;
  }
  .place.router-link-active {
    box-shadow: inset 0 4px 0 var(--ink);
  }
}
</style>
