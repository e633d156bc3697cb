<script setup lang="ts">
// The head of Fish on a phone: the hour, the surface, and what is noted all day; the rest behind one press.
import { computed } from 'vue'
import { usePhotoStore } from '@/features/trip/delivery/photoStore'
import { useDeliveryStore } from '@/features/trip/delivery/store'
import { useFollowingStore } from '@/features/trip/following'
import { useTripStore } from '@/features/trip/store'
import { useDisplayStore } from '@/shared/units/store'
import { formatTemperature } from '@/shared/units/units'
import type { FishView, TripDocument } from '@/features/trip/api'
import { formatClock } from '@/features/trip/logic/format'
import type { DialogName } from '../../composables/useFishActs'

defineProps<{ view: FishView; trip: TripDocument; nowS: number; marking: boolean; above: boolean }>()
const emit = defineEmits<{ ask: [dialog: DialogName]; mark: []; undo: []; above: []; day: [] }>()
const display = useDisplayStore()
const store = useTripStore()
const following = useFollowingStore()
const delivery = useDeliveryStore()
const photos = usePhotoStore()
const notTaken = computed(() => delivery.progress.notTaken + photos.refused.length)
</script>

<template>
  <header class="head">
    <div class="hour">
      <b>{{ formatClock(nowS, trip.utc_offset_min) }}</b>
      <span
        class="label"
        role="status"
        data-test="link"
        :data-pending="store.pending"
        :data-down="store.linkDown"
        :data-state="delivery.progress.state"
        :title="delivery.progress.note ?? ''"
      >
        <template v-if="delivery.progress.state === 'signed_out'">login ended</template>
        <template v-else-if="store.pending">{{ store.pending }} waiting</template>
        <template v-else-if="store.linkDown">no link</template>
        <template v-else-if="photos.waiting.length">{{ photos.waiting.length }} to send</template>
        <template v-else>all kept</template>
      </span>
    </div>
    <button type="button" class="key" data-test="temperature" @click="emit('ask', 'temperature')">
      <b :class="{ aged: view.surface_old }">{{
        view.surface_degc === null ? '–' : formatTemperature(view.surface_degc, display.units)
      }}</b>
    </button>
    <button v-if="notTaken" type="button" class="key refused" data-test="open-not-taken" @click="emit('ask', 'not-taken')">
      {{ notTaken }} not taken
    </button>
    <button
      v-if="view.limit && (view.limit.near || view.limit.notes.length)"
      type="button"
      class="key"
      :class="{ refused: view.limit.reached || view.limit.notes.length }"
      data-test="limit"
      @click="emit('day')"
    >
      {{ view.limit.most !== null ? `${view.limit.counted} of ${view.limit.most}` : 'limit' }}
    </button>
    <button type="button" class="key wide" :class="{ marking }" :aria-pressed="marking" data-test="add-mark" @click="emit('mark')">
      {{ marking ? 'Tap the depth' : 'Mark' }}
    </button>
    <button type="button" class="key wide" data-test="undo" :disabled="!view.undo_event_id" @click="emit('undo')">Undo</button>
    <v-menu>
      <template #activator="{ props: menu }">
        <button v-bind="menu" type="button" class="key" aria-label="More to note" data-test="more-notes">…</button>
      </template>
      <v-list density="comfortable">
        <v-list-item title="Type a mark" data-test="type-mark" @click="emit('ask', 'mark')" />
        <v-list-item v-if="view.casting" title="Casting to a school" data-test="casting" @click="emit('ask', 'cast')" />
        <v-list-item title="Note, birds, pass, turn" data-test="note" @click="emit('ask', 'note')" />
        <v-list-item title="Back through it" data-test="back" @click="emit('ask', 'back')" />
        <v-list-item title="Bottom" data-test="sound" @click="emit('ask', 'bottom')" />
        <v-list-item :title="following.on ? 'Place: followed' : 'Place and course'" data-test="place" @click="emit('ask', 'place')" />
        <v-list-item title="Speed by GPS" data-test="gps" @click="emit('ask', 'gps')" />
        <v-list-item title="Method and day" data-test="open-day" @click="emit('day')" />
        <v-list-item :title="above ? 'From the side' : 'From above'" data-test="switch-view" @click="emit('above')" />
      </v-list>
    </v-menu>
  </header>
</template>

<style scoped>
.head {
  display: flex;
  gap: 3px;
  height: 56px;
  background: var(--frost);
}
.hour {
  display: grid;
  align-content: center;
  flex: none;
  width: 68px;
  padding-left: 8px;
  line-height: 1.05;
}
.hour b {
  font-size: 20px;
  font-stretch: 88%;
  font-variant-numeric: tabular-nums;
}
.hour .label {
  font-size: 11.5px;
  white-space: nowrap;
}
.key {
  flex: 1 1 52px;
  min-width: 44px;
  font-size: 15px;
  font-weight: 680;
  line-height: 1.1;
  color: var(--ink);
  border-left: 1px solid var(--line);
}
.key b {
  font-size: 18px;
  font-stretch: 88%;
}
.wide {
  flex-basis: 66px;
}
.key:disabled {
  color: var(--ink-2);
}
.marking {
  background: var(--ink);
  color: var(--frost);
}
.refused {
  color: var(--now);
  font-weight: 760;
}
.aged {
  color: var(--ink-2);
  font-style: italic;
}
</style>
