<script setup lang="ts">
// The photos of a trip: when, what, how long; a picture that has not come in yet is told.
import { ref, useTemplateRef, watch } from 'vue'
import { listPhotos, type PhotoTold, type TripDocument } from '@/features/trip/api'
import { usePhotoStore } from '@/features/trip/delivery/photoStore'
import { useDeliveryStore } from '@/features/trip/delivery/store'
import { makeEvent, type EventPayload } from '@/features/trip/logic/events'
import { formatClock, tripDay } from '@/features/trip/logic/format'
import { photoFacts, takenS } from '@/features/trip/logic/photoFacts'
import { shrink } from '@/features/trip/logic/shrink'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatFishLength } from '@/shared/units/units'

const props = defineProps<{ trip: TripDocument }>()
const display = useDisplayStore()
const photos = ref<PhotoTold[]>([])
const problem = ref<string | null>(null)
const store = usePhotoStore()
const delivery = useDeliveryStore()
const input = useTemplateRef<HTMLInputElement>('input')
const busy = ref(false)

/** Pictures of the day from another camera: each at the moment, and the place, that it says itself. */
async function add(): Promise<void> {
  busy.value = true
  const bad: string[] = []
  for (const file of input.value?.files ?? []) {
    try {
      await addOne(file)
    } catch (error) {
      bad.push(`${file.name}: ${describeError(error, display.units)}`)
    }
  }
  if (input.value) input.value.value = ''
  busy.value = false
  await fetch(props.trip.id)
  problem.value = bad.length ? bad.join(' ') : problem.value
}
async function addOne(file: File): Promise<void> {
  const facts = photoFacts(await file.arrayBuffer())
  const atS = takenS(facts, props.trip.utc_offset_min)
  if (atS === null) throw new Error('It does not say when it was taken: note it on Fish, at its minute.')
  if (tripDay({ ...props.trip, started_at_s: atS }) !== tripDay(props.trip)) throw new Error('It was taken on another day than this trip.')
  const shrunk = await shrink(file)
  await store.keepWith(props.trip.id, shrunk, async (photo_id) => {
    const payload = { kind: 'note', text: '', photo_id, ...facts.place }
    await delivery.keep(props.trip.id, makeEvent('noted', payload as EventPayload, atS))
    return true
  })
  await delivery.flush()
  await store.flush()
}

function words(photo: PhotoTold): string {
  const rod = props.trip.outfit.rods.find((item) => item.id === photo.rod_id)?.name
  const length = photo.length_m == null ? '' : `, ${formatFishLength(photo.length_m, display.units)}`
  const what = photo.species ? `${photo.species}${length}, ${photo.kept ? 'kept' : 'released'}${rod ? `, ${rod}` : ''}` : photo.text
  return `${formatClock(photo.at_s, props.trip.utc_offset_min)}${what ? ` · ${what}` : ''}`
}

async function fetch(id: string): Promise<void> {
  problem.value = null
  try {
    const found = (await listPhotos(id)).photos
    if (id === props.trip.id) photos.value = found
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}
watch(
  () => props.trip.id,
  (id) => {
    photos.value = []
    void fetch(id)
  },
  { immediate: true },
)
</script>

<template>
  <p class="add">
    <input ref="input" type="file" accept="image/*" multiple hidden data-test="add-photo" @change="add" />
    <v-btn :disabled="busy" @click="input?.click()">{{ busy ? 'Adding…' : 'Add pictures of this day' }}</v-btn>
    <span class="label">Each stands at the time and place that it says itself; then that is taken out of it.</span>
  </p>
  <ErrorNote :text="problem" />
  <ul v-if="photos.length" aria-label="Photos" data-test="photos">
    <li v-for="photo in photos" :key="photo.photo_id">
      <a v-if="photo.is_here" :href="`/api/trips/${trip.id}/photos/${photo.photo_id}/`">
        <img :src="`/api/trips/${trip.id}/photos/${photo.photo_id}/`" :alt="words(photo)" loading="lazy" />
      </a>
      <span v-else class="away label">still on the phone that took it</span>
      <span class="label">{{ words(photo) }}</span>
    </li>
  </ul>
</template>

<style scoped>
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
}
.v-btn {
  --v-btn-height: 44px;
}
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  gap: 4px;
  width: 180px;
}
img,
.away {
  display: grid;
  place-items: center;
  width: 180px;
  height: 120px;
  object-fit: cover;
  border: 1px solid var(--line);
}
</style>
