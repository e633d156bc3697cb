<script setup lang="ts">
// A school found is cast to: with what weight, counted down how long, wound in how; and what it brings, a tap each.
import { computed, ref, shallowRef, watch } from 'vue'
import { SPECIES } from '@/shared/trade/species'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import NumberStepper from '@/shared/ui/NumberStepper.vue'
import { parseNumber } from '@/shared/units/parse'
import type { Typed } from '@/shared/units/measures'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatWeight } from '@/shared/units/units'
import PhotoPick from '@/features/trip/components/PhotoPick.vue'
import { usePhotoStore } from '@/features/trip/delivery/photoStore'
import type { Shrunk } from '@/features/trip/logic/shrink'
import { useTripStore } from '@/features/trip/store'
import type { FishView } from '@/features/trip/api'
import { formatElapsed } from '@/features/trip/logic/format'

const props = defineProps<{ view: FishView; nowS: number }>()
const open = defineModel<boolean>({ required: true })
const store = useTripStore()
const display = useDisplayStore()
const casting = computed(() => props.view.casting)

const OUNCE = 0.028349523125
/** What is thrown at stripers: three eighths to half an ounce, heavier in a current (common practice). */
const WEIGHTS = [0.375, 0.5, 0.75, 1].map((ounces) => ({ value: ounces * OUNCE, title: formatWeight(ounces * OUNCE, display.units) }))
const RETRIEVES = [
  { value: 'slow', title: 'Slow' },
  { value: 'steady', title: 'Steady' },
  { value: 'fast', title: 'Fast' },
  { value: 'jerked', title: 'Jerked' },
] as const
const weight = ref(WEIGHTS[0]!.value)
const retrieve = ref<(typeof RETRIEVES)[number]['value']>('slow')
const count = ref('5')
const length = ref<Typed>(null)
const photo = shallowRef<Shrunk | null>(null)
const photos = usePhotoStore()
const what = ref<(typeof SPECIES)[number]['value']>('striper')
const problem = ref<string | null>(null)
watch(
  open,
  (now) => {
    if (!now) return
    problem.value = null
    length.value = photo.value = null
    what.value = store.trip!.species as typeof what.value
  },
  { immediate: true },
)

async function begin(): Promise<void> {
  const count_s = parseNumber(count.value)
  if (count_s === null) {
    problem.value = `Count down: “${count.value}” is no number. Type one, such as 5.`
    return
  }
  problem.value = await store.attempt(() => store.record('casting_begun', { weight_kg: weight.value, count_s, retrieve: retrieve.value }))
}
async function end(): Promise<void> {
  problem.value = await store.attempt(() => store.record('casting_ended', {}))
  if (problem.value === null) open.value = false
}
async function bite(kind: 'hit' | 'hooked' | 'lost'): Promise<void> {
  problem.value = await store.attempt(() => store.record('cast_bite', { what: kind }))
}
async function landed(kept: boolean): Promise<void> {
  if (typeof length.value === 'string') {
    problem.value = `Length: “${length.value}” is no number. Type one, or leave it empty.`
    return
  }
  const species = what.value === store.trip!.species ? null : what.value
  problem.value = await store.attempt(() =>
    photos.keepWith(store.trip!.id, photo.value, (photo_id) =>
      store.record('cast_bite', { what: 'landed', kept, length_m: length.value as number | null, species, photo_id }),
    ),
  )
  if (problem.value === null) length.value = photo.value = null
}
function step(sign: number): void {
  count.value = String(Math.max((parseNumber(count.value) ?? 5) + sign, 0))
}
</script>

<template>
  <EntrySheet v-model="open" title="Cast to a school" data-test="cast-sheet">
    <v-card-text class="cast">
      <ErrorNote :text="problem" />
      <template v-if="!casting">
        <p class="label">Lines in, motor round it, not over it. Let it sink on a slack line, then wind just off the bottom, rod low.</p>
        <ChoiceRow v-model="weight" label="the lure weighs" :options="WEIGHTS" test="cast-weight" />
        <NumberStepper v-model="count" label="Count down" unit="seconds, a foot each or so" data-test="cast-count" @step="step" />
        <ChoiceRow v-model="retrieve" label="wound in" :options="RETRIEVES" test="cast-retrieve" />
        <v-btn class="go" data-test="cast-begin" @click="begin">We cast</v-btn>
      </template>
      <template v-else>
        <p data-test="cast-now">
          <b>{{ formatWeight(casting.weight_kg, display.units) }}</b>, count {{ Math.round(casting.count_s) }} (about
          {{ formatLength(casting.depth_m, display.units) }}), {{ casting.retrieve }} · for {{ formatElapsed(casting.start_s, nowS) }} ·
          {{ casting.hits }} {{ casting.hits === 1 ? 'hit' : 'hits' }}, {{ casting.hooked }} on, {{ casting.landed }} in
        </p>
        <div class="acts">
          <v-btn data-test="cast-hit" @click="bite('hit')">Hit</v-btn>
          <v-btn data-test="cast-hooked" @click="bite('hooked')">Fish on</v-btn>
          <v-btn data-test="cast-lost" @click="bite('lost')">Lost</v-btn>
        </div>
        <NumberField
          v-model="length"
          label="length of a landed fish, if measured"
          measure="short"
          placeholder="not measured"
          test="cast-length"
        />
        <ChoiceRow v-model="what" label="what it is" :options="SPECIES" test="cast-species" />
        <PhotoPick v-model="photo" @problem="problem = $event" />
        <div class="acts">
          <v-btn data-test="cast-released" @click="landed(false)">Landed, released</v-btn>
          <v-btn class="solid" data-test="cast-kept" @click="landed(true)">Landed, kept</v-btn>
        </div>
        <v-btn data-test="cast-end" @click="end">We troll again</v-btn>
      </template>
    </v-card-text>
  </EntrySheet>
</template>

<style scoped>
.cast {
  display: grid;
  gap: 12px;
}
.cast .v-btn {
  --v-btn-height: var(--touch);
}
.acts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(90px, 1fr));
  gap: 6px;
}
</style>
