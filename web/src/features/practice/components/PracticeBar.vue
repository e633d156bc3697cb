<script setup lang="ts">
// Over Fish on a simulated day: how fast it goes, how far it is, and its end.
import { useIntervalFn } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { formatClock } from '@/features/trip/logic/format'
import { useDeliveryStore } from '@/features/trip/delivery/store'
import { useTripStore } from '@/features/trip/store'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatFishLength } from '@/shared/units/units'
import { usePracticeStore } from '../store'

const EVERY_MS = 1000
const PACES = [0, 1, 5, 20, 60, 120]
const trip = useTripStore()
const practice = usePracticeStore()
const delivery = useDeliveryStore()
const display = useDisplayStore()
const router = useRouter()
const problem = ref<string | null>(null)
const ending = ref(false)
const day = computed(() => (practice.day?.trip_id === trip.trip?.id ? practice.day : null))

/** What the rods do, where it is tapped by hand: the last first, as long as a hand has for it. */
const RECENT_S = 240
const SAID = { hit: 'the tip nods', hooked: 'fish on', landed: 'in the net', lost: 'it came off' }
const bites = computed(() =>
  (day.value?.bites ?? [])
    .filter((bite) => bite.at_s > (trip.view?.now_s ?? 0) - RECENT_S)
    .map((bite) => ({
      ...bite,
      rod: trip.view?.rods.find((rod) => rod.id === bite.rod_id)?.name ?? 'The cast',
      words: SAID[bite.kind] + (bite.length_m == null ? '' : `, ${formatFishLength(bite.length_m, display.units)}`),
    }))
    .reverse(),
)

async function go(pace?: number): Promise<void> {
  const id = trip.trip?.id
  if (!id || (practice.busy && pace === undefined)) return
  try {
    const told = await practice.go(id, pace)
    if (trip.trip?.id !== id) return
    trip.setClock({ clock_shift_s: told.clock_shift_s, clock_set_s: told.clock_set_s, clock_pace: told.clock_pace })
    problem.value = null
    await trip.sync()
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}
async function end(): Promise<void> {
  if (!ending.value) {
    ending.value = true
    return
  }
  const id = trip.trip!.id
  if (!trip.view?.ended) await trip.record('trip_ended', {})
  // The server tells nothing of what was hidden before it knows of the end.
  await delivery.flush()
  await router.push(`/practice/${id}`)
}
useIntervalFn(() => void go(), EVERY_MS)
onMounted(() => go())
</script>

<template>
  <section class="practice-bar" aria-label="Practice" data-test="practice-bar" :data-minutes="day?.minutes ?? 0">
    <strong>Practice</strong>
    <div class="paces" role="group" aria-label="How fast the day goes">
      <button
        v-for="pace in PACES"
        :key="pace"
        type="button"
        :aria-pressed="day?.clock_pace === pace"
        :data-test="`pace-${pace}`"
        :disabled="trip.view?.ended"
        @click="go(pace)"
      >
        {{ pace === 0 ? 'Pause' : `×${pace}` }}
      </button>
    </div>
    <span v-if="day" class="label">{{ Math.floor(day.minutes / 60) }} h {{ day.minutes % 60 }} min of 8 h</span>
    <ol v-if="day?.taps" class="bites" aria-live="polite" data-test="practice-bites">
      <li v-for="bite in bites" :key="bite.kind + bite.at_s">
        <b>{{ bite.rod }}</b>: {{ bite.words }} <small>{{ formatClock(bite.at_s, trip.trip?.utc_offset_min ?? 0) }}</small>
      </li>
      <li v-if="!bites.length" class="quiet">the tips are quiet</li>
    </ol>
    <span v-if="problem" class="wrong" role="alert">{{ problem }}</span>
    <button type="button" class="end" data-test="practice-end" @click="end">
      {{ trip.view?.ended ? 'See what was hidden' : ending ? 'Press again: the day ends' : 'End the day' }}
    </button>
  </section>
</template>

<style scoped>
.practice-bar {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
  padding: 2px 10px;
  background: var(--frost);
  border-left: 6px solid var(--ink);
}
.paces {
  display: flex;
}
button {
  min-height: 44px;
  min-width: 48px;
  padding: 0 10px;
  border: 1px solid var(--line);
  background: var(--frost);
  color: var(--ink);
  font: inherit;
  font-weight: 650;
  cursor: pointer;
}
button[aria-pressed='true'] {
  background: var(--ink);
  color: var(--frost);
}
.end {
  margin-left: auto;
  border-color: var(--ink);
  border-radius: 4px;
}
.wrong {
  font-weight: 700;
}
.bites {
  display: flex;
  gap: 4px 14px;
  overflow: hidden;
  list-style: none;
  padding: 0;
  white-space: nowrap;
}
.bites li:first-child:not(.quiet) {
  font-size: 17px;
}
@media (max-width: 700px) {
  .practice-bar {
    order: -1;
    padding: 0 4px;
    gap: 2px 6px;
  }
  .practice-bar {
    flex-wrap: wrap;
  }
  .bites {
    order: 9;
    flex-basis: 100%;
  }
  .practice-bar strong,
  .label,
  .paces button:nth-child(3),
  .paces button:nth-child(4) {
    display: none;
  }
  button {
    min-width: 42px;
    padding: 0 4px;
  }
}
</style>
