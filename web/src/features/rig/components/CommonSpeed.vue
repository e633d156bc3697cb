<script setup lang="ts">
// The speed that all rods share, over ground too; who is the odd one out, and the smallest change.
import { computed } from 'vue'
import type { RodSetup, SpreadCheck } from '@/features/trip/api'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed } from '@/shared/units/units'

const props = defineProps<{ spread: SpreadCheck; nameOf: (id: string) => string }>()
const emit = defineEmits<{ mend: [setup: RodSetup] }>()

const display = useDisplayStore()
const common = computed(() => props.spread.common)
</script>

<template>
  <section class="common" data-test="common-speed">
    <span class="label">the speed they share</span>
    <template v-if="common.window?.is_open">
      <strong v-if="common.proposal_mps !== null" class="figure">{{ formatSpeed(common.proposal_mps, display.units) }}</strong>
      <p class="label">
        {{ formatSpeed(common.window.low_mps, display.units, false) }}–{{ formatSpeed(common.window.high_mps, display.units) }} through the
        water<template v-if="!common.gusts_fit">: no room for gusts</template>
      </p>
      <p v-if="spread.passes" data-test="proposal-passes">
        by GPS {{ formatSpeed(spread.passes.up_mps, display.units) }} up the current,
        {{ formatSpeed(spread.passes.down_mps, display.units) }} down it
      </p>
    </template>
    <template v-else-if="common.window">
      <strong class="none">no speed suits all</strong>
      <template v-if="common.odd">
        <p>
          {{ nameOf(common.odd.rod_id) }} is the odd one out: the others share
          {{ formatSpeed(common.odd.others.low_mps, display.units, false) }}–{{ formatSpeed(common.odd.others.high_mps, display.units) }}.
        </p>
        <v-btn v-if="common.odd.setup" class="big" data-test="mend-odd" @click="emit('mend', common.odd.setup)">{{
          common.odd.words
        }}</v-btn>
        <p v-else class="label">Nothing aboard brings it in: take it off.</p>
      </template>
    </template>
    <p v-if="spread.over_licence" class="none" data-test="over-licence">
      {{ spread.over_licence }} more rods than you noted for this water ({{ spread.rules_origin }}). It is your note, not the law.
    </p>
  </section>
</template>

<style scoped>
.common {
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
.figure {
  display: block;
  font-size: 30px;
}
.none {
  color: var(--now);
  font-weight: 700;
}
.big {
  min-height: var(--touch);
}
</style>
