<script setup lang="ts">
// The door: name and password; on a fresh install the skipper's account is made here; the demo beside it.
import { computed, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useDeliveryStore } from '@/features/trip/delivery/store'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useSessionStore } from '../store'

const session = useSessionStore()
const route = useRoute()
const router = useRouter()
const delivery = useDeliveryStore()
const name = ref('')
const password = ref('')
const error = ref<string | null>(null)
const busy = ref(false)
const waiting = ref<{ owner: string; count: number }[]>([])
const fresh = computed(() => session.skipperWanted)

onMounted(async () => {
  waiting.value = await delivery.others()
})

async function enter(act: () => Promise<void>, otherwise = '/fish'): Promise<void> {
  busy.value = true
  error.value = null
  try {
    await act()
    const next = route.query.next
    // Only a path of our own: an address from outside is not followed.
    await router.push(typeof next === 'string' && otherwise === '/fish' && /^\/(?!\/)/.test(next) ? next : otherwise)
  } catch (caught) {
    error.value = caught instanceof Error ? caught.message : String(caught)
  }
  busy.value = false
}
const submit = (): Promise<void> =>
  fresh.value
    ? enter(() => session.makeSkipper(name.value, password.value), '/first-day')
    : enter(() => session.logIn(name.value, password.value))
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
    <div class="ways">
      <form @submit.prevent="submit">
        <h2>{{ fresh ? 'Your account, skipper' : 'Log in' }}</h2>
        <p v-if="fresh" class="label">Nobody has one here yet. It stays on this machine.</p>
        <TextField v-model="name" label="name" autocomplete="username" maxlength="150" test="name" />
        <TextField
          v-model="password"
          :label="fresh ? 'password, eight letters at least' : 'password'"
          type="password"
          maxlength="200"
          test="password"
          :autocomplete="fresh ? 'new-password' : 'current-password'"
        />
        <ErrorNote :text="error" />
        <v-btn type="submit" class="big" :loading="busy" data-test="enter">{{ fresh ? 'Make my account' : 'Log in' }}</v-btn>
      </form>
      <section v-if="session.demoOffered" class="demo">
        <h2>Look first</h2>
        <p>An April morning on a made-up reservoir: six rods out, and a few fish to come.</p>
        <v-btn class="go big" data-test="demo" :loading="busy" @click="enter(session.logInToDemo)">Open the demo trip</v-btn>
      </section>
    </div>
  </main>
</template>

<style scoped>
.door {
  max-width: 720px;
  margin: 8vh auto;
  padding: 16px;
  display: grid;
  gap: 14px;
  justify-items: center;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
  width: 100%;
  justify-content: center;
}
.ways > * {
  flex: 1 1 280px;
  max-width: 350px;
  display: flex;
  flex-direction: column;
  gap: 12px;
  padding: 16px;
  background: var(--frost);
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
  font-size: 32px;
  font-weight: 760;
  font-stretch: 84%;
}
.big {
  --v-btn-height: var(--touch);
  width: 100%;
  margin-top: auto;
}
</style>
