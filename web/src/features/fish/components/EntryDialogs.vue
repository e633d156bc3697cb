<script setup lang="ts">
// The few things that have to be typed, each in two taps.
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import { SPECIES } from '@/shared/trade/species'
import { computed, ref, shallowRef, watch } from 'vue'
import { parseNumber } from '@/shared/units/parse'
import { useDisplayStore } from '@/shared/units/store'
import {
  fishLengthToM,
  fishLengthUnit,
  formatLength,
  lengthFromM,
  lengthToM,
  stepM,
  temperatureFromC,
  temperatureToC,
} from '@/shared/units/units'
import { latestOnly } from '@/shared/core/latest'
import type { FishView, RodLine, RodView } from '@/features/trip/api'
import { formatDepth, formatNumber } from '@/features/trip/logic/format'
import type { DialogName } from '../composables/useFishActs'
import { useQuestions } from '@/features/trip/questions'
import { useTripStore } from '@/features/trip/store'
import { usePhotoStore } from '@/features/trip/delivery/photoStore'
import type { Shrunk } from '@/features/trip/logic/shrink'
import PhotoPick from '@/features/trip/components/PhotoPick.vue'
import CalibrationDialog from './CalibrationDialog.vue'
import CurrentDialog from './CurrentDialog.vue'
import PlaceDialog from './PlaceDialog.vue'
import RodSheet from './RodSheet.vue'
import BackSheet from './BackSheet.vue'
import BiteSheet from './BiteSheet.vue'
import CastSheet from './CastSheet.vue'
import NoteSheet from './NoteSheet.vue'
import WindDialog from './WindDialog.vue'
import GpsDialog from './GpsDialog.vue'
import NumberDialog from './NumberDialog.vue'

const props = defineProps<{ view: FishView; rod: RodView | undefined; rodIndex: (id: string) => number }>()
const dialog = defineModel<DialogName>({ required: true })
const emit = defineEmits<{
  marked: [depthM: number]
  /** What the column shows while something is typed: a rod's line, or a level. */
  tried: [line: RodLine | null]
  level: [depthM: number | null]
}>()

const store = useTripStore()
const photos = usePhotoStore()
const questions = useQuestions()
const display = useDisplayStore()
const length = computed(() => display.units.length)
const digits = computed(() => (length.value === 'ft' ? 0 : 1))
const lengthStep = computed(() => lengthFromM(stepM(display.units), display.units))

const opened = (name: DialogName) => computed({ get: () => dialog.value === name, set: (now) => (dialog.value = now ? name : null) })
const depthOpen = opened('depth')
const markOpen = opened('mark')
const temperatureOpen = opened('temperature')
const bottomOpen = opened('bottom')
const offsetOpen = opened('offset')
const calibrateOpen = opened('calibrate')
const currentOpen = opened('current')
const gpsOpen = opened('gps')
const windOpen = opened('wind')
const placeOpen = opened('place')
const clearanceOpen = opened('clearance')
const sheetOpen = opened('sheet')
const landedOpen = opened('landed')
const noteOpen = opened('note')
const castOpen = opened('cast')
const biteOpen = opened('bite')
const backOpen = opened('back')
const bite = computed(() => props.view.bites.find((item) => item.rod_id === props.rod?.id))

/** The surface as it was read last, and what it may be now: it moves by half degrees. */
const surface = computed(() => (props.view.surface_degc === null ? null : temperatureFromC(props.view.surface_degc, display.units)))
const likelySurface = computed(() => {
  if (surface.value === null) return []
  const near = Math.round(surface.value * 2) / 2
  return [-1, -0.5, 0, 0.5, 1, 1.5, 2, 3].map((off) => near + off)
})
/** Lengths that fish have: one press says one. */
const likelyLengths = computed(() => (fishLengthUnit(display.units) === 'in' ? [12, 14, 16, 18, 20, 22] : [30, 35, 40, 45, 50, 55]))
const fishCount = ref(1)
const fishLength = ref('')
const lengthError = ref<string | null>(null)
/** What it is: mostly what the trip is after. */
const what = ref<(typeof SPECIES)[number]['value']>('trout')
const photo = shallowRef<Shrunk | null>(null)
watch(landedOpen, () => {
  photo.value = null
  fishLength.value = ''
  what.value = store.trip!.species as typeof what.value
  lengthError.value = null
})
watch(markOpen, () => (fishCount.value = 1))

