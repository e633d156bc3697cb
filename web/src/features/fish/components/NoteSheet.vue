<script setup lang="ts">
// What is seen beside the fishing: a pass through fish, birds, a place to come back to, a few words.
import { ref, shallowRef, watch } from 'vue'
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import PhotoPick from '@/features/trip/components/PhotoPick.vue'
import { usePhotoStore } from '@/features/trip/delivery/photoStore'
import type { Shrunk } from '@/features/trip/logic/shrink'
import { useTripStore } from '@/features/trip/store'
import type { FishView } from '@/features/trip/api'
import { hereOnce } from '../logic/place'

const props = defineProps<{ view: FishView }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ cast: [] }>()
const store = useTripStore()
const text = ref('')
const photo = shallowRef<Shrunk | null>(null)
const photos = usePhotoStore()
const problem = ref<string | null>(null)
watch(open, () => {
  text.value = ''
  photo.value = null
  problem.value = null
})

async function keep(act: () => Promise<boolean>): Promise<void> {
  problem.value = await store.attempt(act)
  if (problem.value === null) open.value = false
}
const pass = () => keep(() => store.record(props.view.passing && props.view.passing.end_s === null ? 'pass_ended' : 'pass_begun', {}))
const turn = (toward: 'port' | 'starboard') => keep(() => store.record('turn_begun', { toward }))
const straight = () => keep(() => store.record('turn_ended', {}))
const birds = () => keep(() => store.record('noted', { kind: 'birds', text: text.value.trim() }))
const note = () =>
  keep(() =>
    photos.keepWith(store.trip!.id, photo.value, (photo_id) => store.record('noted', { kind: 'note', text: text.value.trim(), photo_id })),
  )
const waypoint = () =>
  keep(async () => {
    const place = await hereOnce().catch(() => null)
    return store.record('noted', { kind: 'waypoint', text: text.value.trim(), ...(place ?? {}) })
  })
</script>

<template>
  <entry-sheet v-model="open" title="Note" data-test="note-sheet">
    <v-card-text class="notes">
      <v-btn data-test="pass" @click="pass">{{
        view.passing && view.passing.end_s === null ? 'The pass through fish ends' : 'A pass through fish begins'
      }}</v-btn>
      <p v-if="view.passing" class="label" data-test="passing">
        {{ view.passing.end_s === null ? 'This pass' : 'Last pass' }}: {{ view.passing.fish }} fish marked, {{ view.passing.hits }}
        {{ view.passing.hits === 1 ? 'hit' : 'hits' }}.
      </p>
      <div class="acts" role="group" aria-label="Turn">
        <v-btn :class="{ chosen: view.turning === 'port' }" data-test="turn-port" @click="turn('port')">Turn left</v-btn>
        <v-btn data-test="turn-over" :disabled="!view.turning" @click="straight">Straight</v-btn>
        <v-btn :class="{ chosen: view.turning === 'starboard' }" data-test="turn-starboard" @click="turn('starboard')">Turn right</v-btn>
      </div>
      <v-btn data-test="to-cast" @click="emit('cast')">{{ view.casting ? 'Casting to a school' : 'Cast to a school' }}</v-btn>
      <TextField v-model="text" label="in a few words" maxlength="300" test="note-text" />
      <PhotoPick v-model="photo" @problem="problem = $event" />
      <ErrorNote :text="problem" />
      <div class="acts">
        <v-btn data-test="note-birds" @click="birds">Birds</v-btn>
        <v-btn data-test="note-waypoint" @click="waypoint">Place</v-btn>
        <v-btn data-test="note-keep" :disabled="!text.trim() && !photo" @click="note">Keep note</v-btn>
      </div>
    </v-card-text>
  </entry-sheet>
</template>

<style scoped>
.notes {
  display: grid;
  gap: 10px;
}
.v-btn {
  --v-btn-height: var(--touch);
}
.acts {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
}
</style>
