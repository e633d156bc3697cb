<script setup lang="ts">
// The head of Fish: where, when, how warm, and the few things that are noted all day.
import { computed } from 'vue'
import { useInstrumentsStore } from '@/features/instruments/store'
import { usePhotoStore } from '@/features/trip/delivery/photoStore'
import { useDeliveryStore } from '@/features/trip/delivery/store'
import { useDisplayStore } from '@/shared/units/store'
import { formatTemperature } from '@/shared/units/units'
import FigureRead from '@/shared/ui/FigureRead.vue'
import type { FishView, TripDocument } from '@/features/trip/api'
import type { DialogName } from '../composables/useFishActs'
import { formatAge, formatClock } from '@/features/trip/logic/format'
import { useFollowingStore } from '@/features/trip/following'
import { useTripStore } from '@/features/trip/store'

defineProps<{ view: FishView; trip: TripDocument; nowS: number }>()
const emit = defineEmits<{ ask: [dialog: DialogName]; undo: [] }>()

const display = useDisplayStore()
const store = useTripStore()
const following = useFollowingStore()
const delivery = useDeliveryStore()
const photos = usePhotoStore()
const instruments = useInstrumentsStore()
const live = computed(() => (instruments.isSet ? (instruments.isHeard ? 'instruments heard' : 'instruments silent') : ''))
const notTaken = computed(() => delivery.progress.notTaken + photos.refused.length)
</script>

<template>
  <header class="head">
    <div class="where">
      <h1 class="water-name">{{ trip.water_name }}</h1>
      <span class="label">{{ trip.name }} · {{ trip.species }}</span>
    </div>
    <FigureRead class="reading" :value="formatClock(nowS, trip.utc_offset_min)" label="at the water" />
    <button class="reading tap" data-test="temperature" @click="emit('ask', 'temperature')">
      <span class="figure" :class="{ aged: view.surface_old }">{{
        view.surface_degc === null ? '–' : formatTemperature(view.surface_degc, display.units)
      }}</span><span class="label" data-test="surface-age">{{
        view.surface_old ? `${formatAge(view.surface_age_s!)} old` : 'surface'
      }}</span>
    </button>
    <!-- When it matters, and not before: close to the limit, or something kept that the note does not allow. -->
    <span
      v-if="view.limit && (view.limit.near || view.limit.notes.length)"
      class="limit"
      :class="{ full: view.limit.reached || view.limit.notes.length }"
      :title="view.limit.notes.join(' ')"
      role="status"
      data-test="limit"
    >
      <b v-if="view.limit.most !== null">{{ view.limit.counted }} of {{ view.limit.most }}</b>
      <span class="label">{{ view.limit.notes[0] ?? `${view.limit.species ?? 'fish'}, as you noted the limit` }}</span>
    </span>
    <v-btn class="entry" data-test="add-mark" @click="emit('ask', 'mark')">Mark</v-btn>
    <v-btn class="entry" data-test="sound" @click="emit('ask', 'bottom')">Bottom</v-btn>
    <v-btn class="entry" data-test="place" @click="emit('ask', 'place')">{{ following.on ? 'Followed' : 'Place' }}</v-btn>
    <v-btn class="entry" data-test="back" @click="emit('ask', 'back')">Back</v-btn>
    <v-btn class="entry" data-test="note" @click="emit('ask', view.casting ? 'cast' : 'note')">{{
      view.casting ? 'Casting' : 'Note'
    }}</v-btn>
    <v-btn class="entry" data-test="undo" :disabled="!view.undo_event_id" @click="emit('undo')">Undo</v-btn>
    <v-btn class="entry slim" aria-label="Keys" data-test="help" @click="emit('ask', 'help')">?</v-btn>
    <div
      class="link label"
      role="status"
      data-test="link"
      :data-pending="store.pending"
      :data-down="store.linkDown"
      :data-state="delivery.progress.state"
      :title="delivery.progress.note ?? ''"
    >
      <template v-if="delivery.progress.state === 'signed_out'">login ended · {{ store.pending }} waiting here</template>
      <template v-else-if="store.linkDown">link down · {{ store.pending }} waiting here</template>
      <template v-else-if="delivery.progress.state === 'held'">{{ store.pending }} waiting here: {{ delivery.progress.note }}</template>
      <template v-else-if="store.pending">sending {{ store.pending }}</template>
      <template v-else-if="!notTaken">all kept</template>
      <button v-if="notTaken" class="refused" data-test="open-not-taken" @click="emit('ask', 'not-taken')">{{ notTaken }} not taken</button>
      <span v-if="live" data-test="live"> · {{ live }}</span>
      <span v-if="photos.waiting.length" data-test="photos-waiting">
        · {{ photos.waiting.length }} {{ photos.waiting.length === 1 ? 'photo' : 'photos' }} to send</span
      >
      <span v-if="store.coreFailed"> · computed by the server</span>
    </div>
  </header>
</template>

<style scoped>
.entry {
  --v-btn-height: var(--touch);
  font-size: 16px;
}
.head {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0 8px;
  background: var(--frost);
  min-height: 60px;
}
.limit {
  display: grid;
  max-width: 220px;
  padding: 2px 8px;
  line-height: 1.2;
  border-left: 4px solid var(--line);
}
.limit.full {
  border-left-color: var(--now);
}
.where {
  flex: 1;
  min-width: 0;
}
.reading {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 3px;
  padding: 4px 8px;
  color: var(--ink);
}
.reading .figure {
  font-size: 26px;
}
.tap {
  min-height: var(--touch);
  border: 1px solid var(--line);
  border-radius: 3px;
}
.aged {
  color: var(--ink-2);
  font-style: italic;
}
.refused {
  min-height: 44px;
  padding: 0 8px;
  color: var(--now);
  font-weight: 760;
  border: 2px solid currentColor;
  border-radius: 4px;
}
.slim {
  min-width: 44px;
  padding: 0;
}
.link {
  width: 96px;
  text-align: right;
}
</style>
