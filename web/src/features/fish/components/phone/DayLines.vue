<script setup lang="ts">
// What is about to happen and what is worth doing, a line each; both open.
import { computed } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import RodShape from '@/features/trip/components/RodShape.vue'
import type { BottomCall, FishView } from '@/features/trip/api'
import { formatNumber } from '@/features/trip/logic/format'
import { callWords, urgentCalls } from '../../logic/calls'
import { moveWords } from '../../logic/moves'

const props = defineProps<{ view: FishView; rodIndex: (id: string) => number }>()
const emit = defineEmits<{ move: []; calls: []; set: [call: BottomCall] }>()
const display = useDisplayStore()
const calls = computed(() => urgentCalls(props.view))
const first = computed(() => calls.value[0] ?? null)
const rod = computed(() => props.view.rods.find((item) => item.id === first.value?.rod_id))
const move = computed(() => moveWords(props.view, display.units))
</script>

<template>
  <div class="lines">
    <div v-if="first && rod" class="line" :class="{ soon: first.urgency === 'soon' }" data-test="ahead">
      <button type="button" class="words" data-test="open-calls" @click="emit('calls')">
        <RodShape :shape="rod.shape" :index="rodIndex(rod.id)" :size="20" />
        <span
          >{{ callWords(first, rod.name, display.units).say }}<template v-if="calls.length > 1"> +{{ calls.length - 1 }}</template></span
        >
        <small>{{ callWords(first, rod.name, display.units).time }}</small>
      </button>
      <v-btn v-if="first.number" class="set" :data-test="`set-call-${first.rod_id}`" @click="emit('set', first)">{{
        formatNumber(first.number, display.units)
      }}</v-btn>
    </div>
    <button type="button" class="line words move" data-test="open-move" @click="emit('move')">
      <span>{{ move }}</span>
      <small aria-hidden="true">›</small>
    </button>
  </div>
</template>

<style scoped>
.lines {
  display: grid;
  gap: 3px;
}
.line {
  display: flex;
  align-items: center;
  min-height: 46px;
  background: var(--frost);
}
.words {
  display: flex;
  flex: 1;
  align-items: center;
  gap: 8px;
  min-width: 0;
  min-height: 46px;
  padding: 0 10px;
  text-align: left;
  font-size: 15px;
  font-weight: 680;
  line-height: 1.15;
  color: var(--ink);
}
.words span {
  flex: 1;
  min-width: 0;
  max-height: 36px;
  overflow: hidden;
}
.move {
  border-left: 5px solid var(--now);
}
.soon .words {
  color: var(--now);
}
.set {
  --v-btn-height: 44px;
  margin-right: 3px;
  padding: 0 8px;
  font-size: 14px;
}
small {
  font-size: 13px;
}
.move small {
  font-size: 22px;
}
</style>
