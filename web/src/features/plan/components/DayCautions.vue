<script setup lang="ts">
// What to take care of on the day: cold, wind, thunder, dark, when to turn back, and the rules as they were noted.
import { computed } from 'vue'
import { formatAge, formatClock } from '@/features/trip/logic/format'
import { useDisplayStore } from '@/shared/units/store'
import { farFromM, farUnit } from '@/shared/units/units'
import type { DayTried } from '../api'

const props = defineProps<{ day: DayTried }>()
const emit = defineEmits<{ tell: [] }>()
const display = useDisplayStore()
const CAUTIONS = { cold_water: 'Cold water', warm_release: 'Warm water', wind: 'Wind', thunder: 'Thunder', dark: 'Dark' } as const
const clock = (atS: number) => formatClock(atS, props.day.utc_offset_min)
const far = computed(() => `${Math.round(farFromM(props.day.view.way_m, display.units) * 10) / 10} ${farUnit(display.units)}`)
</script>

<template>
  <section class="cautions" aria-label="Cautions">
    <h2 class="label">take care</h2>
    <p v-for="caution in day.view.cautions" :key="caution.kind">
      <b>{{ CAUTIONS[caution.kind] }}</b> {{ clock(caution.from_s) }}–{{ clock(caution.to_s) }}. {{ caution.text }}
    </p>
    <p data-test="lake">
      <b>Lake</b> {{ day.view.lake.text
      }}<template v-if="day.view.lake.warm_end && day.view.lake.follows_s">
        The layers follow the wind after about {{ formatAge(day.view.lake.follows_s) }}.</template
      >
    </p>
    <p v-if="day.view.turn_back" data-test="turn-back">
      <b>Turn back</b> by {{ clock(day.view.turn_back.at_s) }} for the {{ day.view.turn_back.why }}, {{ far }} from the ramp.
      <button type="button" class="link" data-test="to-float-plan" @click="emit('tell')">Tell somebody ashore</button>
    </p>
    <p v-for="said in day.rules" :key="said" data-test="rule-said">{{ said }}</p>
    <p class="label">Local rules and what you see on the water come before any of this.</p>
  </section>
</template>

<style scoped>
p {
  margin: 4px 0;
  font-size: 13px;
  line-height: 1.35;
}
.link {
  min-height: 44px;
  text-decoration: underline;
  color: var(--ink);
}
</style>
