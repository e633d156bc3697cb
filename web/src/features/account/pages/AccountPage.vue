<script setup lang="ts">
// One's own account: another password, all of it as a file, and its end.
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import CrewPanel from '../components/CrewPanel.vue'
import { useSessionStore } from '../store'

const session = useSessionStore()
const display = useDisplayStore()
const router = useRouter()
const before = ref('')
const after = ref('')
const changed = ref(false)
const problem = ref<string | null>(null)
const last = ref('')
const sure = ref('')
const endProblem = ref<string | null>(null)

async function change(): Promise<void> {
  changed.value = false
  try {
    await session.changePassword(before.value, after.value)
    problem.value = null
    changed.value = true
    before.value = after.value = ''
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}
async function end(): Promise<void> {
  if (sure.value.trim() !== session.username) {
    endProblem.value = `Type the name of the account, ${session.username}, to say that you mean it.`
    return
  }
  try {
    await session.deleteAccount(last.value)
    await router.push('/login')
  } catch (error) {
    endProblem.value = describeError(error, display.units)
  }
}
</script>

<template>
  <main class="account" data-test="account">
    <h1>{{ session.username }}</h1>
    <section aria-label="All of it">
      <h2>All of it, as a file</h2>
      <p>Trips, waters, boats, tackle, plans and photos in open formats. Keep a copy on another disk.</p>
      <a href="/api/archive/" data-test="archive">Download everything of mine</a>
      <a href="/api/trips/calendar.ics" data-test="calendar">Trips and planned days as a calendar</a>
    </section>
    <CrewPanel />
    <form aria-label="Password" @submit.prevent="change">
      <h2>Another password</h2>
      <TextField
        v-model="before"
        label="the one you have"
        type="password"
        maxlength="200"
        autocomplete="current-password"
        test="old-password"
      />
      <TextField
        v-model="after"
        label="another, eight letters at least"
        type="password"
        maxlength="200"
        autocomplete="new-password"
        test="new-password"
      />
      <ErrorNote :text="problem" />
      <p v-if="changed" role="status" data-test="changed">Changed. Other devices have to log in anew.</p>
      <v-btn type="submit" data-test="change-password">Change it</v-btn>
    </form>
    <form aria-label="The end of the account" @submit.prevent="end">
      <h2>Delete the account</h2>
      <p>
        Everything of it on this server goes for good: trips, waters, boats, photos. Copies of the database keep it until they are gone.
      </p>
      <TextField v-model="sure" label="name of the account" maxlength="150" autocomplete="off" test="sure-name" />
      <TextField v-model="last" label="its password" type="password" maxlength="200" autocomplete="current-password" test="sure-password" />
      <ErrorNote :text="endProblem" />
      <v-btn type="submit" data-test="delete-account">Delete everything</v-btn>
    </form>
  </main>
</template>

<style scoped>
.account {
  display: grid;
  gap: 6px;
  max-width: 560px;
  padding: 6px;
}
.account > * {
  display: grid;
  gap: 10px;
  padding: 12px;
  background: var(--frost);
}
.v-btn {
  --v-btn-height: 48px;
  justify-self: start;
}
a {
  min-height: 44px;
  color: var(--ink);
}
</style>
