<script setup lang="ts">
// Closed water or a hazard that the boat is in or heads for: the nearest, and by whose word.
import { computed, ref } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import type { FishView } from '@/features/trip/api'
import { keepOutWords } from '../logic/calls'

const props = defineProps<{ view: FishView }>()
/** The rule in full: a line of it is enough until somebody asks. */
const whole = ref(false)
const display = useDisplayStore()
const first = computed(() => props.view.keep_out[0])
const words = computed(() => first.value && keepOutWords(first.value, display.units))
</script>

<template>
  <button
    v-if="first && words"
    type="button"
    class="keep-out"
    :class="{ now: first.state !== 'ahead', whole }"
    :aria-expanded="whole"
    data-test="keep-out"
    :data-state="first.state"
    @click="whole = !whole"
  >
    <b role="alert">{{ words.say }}</b>
    <small
      >{{ words.why }}<template v-if="view.keep_out.length > 1"> And {{ view.keep_out.length - 1 }} more near.</template></small
    >
  </button>
</template>

<style scoped>
.keep-out {
  display: grid;
  gap: 2px;
  width: 100%;
  min-height: 48px;
  padding: 5px 10px;
  text-align: left;
  line-height: 1.2;
  color: var(--ink);
  background: var(--frost);
  border-left: 5px solid var(--now);
}
.now b {
  color: var(--now);
}
b {
  font-size: 15px;
  font-weight: 720;
}
small {
  font-size: 12.5px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.whole small {
  white-space: normal;
}
</style>
