<script setup lang="ts">
// The shell: a slim rail on a wide screen, a bar at the bottom on a phone.
import { mdiChartTimelineVariant, mdiFish, mdiHook, mdiMapClockOutline, mdiSchoolOutline, mdiToolboxOutline } from '@mdi/js'
import { useDebounceFn } from '@vueuse/core'
import { computed, watch, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useTheme } from 'vuetify'
import QuietMenu from './QuietMenu.vue'
import { useUpdateStore } from './update'
import { useSessionStore } from '@/features/account/store'
import { useDeliveryStore } from '@/features/trip/delivery/store'
import { getKit } from '@/features/trip/api'
import { useTripStore } from '@/features/trip/store'
import { useDisplayStore } from '@/shared/units/store'

const display = useDisplayStore()
const session = useSessionStore()
const delivery = useDeliveryStore()
const trip = useTripStore()
const update = useUpdateStore()
const theme = useTheme()
const route = useRoute()
const router = useRouter()
/** Loopback counts as secure; another machine's plain address does not. */
const insecure = !window.isSecureContext
const inside = computed(() => !route.meta.open && session.username !== null)

watchEffect(() => theme.change(display.theme))
// Whose taps are kept and sent: a new login of the same name sends on what waits.
watch(
  () => [session.username, session.logins] as const,
  async ([name], before) => {
    // Nothing of whoever was here before stays open.
    if (before && before[0] !== name) trip.close()
    await delivery.belongTo(name)
    await delivery.flush()
    if (name !== null) void carryAlong()
  },
  { immediate: true },
)
/** What a trip is begun from without a server is carried along anew at each visit. */
const carryAlong = useDebounceFn(async () => {
  await getKit().then(delivery.carry, () => undefined)
}, 3000)
watch(
  () => route.path,
  (_now, before) => session.username !== null && (before?.startsWith('/locker') || before?.startsWith('/plan')) && void carryAlong(),
)
watch(
  () => delivery.progress.state === 'signed_out',
  (out) => out && session.markEnded(),
)

const PLACES = [
  { to: '/plan', title: 'Plan', icon: mdiMapClockOutline },
  { to: '/rig', title: 'Rig', icon: mdiHook },
  { to: '/fish', title: 'Fish', icon: mdiFish },
  { to: '/review', title: 'Review', icon: mdiChartTimelineVariant },
  { to: '/practice', title: 'Practice', icon: mdiSchoolOutline },
  { to: '/locker', title: 'Locker', icon: mdiToolboxOutline },
]

function logInAgain(): void {
  void router.push({ path: '/login', query: { next: route.fullPath } })
}

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
        <QuietMenu @leave="leave" />
      </nav>
      <div class="page">
        <p v-if="session.ended && inside" class="bar" role="alert" data-test="signed-out">
          Your login has ended. What you tap is kept here: {{ delivery.progress.waiting }} waiting.
          <button class="bar-act" @click="logInAgain">Log in</button>
        </p>
        <p v-if="!delivery.lasting && inside" class="bar" role="alert" data-test="not-lasting">
          This browser keeps nothing for this page: what you tap without a link is lost when it closes.
        </p>
        <p v-if="delivery.scarce && inside" class="bar" role="alert" data-test="scarce">
          This device is nearly full. Free some space before you go out: a tap that finds no room is refused, never lost in silence.
        </p>
        <p v-if="insecure && inside" class="bar" role="status" data-test="insecure">
          This address has no lock: the page cannot be kept for use without the server, and the phone will not say where the boat is.
          <a class="bar-act" href="/trust/">What to do</a>
        </p>
        <p v-if="update.available" class="bar" role="status" data-test="new-version">
          A new version is here. What waits to be sent stays kept.
          <button class="bar-act" data-test="take-over" :disabled="update.taking" @click="update.takeOver">
            {{ update.taking ? 'Taking it over …' : 'Take it over' }}
          </button>
        </p>
        <router-view />
      </div>
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
.page > .bar {
  flex: none;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  padding: 4px 12px;
  background: var(--ink);
  color: var(--frost);
  font-weight: 640;
}
.bar-act {
  min-height: 44px;
  padding: 0 14px;
  border: 2px solid currentColor;
  border-radius: 4px;
  color: inherit;
  font-weight: 720;
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
  .gap {
    display: none;
  }
  .place {
    flex: 1;
    min-width: 0;
    font-size: 11.5px;
    font-stretch: 88%;
  }
  .place.router-link-active {
    box-shadow: inset 0 4px 0 var(--ink);
  }
}
</style>
