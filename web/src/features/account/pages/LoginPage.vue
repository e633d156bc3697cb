<script setup lang="ts">
// The door: name and password, or the demo with one button.
import { onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useDeliveryStore } from '@/features/trip/delivery/store'
import { useSessionStore } from '../store'

const session = useSessionStore()
const route = useRoute()
const router = useRouter()
const name = ref('')
const password = ref('')
const error = ref<string | null>(null)
const busy = ref(false)
const delivery = useDeliveryStore()
const waiting = ref<{ owner: string; count: number }[]>([])

onMounted(async () => {
  waiting.value = await delivery.others()
})

async function enter(act: () => Promise<void>): Promise<void> {
  busy.value = true
  error.value = null
  try {
    await act()
    const next = route.query.next
    // Only a path of our own: an address from outside is not followed.
    await router.push(typeof next === 'string' && /^\/(?!\/)/.test(next) ? next : '/fish')
  } catch (caught) {
    error.value = caught instanceof Error ? caught.message : String(caught)
  }
  busy.value = false
}
</script>

<template>
  <main class="door">
    <svg viewBox="0 0 64 48" width="84" aria-hidden="true"><path d="M6 4 32 44 58 4M20 4l12 18L44 4" /></svg>
    <h1>Cold Wake</h1>
    <p>One boat, one speed, several lures nobody can see.</p>
    <p v-for="row in waiting" :key="row.owner" class="waiting" role="status" data-test="waiting-here">
      {{ row.count === 1 ? 'One tap' : `${row.count} taps` }} of <strong>{{ row.owner }}</strong> wait here to be sent. They go out when
      {{ row.owner }} logs in on this browser.
    </p>
    <p v-if="session.unreachable" class="waiting" role="status">No link to the server: a login needs one.</p>
    <v-btn v-if="session.demoOffered" class="go" data-test="demo" :loading="busy" @click="enter(session.logInToDemo)"
      >Open the demo trip</v-btn
    >
    <form @submit.prevent="enter(() => session.logIn(name, password))">
      <v-text-field v-model="name" label="Name" autocomplete="username" />
      <v-text-field v-model="password" label="Password" type="password" autocomplete="current-password" />
      <p v-if="error" class="error" role="alert">{{ error }}</p>
      <v-btn type="submit" class="log-in" :loading="busy">Log in</v-btn>
    </form>
  </main>
</template>

<style scoped>
.door {
  max-width: 340px;
  margin: 10vh auto;
  padding: 16px;
  display: grid;
  gap: 14px;
  justify-items: center;
}
.waiting {
  border-left: 4px solid var(--ink);
  padding-left: 10px;
}
svg {
  fill: none;
  stroke: var(--ink);
  stroke-width: 4;
  stroke-linecap: round;
  stroke-linejoin: round;
}
h1 {
  font-weight: 760;
  font-stretch: 84%;
}
form {
  display: grid;
  gap: 10px;
  width: 100%;
}
.go {
  width: 100%;
  height: var(--touch) !important;
  background: var(--ink);
  color: var(--frost);
}
.log-in {
  height: var(--touch) !important;
}
.error {
  color: var(--now);
  font-weight: 700;
}
</style>
