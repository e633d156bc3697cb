<script setup lang="ts">
// How the fish answer today, and whose rule the leader follows.
import type { BenchView, SpreadCheck } from '@/features/trip/api'
import { useDisplayStore } from '@/shared/units/store'
import { fishLengthUnit, tackleLengthFromM } from '@/shared/units/units'

defineProps<{ leader: NonNullable<BenchView['leader']>; schools: BenchView['schools']; mood: SpreadCheck['mood'] }>()
const emit = defineEmits<{ school: [school: string]; mood: [mood: string] }>()

const display = useDisplayStore()
const MOODS = ['active', 'usual', 'tough']
const inches = (metres: number): number => Math.round(tackleLengthFromM(metres, display.units))
</script>

<template>
  <div class="schools mood" role="group" aria-label="How the fish answer">
    <span class="label">The bite today</span>
    <v-btn
      v-for="item in MOODS"
      :key="item"
      class="school"
      :class="{ on: item === mood }"
      :data-test="`mood-${item}`"
      @click="emit('mood', item)"
      >{{ item }}</v-btn
    >
  </div>
  <div class="schools" role="group" aria-label="Leader school">
    <span class="label">Leader, {{ leader.name.toLowerCase() }}: {{ leader.why }}.</span>
    <v-btn
      v-for="school in schools"
      :key="school.school"
      class="school"
      :class="{ on: school.school === leader.school }"
      :data-test="`school-${school.school}`"
      @click="emit('school', school.school)"
    >
      {{ school.name.split(':')[0] }} {{ inches(school.low_m) }}–{{ inches(school.high_m) }} {{ fishLengthUnit(display.units) }}
    </v-btn>
  </div>
</template>

<style scoped>
.schools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.schools .label {
  flex-basis: 100%;
}
.mood .label {
  flex-basis: auto;
}
.school {
  min-height: 44px;
  font-size: 13px;
}
.school.on {
  background: var(--ink);
  color: var(--frost);
}
</style>
