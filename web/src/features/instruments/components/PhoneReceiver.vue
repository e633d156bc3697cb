<script setup lang="ts">
// This device's own receiver: a source like any other, without a server too.
import { computed } from 'vue'
import { useNow } from '@vueuse/core'
import { useFollowingStore } from '@/features/trip/following'
import { useTripStore } from '@/features/trip/store'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'

const display = useDisplayStore()
const following = useFollowingStore()
const trip = useTripStore()
const now = useNow({ interval: 1000 })
const ageS = computed(() => (following.heard ? Math.max(now.value.getTime() / 1000 - following.heard.at_s, 0) : null))
const open = computed(() => trip.trip !== null && trip.view !== null && !trip.view.ended)
const words = computed(() => {
  if (following.problem) return following.problem
  if (!open.value) return 'It tells the open trip where the boat is: open one on Fish first.'
  if (!following.on) return 'Not listened to.'
  const fix = following.heard
  if (!fix) return 'Waiting for its first fix.'
  return `Heard ${Math.round(ageS.value!)} s ago: ${fix.latitude_deg.toFixed(5)}, ${fix.longitude_deg.toFixed(5)}, within ${formatLength(fix.accuracy_m, display.units)}.`
})
</script>

<template>
  <article class="source" data-test="phone-receiver">
    <header><strong>This device's own receiver</strong></header>
    <p :class="{ wrong: following.problem }" data-test="phone-state">{{ words }}</p>
    <div class="acts">
      <v-btn
        :aria-pressed="following.on"
        :disabled="!open"
        data-test="phone-follow"
        @click="following.on ? following.stop() : following.start()"
        >{{ following.on ? 'Stop listening' : 'Listen to it' }}</v-btn
      >
    </div>
  </article>
</template>
