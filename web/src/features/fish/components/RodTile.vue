<script setup lang="ts">
// One rod: the number to set, its clocks, its recipe, its tally, and one tap for what happens.
import { computed } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import type { RodView } from '@/features/trip/api'
import { formatAge, formatDepth, formatElapsed, formatNumber } from '@/features/trip/logic/format'
import RodShape from '@/features/trip/components/RodShape.vue'

export type RodAct =
  'bite' | 'hit' | 'hooked' | 'landed' | 'lost' | 'reset' | 'depth' | 'bait' | 'calibrate' | 'sheet' | 'in' | 'looked' | 'tangled'

const props = defineProps<{ rod: RodView; index: number; nowS: number; selected: boolean; ended: boolean; bitten: boolean }>()
const emit = defineEmits<{ act: [act: RodAct]; select: [] }>()

const display = useDisplayStore()
const verdict = computed(() => ({ too_fast: 'too fast', too_slow: 'too slow', works: '' })[props.rod.verdict ?? 'works'])
const number = computed(() => {
  if (props.rod.line) return formatNumber(props.rod.line.number, display.units)
  return props.rod.status === 'fish_on' ? 'fish on' : 'in'
})
const tally = computed(() => {
  const { hits, hooked, landed, lost } = props.rod.tally
  return `${hits} hit${hits === 1 ? '' : 's'} · ${hooked} on · ${landed} in${lost ? ` · ${lost} lost` : ''}`
})
</script>

<template>
  <article
    class="tile"
    :class="{ selected, on: rod.status === 'fish_on' }"
    :aria-label="rod.name"
    :data-test="`tile-${rod.id}`"
    @click="emit('select')"
  >
    <header>
      <RodShape :shape="rod.shape" :index="index" :size="24" />
      <strong>{{ rod.name }}</strong>
      <span class="label place">{{ rod.place_name }}</span>
      <v-menu>
        <template #activator="{ props: menu }">
          <button v-bind="menu" class="more" :aria-label="`More for ${rod.name}`" :data-test="`more-${rod.id}`">…</button>
        </template>
        <v-list density="comfortable">
          <v-list-item :disabled="!rod.setup" title="Type a depth" :data-test="`type-depth-${rod.id}`" @click="emit('act', 'depth')" />
          <v-list-item
            :disabled="!rod.setup"
            title="Two speeds, tip, bottom"
            :data-test="`sheet-${rod.id}`"
            @click="emit('act', 'sheet')"
          />
          <v-list-item
            :disabled="!rod.line"
            title="A depth was seen"
            :data-test="`calibrate-${rod.id}`"
            @click="emit('act', 'calibrate')"
          />
          <v-list-item v-if="bitten" title="What the bite was like" :data-test="`tell-${rod.id}`" @click="emit('act', 'bite')" />
          <v-list-item title="Bait checked" @click="emit('act', 'bait')" />
          <v-list-item
            :disabled="rod.status === 'in'"
            title="Tangled, in to clear it"
            :data-test="`tangled-${rod.id}`"
            @click="emit('act', 'tangled')"
          />
          <v-list-item :disabled="rod.status === 'in'" title="Line in" @click="emit('act', 'in')" />
        </v-list>
      </v-menu>
    </header>
    <div class="line">
      <span class="figure number" :data-test="`number-${rod.id}`">{{ number }}</span>
      <span v-if="verdict && rod.line" class="verdict" :data-test="`verdict-${rod.id}`">{{ verdict }}</span>
    </div>
    <div class="line">
      <span v-if="rod.line" class="depth" :data-test="`depth-${rod.id}`">{{ formatDepth(rod.line, display.units) }}</span>
      <span v-if="rod.line && (rod.line.clearance_m ?? 0) < 0" class="verdict">in the bottom</span>
      <span v-else class="label" :data-test="`soak-${rod.id}`">soak {{ formatElapsed(rod.soak_since_s, nowS) }}</span>
    </div>
    <p v-if="rod.fault" class="again" role="alert" :data-test="`fault-${rod.id}`">
      This rod cannot be shown: {{ rod.fault }}. Rig it or set its number anew.
    </p>
    <p v-if="rod.long_fight_s" class="again" role="status" :data-test="`long-fight-${rod.id}`">
      Fish on for {{ formatAge(rod.long_fight_s) }}: landed, lost, or still on?
    </p>
    <button v-if="rod.again" class="again" :data-test="`again-${rod.id}`" @click.stop="emit('act', 'looked')">
      Look at it: {{ rod.again }}. Tap when it is right.
    </button>
    <div class="recipe" :title="rod.recipe">{{ rod.recipe || 'not rigged' }}</div>
    <div class="line label">
      <span :data-test="`tally-${rod.id}`">{{ tally }}</span>
      <span v-if="rod.bait_since_s !== null">bait {{ formatElapsed(rod.bait_since_s, nowS) }}</span>
    </div>
    <footer>
      <template v-if="rod.status === 'fishing'">
        <v-btn class="act" :data-test="`hit-${rod.id}`" :disabled="ended" @click.stop="emit('act', 'hit')">Hit</v-btn>
        <v-btn class="act" :data-test="`hooked-${rod.id}`" :disabled="ended" @click.stop="emit('act', 'hooked')">Fish on</v-btn>
      </template>
      <template v-else-if="rod.status === 'fish_on'">
        <v-btn class="act solid" :data-test="`landed-${rod.id}`" @click.stop="emit('act', 'landed')">Landed</v-btn>
        <v-btn class="act" :data-test="`lost-${rod.id}`" @click.stop="emit('act', 'lost')">Lost</v-btn>
      </template>
      <v-btn
        v-else-if="rod.setup"
        class="act"
        :data-test="`reset-${rod.id}`"
        :disabled="ended"
        @click.stop="emit('act', rod.last_setting_m === null ? 'depth' : 'reset')"
      >
        {{ rod.last_setting_m === null ? 'Set its depth' : 'Reset to its number' }}
      </v-btn>
    </footer>
  </article>
</template>

<style scoped>
.tile {
  display: flex;
  flex-direction: column;
  gap: 2px;
  padding: 5px 9px 7px;
  background: var(--frost);
  border: 1px solid var(--line);
  border-radius: 4px;
  min-width: 0;
}
.again {
  min-height: 44px;
  text-align: left;
  font-size: 13px;
  font-weight: 700;
  line-height: 1.2;
  border-left: 4px solid var(--now);
  padding-left: 6px;
}
.tile.selected {
  border-color: var(--ink);
  box-shadow: inset 0 0 0 1.5px var(--ink);
}
.tile.on {
  border-style: double;
  border-width: 4px;
  border-color: var(--ink);
}
header {
  display: flex;
  align-items: center;
  gap: 6px;
  min-width: 0;
}
.place {
  flex: 1;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.more {
  width: 44px;
  height: 32px;
  margin: -4px -8px -4px 0;
  font-weight: 800;
  color: var(--ink);
}
.number {
  font-size: 23px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.line {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 6px;
  white-space: nowrap;
}
.depth {
  font-size: 15px;
  font-weight: 640;
  font-stretch: 90%;
}
.verdict {
  color: var(--now);
  font-weight: 760;
}
.recipe {
  font-size: 13px;
  line-height: 1.2;
  min-height: 32px;
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
footer {
  display: flex;
  gap: 6px;
  margin-top: auto;
}
.act {
  flex: 1;
  min-width: 0;
  --v-btn-height: var(--touch);
  font-size: 16px;
  padding: 0 4px;
}
</style>
