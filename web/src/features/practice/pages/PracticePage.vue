<script setup lang="ts">
// Practice: simulated days, lessons of the eye, and the demo's morning. Nothing of it touches a real trip.
import { computed, onMounted, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { useSessionStore } from '@/features/account/store'
import { listTrips, type TripList } from '@/features/trip/api'
import { useTripStore } from '@/features/trip/store'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import EmptyState from '@/shared/ui/EmptyState.vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import { useAttempt } from '@/shared/ui/useAttempt'
import type { Typed } from '@/shared/units/measures'
import { usePracticeStore, type Lesson, type PracticeDay } from '../store'

const session = useSessionStore()
const trip = useTripStore()
const practice = usePracticeStore()
const router = useRouter()
const outfits = shallowRef<TripList['outfits'] | null>(null)
const days = shallowRef<PracticeDay[]>([])
const outfit = ref<number | null>(null)
const seed = ref<Typed>(null)
const world = ref<PracticeDay['world'] | null>('lake')
const advice = ref<'yes' | 'no' | null>('yes')
const taps = ref<'yes' | 'no' | null>('no')
const { problem, attempt } = useAttempt()
const lessons = shallowRef<Lesson[]>([])
const standing = (one: Lesson): string =>
  one.passed ? 'passed' : one.asked ? `${one.right} of ${one.asked} right, best ${one.best} of ${one.needed} in a row` : 'not begun'
const dropping = ref<string | null>(null)
const boats = computed(() => (outfits.value ?? []).map((one) => ({ value: one.id, title: one.name })))
const WORLDS = [
  { value: 'lake', title: 'of a lake', note: 'tastes drawn wide' },
  { value: 'other', title: 'of other laws', note: 'on or off, one dial counts' },
  { value: 'reversed', title: 'against the rule book', note: 'it says slow, they want fast' },
  { value: 'river', title: 'stripers of a river', note: 'bars, a neck, current; casting' },
] as const
const ADVICE = [
  { value: 'yes', title: 'with the next move' },
  { value: 'no', title: 'without' },
] as const
const BITES = [
  { value: 'no', title: 'stand in the record by themselves' },
  { value: 'yes', title: 'you tap them', note: 'as on the water; best at ×1 to ×5' },
] as const
const start = (): Promise<void> =>
  attempt(async () => {
    const day = await practice.start({
      outfit_id: outfit.value!,
      world: world.value!,
      ...(seed.value === null ? {} : { seed: seed.value as number }),
      advice: advice.value === 'yes',
      taps: taps.value === 'yes',
    })
    await router.push({ path: '/fish', query: { trip: day.trip_id } })
  })
const drop = (id: string): Promise<void> =>
  attempt(async () => {
    if (dropping.value !== id) {
      dropping.value = id
      return
    }
    await practice.drop(id)
    if (trip.trip?.id === id) trip.close()
    dropping.value = null
    days.value = await practice.list()
  })
const toDemo = (): Promise<void> =>
  attempt(async () => {
    if (session.username !== 'demo') {
      await session.logOut()
      await session.logInToDemo()
      trip.close()
    }
    await router.push('/fish')
  })
onMounted(() =>
  attempt(async () => {
    const [trips, played, ladder] = await Promise.all([listTrips(), practice.list(), practice.lessons()])
    outfits.value = trips.outfits
    outfit.value = trips.outfits[0]?.id ?? null
    days.value = played
    lessons.value = ladder
  }),
)
</script>

<template>
  <main class="practice" data-test="practice">
    <ErrorNote :text="problem" />
    <EmptyState
      v-if="outfits && !outfits.length"
      title="Practice needs a boat"
      text="A simulated day is fished with your own rods and tackle: set up the first day, then come back."
      act="Set up the first day"
      test="practice-set-up"
      @act="router.push('/first-day')"
    />
    <form v-else class="card" aria-label="A simulated day" @submit.prevent="start">
      <h1>A simulated day</h1>
      <p>
        Eight hours on a made-up lake or river, with your own boat and tackle, in the Fish view, at up to a hundred and twenty times the
        pace. Its fish have moods of their own; at the end you see what they wanted, and how others fished the same day. It stands in no
        season of yours.
      </p>
      <ChoiceRow v-if="boats.length > 1" v-model="outfit" label="boat" :options="boats" test="practice-boat" />
      <ChoiceRow v-model="world" label="fish" :options="WORLDS" test="practice-world" />
      <NumberField v-model="seed" label="day, 0 to 1 000 000; empty for a surprise" measure="count" test="practice-seed" />
      <ChoiceRow v-model="advice" label="advice" :options="ADVICE" test="practice-advice" />
      <ChoiceRow v-model="taps" label="hits and fish" :options="BITES" test="practice-taps" />
      <v-btn type="submit" class="go" :disabled="outfit === null" data-test="practice-start">Go out</v-btn>
    </form>
    <section v-if="days.length" class="card" aria-label="Days that were practised">
      <h2>Your days</h2>
      <table class="rows">
        <thead>
          <tr>
            <th>day</th>
            <th class="count">fished</th>
            <th class="count">hits</th>
            <th class="count">landed</th>
            <td></td>
          </tr>
        </thead>
        <tbody>
          <tr v-for="day in days" :key="day.trip_id">
            <td>{{ day.seed }}</td>
            <td class="count">{{ Math.floor(day.minutes / 60) }} h {{ day.minutes % 60 }} min</td>
            <td class="count">{{ day.hits }}</td>
            <td class="count">{{ day.landed }}</td>
            <td>
              <span class="row"
                ><router-link v-if="day.is_ended" :to="`/practice/${day.trip_id}`">what was hidden</router-link>
                <router-link v-else :to="{ path: '/fish', query: { trip: day.trip_id } }">go on</router-link>
                <button type="button" :data-test="`practice-drop-${day.trip_id}`" @click="drop(day.trip_id)">
                  {{ dropping === day.trip_id ? 'Press again: it goes' : 'drop' }}
                </button></span
              >
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <section v-if="lessons.length" class="card" aria-label="Lessons">
      <h2>Twelve lessons, in the order of the day</h2>
      <p>A few minutes each. So many right in a row pass it, as luck does not; scores stay here.</p>
      <ol>
        <li v-for="one in lessons.filter((lesson) => !lesson.is_drill)" :key="one.id">
          <router-link :to="`/practice/lessons/${one.id}`" :data-test="`lesson-${one.id}`">{{ one.title }}</router-link>
          <span class="label">{{ standing(one) }}</span>
        </li>
      </ol>
    </section>
    <section class="card" aria-label="Drills">
      <h2>Drills</h2>
      <p><router-link to="/practice/lessons/marks" data-test="to-drill">Sonar drill: what is this?</router-link></p>
      <p><router-link to="/practice/lessons/turns">Turn drill: which sinks, which rises, which will cross</router-link></p>
      <p v-for="one in lessons.filter((lesson) => lesson.is_drill)" :key="one.id">
        <router-link :to="`/practice/lessons/${one.id}`" :data-test="`lesson-${one.id}`">{{ one.title }}: the order of acts</router-link>
        <span class="label"> {{ standing(one) }}</span>
      </p>
      <p><router-link to="/practice/sonar" data-test="to-sonar">Sonar bench: what a mark means</router-link></p>
      <p v-if="session.demoOffered">
        <button type="button" data-test="practice-demo" @click="toDemo">The demo's April morning, on an account of its own</button>
      </p>
    </section>
  </main>
</template>

<style scoped>
.practice {
  align-content: start;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(480px, 100%), 1fr));
  align-items: start;
  gap: 6px;
  max-width: 1500px;
  padding: 6px;
}
.card {
  display: grid;
  gap: 12px;
  padding: 14px;
  background: var(--frost);
}
.v-btn.go {
  --v-btn-height: 56px;
  justify-self: start;
}
ol {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(320px, 1fr));
  gap: 0 24px;
  margin: 0;
  padding: 0 0 0 22px;
}
li span {
  display: block;
}
.row {
  display: flex;
  gap: 16px;
  justify-content: end;
}
a,
button[type='button'] {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  color: var(--ink);
  padding: 0;
  text-decoration: underline;
  font: inherit;
  cursor: pointer;
}
</style>
