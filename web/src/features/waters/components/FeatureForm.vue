<script setup lang="ts">
// Something on the chart: placed by a press on the map; closed water says by whose rule, and since when it is known.
import { computed } from 'vue'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import TextField from '@/shared/ui/TextField.vue'
import { AREAS, type DraftFeature } from '../api'

const feature = defineModel<DraftFeature>({ required: true })
const emit = defineEmits<{ keep: []; drop: []; leave: []; undo: [] }>()
const KINDS = [
  { value: 'launch', title: 'Launch' },
  { value: 'shore', title: 'Shore or island' },
  { value: 'inlet', title: 'Inlet' },
  { value: 'point', title: 'Point' },
  { value: 'bar', title: 'Bar' },
  { value: 'neck', title: 'Neck' },
  { value: 'place', title: 'Place' },
  { value: 'hazard', title: 'Keep off' },
  { value: 'closed_ring', title: 'Closed ring' },
  { value: 'closed_area', title: 'Closed area' },
] as const
const area = computed(() => AREAS.includes(feature.value.kind))
const closed = computed(() => feature.value.kind === 'closed_ring' || feature.value.kind === 'closed_area')
const ring = computed(() => feature.value.kind === 'closed_ring' || feature.value.kind === 'hazard')
</script>

<template>
  <form class="feature" aria-label="Something on the chart" @submit.prevent="emit('keep')">
    <ChoiceRow v-model="feature.kind" label="what it is" :options="KINDS" test="feature-kind" />
    <TextField v-model="feature.name" label="its name" maxlength="120" test="feature-name" />
    <p class="label" data-test="feature-corners">
      {{
        area
          ? `Press its corners on the chart, in order: ${feature.corners.length} so far.`
          : feature.corners.length
            ? 'Placed. Press elsewhere on the chart to move it.'
            : 'Press its place on the chart.'
      }}
    </p>
    <v-btn v-if="area && feature.corners.length" size="small" @click="emit('undo')">Take the last corner back</v-btn>
    <p v-if="feature.kind === 'shore'" class="label">
      Where the water ends at the chart's own level; one inside another is an island. The chart is made anew with it.
    </p>
    <NumberField v-if="ring" v-model="feature.radius_m" :label="closed ? 'its radius' : 'berth'" measure="long" test="feature-radius" />
    <template v-if="closed">
      <TextField v-model="feature.rule" label="the rule, as you read it" maxlength="300" test="feature-rule" />
      <TextField v-model="feature.origin" label="where you read it" maxlength="200" test="feature-origin" />
      <TextField v-model="feature.entered_on" label="when" type="date" test="feature-day" />
      <p class="label">What you enter is what you read: this program is not the law.</p>
    </template>
    <div class="acts">
      <v-btn type="submit" class="go" data-test="feature-keep">Keep it</v-btn>
      <v-btn data-test="feature-drop" @click="emit('drop')">Remove</v-btn>
      <v-btn @click="emit('leave')">Leave</v-btn>
    </div>
  </form>
</template>

<style scoped>
.feature {
  display: grid;
  gap: 8px;
}
.acts {
  display: flex;
  gap: 6px;
}
.acts .v-btn {
  --v-btn-height: 44px;
}
</style>
