<script setup lang="ts">
// Where nothing that happens touches a trip of one's own.
import { useRouter } from 'vue-router'
import { useSessionStore } from '@/features/account/store'
import { useTripStore } from '@/features/trip/store'
import EmptyState from '@/shared/ui/EmptyState.vue'

const session = useSessionStore()
const trip = useTripStore()
const router = useRouter()

async function toDemo(): Promise<void> {
  if (session.username !== 'demo') {
    await session.logOut()
    await session.logInToDemo()
    trip.close()
  }
  await router.push('/fish')
}
</script>

<template>
  <main data-test="practice">
    <EmptyState
      v-if="session.demoOffered"
      title="Practice"
      text="A made-up April morning to try every line and button on. It has an account of its own: nothing you do there touches your trips."
      act="Go to the practice morning"
      test="practice-demo"
      @act="toDemo"
    />
    <EmptyState
      v-else
      title="Practice"
      text="The practice morning is open on the machine that runs Cold Wake, when it was started with its demo."
    />
    <p class="bench"><router-link to="/practice/sonar" data-test="to-sonar">Sonar bench: what a mark means</router-link></p>
  </main>
</template>

<style scoped>
.bench {
  text-align: center;
}
a {
  color: var(--ink);
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
</style>