/** The number that goes with a depth, as it is typed. */
const answer = ref('')
const askLine = latestOnly(
  (depthM: number) => questions.numberFor(props.rod!.id, depthM),
  (line) => {
    answer.value = `${formatNumber(line.number, display.units)}, ${formatDepth(line, display.units)}`
    emit('tried', line)
  },
  // What cannot be reached is said when it is to be kept.
  () => depthTyped(null),
)
function depthTyped(value: number | null): void {
  if (value !== null && value > 0) return askLine(lengthToM(value, display.units))
  askLine.cancel()
  answer.value = ''
  emit('tried', null)
}
const levelTyped = (value: number | null): void => emit('level', value !== null && value > 0 ? lengthToM(value, display.units) : null)

async function landed(kept: boolean): Promise<void> {
  const value = fishLength.value.trim() ? parseNumber(fishLength.value) : null
  if (fishLength.value.trim() && value === null) {
    lengthError.value = `Length: “${fishLength.value}” is no number. Type one, or leave it empty.`
    return
  }
  const length_m = value === null ? null : fishLengthToM(value, display.units)
  const species = what.value === store.trip!.species ? null : what.value
  lengthError.value = await store.attempt(() =>
    photos.keepWith(store.trip!.id, photo.value, (photo_id) =>
      store.record('landed', { rod_id: props.rod!.id, kept, length_m, species, photo_id }),
    ),
  )
  if (lengthError.value === null) dialog.value = null
}

async function mark(value: number): Promise<string | null> {
  const depth = lengthToM(value, display.units)
  const error = await store.attempt(() => store.record('mark_seen', { depth_m: depth, count: fishCount.value }))
  if (error === null) emit('marked', depth)
  return error
}
</script>

