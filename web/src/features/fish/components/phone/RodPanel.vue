<script setup lang="ts">
// The rod that was chosen: its number, what it wears, and what is done with it. The water above sets its depth.
import { useDisplayStore } from '@/shared/units/store'
import RodShape from '@/features/trip/components/RodShape.vue'
import type { RodView } from '@/features/trip/api'
import { formatDepth, formatElapsed, formatNumber } from '@/features/trip/logic/format'
import type { RodAct } from '../RodTile.vue'

defineProps<{ rod: RodView; index: number; nowS: number; ended: boolean; bitten: boolean }>()
const emit = defineEmits<{ act: [act: RodAct]; lure: []; close: [] }>()
const display = useDisplayStore()
</script>

<template>
  <section class="panel" :aria-label="rod.name" data-test="rod-panel">
    <div class="top">
      <RodShape :shape="rod.shape" :index="index" :size="26" />
      <span class="number" :data-test="`number-${rod.id}`">{{
        rod.line ? formatNumber(rod.line.number, display.units) : rod.status === 'fish_on' ? 'fish on' : 'in'
      }}</span>
      <span v-if="rod.line" class="label">{{ formatDepth(rod.line, display.units) }}</span>
      <button type="button" class="close" aria-label="Close" @click="emit('close')">×</button>
    </div>
    <p class="label recipe">
      {{ rod.name }} {{ rod.place_name }} · {{ rod.recipe || 'not rigged' }} · soak {{ formatElapsed(rod.soak_since_s, nowS) }} ·
      {{ rod.tally.hits }} hit{{ rod.tally.hits === 1 ? '' : 's' }}, {{ rod.tally.landed }} in
    </p>
    <p v-if="rod.line" class="label tip">Tap the water at the depth that it should run at.</p>
    <div class="acts">
      <v-btn v-if="rod.status === 'fishing'" :disabled="ended" :data-test="`hooked-${rod.id}`" @click="emit('act', 'hooked')"
        >Fish on</v-btn
      >
      <v-btn v-else-if="rod.status === 'fish_on'" :data-test="`lost-${rod.id}`" @click="emit('act', 'lost')">Lost</v-btn>
      <v-btn :disabled="!rod.setup" data-test="swap-lure" @click="emit('lure')">Lure</v-btn>
      <v-btn :data-test="`bait-${rod.id}`" @click="emit('act', 'bait')">Bait</v-btn>
      <v-btn :disabled="rod.status === 'in'" :data-test="`in-${rod.id}`" @click="emit('act', 'in')">In</v-btn>
      <v-menu>
        <template #activator="{ props: menu }">
          <v-btn v-bind="menu" :aria-label="`More for ${rod.name}`" :data-test="`more-${rod.id}`">…</v-btn>
        </template>
        <v-list density="comfortable">
          <v-list-item v-if="bitten" title="What the bite was like" :data-test="`tell-${rod.id}`" @click="emit('act', 'bite')" />
          <v-list-item :disabled="!rod.setup" title="Type a depth" :data-test="`type-depth-${rod.id}`" @click="emit('act', 'depth')" />
          <v-list-item :disabled="!rod.setup" title="Two speeds, tip, bottom" @click="emit('act', 'sheet')" />
          <v-list-item :disabled="!rod.line" title="A depth was seen" @click="emit('act', 'calibrate')" />
          <v-list-item
            :disabled="rod.status === 'in'"
            title="Tangled, in to clear it"
            :data-test="`tangled-${rod.id}`"
            @click="emit('act', 'tangled')"
          />
          <v-list-item v-if="rod.again" :title="`Looked at: ${rod.again}`" @click="emit('act', 'looked')" />
        </v-list>
      </v-menu>
    </div>
  </section>
</template>

<style scoped>
.panel {
  display: flex;
  flex-direction: column;
  gap: 2px;
  height: 154px;
  padding: 4px 8px;
  background: var(--frost);
}
.top {
  display: flex;
  align-items: center;
  gap: 8px;
}
.number {
  flex: 1;
  font-size: 22px;
  font-weight: 720;
  font-stretch: 86%;
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.close {
  width: 44px;
  height: 36px;
  font-size: 24px;
  color: var(--ink);
}
p {
  margin: 0;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.acts {
  display: flex;
  gap: 4px;
  margin-top: auto;
}
.acts .v-btn {
  --v-btn-height: 56px;
  flex: 1;
  min-width: 0;
  padding: 0 4px;
  font-size: 16px;
}
</style>
