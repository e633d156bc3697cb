<script setup lang="ts">
// A log that a plotter or sounder wrote: brought here, played again, or taken into the trip that it is of.
import { onMounted, ref, shallowRef } from 'vue'
import { listTrips, type TripList } from '@/features/trip/api'
import { formatClock } from '@/features/trip/logic/format'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { useInstrumentsStore, type LogTaken, type LogTold } from '../store'

const MOST_MB = 40
const display = useDisplayStore()
const instruments = useInstrumentsStore()
const told = shallowRef<LogTold | null>(null)
const taken = shallowRef<LogTaken | null>(null)
const trips = shallowRef<TripList['trips']>([])
const problem = ref<string | null>(null)
const busy = ref('')
const props = defineProps<{ sourceId?: string }>()
const emit = defineEmits<{ play: [] }>()

async function attempt(words: string, act: () => Promise<void>): Promise<void> {
  busy.value = words
  problem.value = null
  try {
    await act()
  } catch (error) {
    problem.value = describeError(error, display.units)
  } finally {
    busy.value = ''
  }
}

function pick(event: Event): void {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (!file) return
  if (file.size > MOST_MB * 1e6) {
    problem.value = `${file.name} is ${(file.size / 1e6).toFixed(0)} MB: at most ${MOST_MB} MB are read. Bring it day by day.`
    return
  }
  void attempt('Reading the log…', async () => {
    taken.value = null
    told.value = await instruments.bringLog(file)
  })
}
const into = (trip: TripList['trips'][number]): Promise<void> =>
  attempt(`Taking it into “${trip.name}”…`, async () => {
    taken.value = await instruments.takeLog(trip.id, props.sourceId)
  })
/** A trip whose day the log's clock touches: the first offered is most often the one. */
const near = (trip: TripList['trips'][number]): boolean =>
  told.value?.first_s != null && told.value.last_s! > trip.started_at_s - 86_400 && told.value.first_s < trip.started_at_s + 86_400
const day = (atS: number): string =>
  `${new Date(atS * 1000).toLocaleDateString()} ${formatClock(atS, -new Date(atS * 1000).getTimezoneOffset())}`
onMounted(async () => {
  trips.value = (await listTrips().catch(() => ({ trips: [] }))).trips
})
</script>

<template>
  <section class="log" aria-label="A recorded log" data-test="log-panel">
    <h2>A recorded log</h2>
    <p class="label">A text file of NMEA 0183 sentences, as plotters and sounders write it on a card.</p>
    <input type="file" accept=".log,.txt,.nmea,text/plain" aria-label="Log file" data-test="log-file" @change="pick" />
    <p v-if="busy" class="label">{{ busy }}</p>
    <ErrorNote :text="problem" />
    <template v-if="told">
      <p data-test="log-told">
        {{ told.lines }} lines, {{ told.good }} understood<template v-if="told.first_s !== null">
          · {{ day(told.first_s) }} to {{ day(told.last_s!) }}</template
        ><template v-else> · it tells no date: it can be played, not taken into a trip</template>.
      </p>
      <div class="acts">
        <v-btn data-test="log-play" @click="emit('play')">Play it again</v-btn>
        <v-btn v-for="trip in trips.filter(near).slice(0, 3)" :key="trip.id" :data-test="`log-into-${trip.id}`" @click="into(trip)">
          Take it into “{{ trip.name }}”
        </v-btn>
      </div>
      <p v-if="told.first_s !== null && !trips.some(near)" class="label">No trip of yours is of this time.</p>
    </template>
    <p v-if="taken" data-test="log-taken">
      <strong>{{ taken.taken }} things that said something new went in</strong
      ><template v-if="taken.known">, {{ taken.known }} stood there already</template
      ><template v-if="taken.outside">, {{ taken.outside }} are of another time</template>.
      <span v-if="taken.refused" class="wrong">Not taken: {{ taken.refused }}</span>
    </p>
  </section>
</template>

<style scoped>
.log {
  display: grid;
  gap: 8px;
  padding-top: 10px;
  border-top: 1px solid var(--line);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.wrong {
  font-weight: 700;
}
</style>
