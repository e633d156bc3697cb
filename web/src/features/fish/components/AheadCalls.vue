<script setup lang="ts">
// Who meets the bottom next, when, and the number that clears it: one tap sets it.
import { computed, ref } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'
import type { BottomCall, FishView } from '@/features/trip/api'
import { formatNumber } from '@/features/trip/logic/format'
import { callWords, urgentCalls } from '../logic/calls'
import RodShape from '@/features/trip/components/RodShape.vue'

const props = defineProps<{ view: FishView; rodIndex: (id: string) => number }>()
const emit = defineEmits<{ set: [call: BottomCall] }>()

const SHOWN = 2
/** The source in full: one line of it is enough until somebody asks. */
const whole = ref(false)

const display = useDisplayStore()
const worth = computed(() => urgentCalls(props.view))
const rows = computed(() =>
  worth.value.slice(0, SHOWN).flatMap((call) => {
    const rod = props.view.rods.find((item) => item.id === call.rod_id)
    if (!rod) return []
    const { say, when } = callWords(call, rod.name, display.units)
    return [{ call, rod, words: say, when, soon: call.urgency === 'soon' }]
  }),
)
const source = computed(() => {
  const ahead = props.view.ahead
  if (!ahead) return ''
  const minutes = Math.round(ahead.age_s / 60)
  if (ahead.source === 'sounding') return `By the sounding of ${minutes} min ago, taken as level. A chart and a place look farther.`
  const level =
    Math.abs(ahead.level_m) > 0.2
      ? `, water ${formatLength(Math.abs(ahead.level_m), display.units)} ${ahead.level_m < 0 ? 'below' : 'above'} it`
      : ''
  const round = ahead.place_doubt_m === null ? '' : `, within ${formatLength(ahead.place_doubt_m, display.units)}`
  return `Charts err: watch the sonar. Place ${minutes} min old${round}${level}.`
})
</script>

<template>
  <section v-if="view.ahead && rows.length" class="calls" aria-label="Bottom ahead" data-test="ahead">
    <div v-for="row in rows" :key="row.call.rod_id" class="row" :class="{ soon: row.soon }" :data-test="`call-${row.call.rod_id}`">
      <RodShape :shape="row.rod.shape" :index="rodIndex(row.rod.id)" :size="20" />
      <span class="words">
        {{ row.words }}<small>{{ row.when }}</small>
      </span>
      <v-btn v-if="row.call.number" class="set" :data-test="`set-call-${row.call.rod_id}`" @click="emit('set', row.call)">
        {{ formatNumber(row.call.number, display.units) }}
      </v-btn>
    </div>
    <button class="label source" :class="{ whole }" :aria-expanded="whole" @click="whole = !whole">
      {{ worth.length > SHOWN ? `${worth.length - SHOWN} more after them. ` : '' }}{{ source }}
    </button>
  </section>
</template>

<style scoped>
.calls {
  background: var(--frost);
  padding: 4px 8px;
  display: flex;
  flex-direction: column;
  gap: 2px;
}
.row {
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: 14px;
  font-weight: 660;
  line-height: 1.2;
  min-height: 46px;
}
.words {
  flex: 1;
  min-width: 0;
}
small {
  display: block;
  font-size: 12.5px;
  font-weight: 540;
}
.source {
  min-height: 24px;
  font-size: 12.5px;
  padding: 0;
  text-align: left;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.source.whole {
  white-space: normal;
}
.soon .words {
  color: var(--now);
  font-weight: 760;
}
.set {
  --v-btn-height: 44px;
  padding: 0 10px;
  font-size: 14px;
}
</style>