<template>
  <NumberDialog
    v-if="rod"
    v-model="depthOpen"
    :title="`${rod.name}: depth of the lure`"
    :unit="length"
    :digits="digits"
    :step="lengthStep"
    :initial="rod.line ? lengthFromM(rod.line.depth_m, display.units) : null"
    :submit="(value: number) => store.attempt(() => questions.setDepth(rod!.id, lengthToM(value, display.units)))"
    :hint="answer || `bottom at ${formatLength(view.bottom_m, display.units)}`"
    @typed="depthTyped"
  />
  <NumberDialog
    v-model="markOpen"
    title="Mark at depth"
    :unit="length"
    :digits="digits"
    :step="lengthStep"
    :initial="null"
    :submit="mark"
    @typed="levelTyped"
  >
    <div class="counts" role="group" aria-label="Fish">
      <v-btn
        v-for="count in [1, 2, 3, 5, 8]"
        :key="count"
        class="count"
        :class="{ chosen: fishCount === count }"
        @click="fishCount = count"
        >{{ count }}</v-btn
      >
      <span class="label">fish</span>
    </div>
  </NumberDialog>
  <NumberDialog
    v-model="temperatureOpen"
    title="Surface temperature"
    :unit="display.units.temperature"
    :digits="1"
    :step="0.5"
    :initial="surface"
    :likely="likelySurface"
    :submit="
      (value: number) =>
        store.attempt(() => store.record('temperature_read', { temperature_degc: temperatureToC(value, display.units), depth_m: 0 }))
    "
  />
  <NumberDialog
    v-model="bottomOpen"
    title="Depth of the bottom"
    :unit="length"
    :digits="digits"
    :step="lengthStep"
    :initial="lengthFromM(view.bottom_m, display.units)"
    :submit="(value: number) => store.attempt(() => store.record('sounded', { bottom_m: lengthToM(value, display.units) }))"
    @typed="levelTyped"
  />
  <NumberDialog
    v-model="offsetOpen"
    title="Run lures above marks by"
    :unit="length"
    :digits="digits"
    :step="lengthStep"
    :initial="lengthFromM(view.above_mark_m, display.units)"
    :submit="(value: number) => store.attempt(() => store.record('offset_chosen', { above_mark_m: lengthToM(value, display.units) }))"
  />
  <CalibrationDialog
    v-if="rod"
    v-model="calibrateOpen"
    :view="view"
    :rod="rod"
    :note="(payload) => store.attempt(() => store.record('depth_seen', payload))"
    :set-aside="(event_id: string, aside: boolean) => store.attempt(() => store.record('reading_set_aside', { event_id, aside }))"
  />
  <CurrentDialog
    v-model="currentOpen"
    :view="view"
    :from-runs="questions.currentFromRuns"
    :note="(speed_mps: number, toward_deg: number) => store.attempt(() => store.record('current_noted', { speed_mps, toward_deg }))"
  />
  <GpsDialog
    v-model="gpsOpen"
    :view="view"
    :through-water="questions.throughWater"
    :set-speed="(speed_mps: number) => store.attempt(() => store.record('speed_changed', { speed_mps }))"
    @current="dialog = 'current'"
    @wind="dialog = 'wind'"
  />
  <WindDialog v-model="windOpen" :view="view" :note="(wind) => store.attempt(() => store.record('wind_noted', { ...wind }))" />
  <PlaceDialog
    v-model="placeOpen"
    :last="null"
    :note="
      (latitude_deg: number, longitude_deg: number, course_deg: number) =>
        store.attempt(() => store.record('position_fixed', { latitude_deg, longitude_deg, course_deg }))
    "
  />
  <NumberDialog
    v-model="clearanceOpen"
    title="Keep off the bottom by"
    :unit="length"
    :digits="digits"
    :step="lengthStep"
    :initial="lengthFromM(view.clearance_m, display.units)"
    :submit="(value: number) => store.attempt(() => store.record('clearance_chosen', { clearance_m: lengthToM(value, display.units) }))"
  />
  <RodSheet
    v-if="rod?.setup"
    v-model="sheetOpen"
    :view="view"
    :rod="rod"
    :numbers-at="questions.numbersAt"
    :speed-at-depth="questions.speedAtDepth"
    @beat="(beats, seconds) => store.record('beat_counted', { rod_id: rod!.id, beats, seconds })"
    @tip="store.record('tip_moved', { rod_id: rod.id, tip: $event })"
    @tap="store.record('bottom_tap', { rod_id: rod.id, on: $event })"
    @boards="store.record('board_reset', { rod_id: rod.id })"
    @clearance="dialog = 'clearance'"
    @failed="store.report"
    @tried="emit('tried', $event)"
  />
  <NoteSheet v-model="noteOpen" :view="view" @cast="dialog = 'cast'" />
  <CastSheet v-model="castOpen" :view="view" :now-s="store.nowS()" />
  <BackSheet v-if="backOpen" v-model="backOpen" :view="view" :rod-index="rodIndex" />
  <BiteSheet v-if="bite" v-model="biteOpen" :view="view" :bite="bite" />
  <entry-sheet v-if="rod" v-model="landedOpen" :title="`${rod.name}: landed`" data-test="landed-dialog">
    <v-card-text>
      <label class="fish">
        <input v-model="fishLength" autofocus inputmode="decimal" aria-label="Length of the fish" />
        <span class="label">length ({{ fishLengthUnit(display.units) }}), if measured</span>
      </label>
      <div class="lengths" role="group" aria-label="Likely lengths">
        <v-btn
          v-for="value in likelyLengths"
          :key="value"
          :class="{ chosen: fishLength === String(value) }"
          :data-test="`length-${value}`"
          @click="fishLength = String(value)"
          >{{ value }}</v-btn
        >
      </div>
      <ChoiceRow v-model="what" label="what it is" :options="SPECIES" test="landed-species" />
      <PhotoPick v-model="photo" @problem="lengthError = $event" />
      <p v-if="lengthError" class="error" role="alert">{{ lengthError }}</p>
      <p class="label">Wet hands, fish in the water, pliers for the hook.</p>
    </v-card-text>
    <v-card-actions>
      <v-btn class="big" variant="outlined" data-test="released" @click="landed(false)">Released</v-btn>
      <v-btn class="big solid" data-test="kept" @click="landed(true)">Kept</v-btn>
    </v-card-actions>
  </entry-sheet>
</template>

<style scoped>
.counts {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 12px;
}
.count {
  min-width: var(--touch);
  --v-btn-height: var(--touch);
  font-size: 18px;
}
.lengths {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: 6px;
  margin: 8px 0;
}
.lengths .v-btn {
  --v-btn-height: 52px;
  min-width: 0;
  padding: 0;
  font-size: 17px;
}
.fish input {
  width: 100%;
  font-size: 34px;
  text-align: center;
  border-bottom: 2px solid var(--ink);
  color: var(--ink);
}
.fish .label {
  display: block;
  text-align: center;
}
.big {
  --v-btn-height: 64px;
  flex: 1;
  font-size: 18px;
}
</style>
