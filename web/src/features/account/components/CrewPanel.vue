<script setup lang="ts">
// Who sails along: they record on the trip that is open, on their own phones, and see nothing else.
import { onMounted, ref } from 'vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { useSessionStore } from '../store'

const session = useSessionStore()
const display = useDisplayStore()
const crew = ref<{ id: number; username: string }[]>([])
const name = ref('')
const password = ref('')
const problem = ref<string | null>(null)

async function attempt(act: () => Promise<unknown>): Promise<void> {
  try {
    await act()
    crew.value = await session.listCrew()
    problem.value = null
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}
const take = (): Promise<void> =>
  attempt(async () => {
    await session.takeCrew(name.value, password.value)
    name.value = password.value = ''
  })
onMounted(() => attempt(() => Promise.resolve()))
</script>

<template>
  <form aria-label="Crew" data-test="crew" @submit.prevent="take">
    <h2>Crew</h2>
    <p>Whoever sails along records on your open trip from their own phone. They see no other trip, no water and no boat of yours.</p>
    <ul v-if="crew.length">
      <li v-for="one in crew" :key="one.id">
        <strong>{{ one.username }}</strong>
        <v-btn :data-test="`crew-drop-${one.id}`" @click="attempt(() => session.dropCrew(one.id))">Let go</v-btn>
      </li>
    </ul>
    <TextField v-model="name" label="name to log in with" maxlength="150" autocomplete="off" test="crew-name" />
    <TextField
      v-model="password"
      label="password; for an account that is here already its own"
      type="password"
      maxlength="200"
      autocomplete="new-password"
      test="crew-password"
    />
    <ErrorNote :text="problem" />
    <v-btn type="submit" data-test="crew-take">Take aboard</v-btn>
  </form>
</template>

<style scoped>
ul {
  display: grid;
  gap: 6px;
  padding: 0;
  margin: 0;
  list-style: none;
}
li {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
}
.v-btn {
  --v-btn-height: 48px;
  justify-self: start;
}
</style>
