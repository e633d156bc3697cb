<script setup lang="ts">
// The phases of the day, one beside the other: when, how, how deep, what to show, and whose view it is.
import { formatClock } from '@/features/trip/logic/format'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatSpeed } from '@/shared/units/units'
import type { DayTried, Phase } from '../api'

const props = defineProps<{ day: DayTried; atS: number | null }>()
const emit = defineEmits<{ look: [atS: number] }>()
const display = useDisplayStore()

const clock = (atS: number) => formatClock(atS, props.day.utc_offset_min)
const isOn = (phase: Phase) => props.atS !== null && props.atS >= phase.start_s && props.atS < phase.end_s

/** What to show, and from when, as the light changes. */
const shows = (phase: Phase): string =>
  phase.shows.map((item, i) => `${i ? `from ${clock(item.from_s)} ` : ''}${item.show.colours} (${item.show.why})`).join(', ')

/** When it begins on a warm day and on a cold one, where that is not at once. */
function slides(phase: Phase, index: number): string {
  if (index === 0 || phase.falling) return ''
  const early = phase.earliest_s === null ? '' : clock(phase.earliest_s)
  const late = phase.latest_s === null ? 'never' : clock(phase.latest_s)
  return early === late ? '' : `begins ${early} on a warm day, ${late} on a cold one`
}
</script>

<template>
  <section class="phases" aria-label="Phases of the day">
    <button
      v-for="(phase, i) in day.view.phases"
      :key="phase.start_s"
      type="button"
      class="phase"
      :class="{ on: isOn(phase) }"
      :aria-pressed="isOn(phase)"
      data-test="phase"
      @click="emit('look', (phase.start_s + phase.end_s) / 2)"
    >
      <span class="when">{{ clock(phase.start_s) }}–{{ clock(phase.end_s) }}</span>
      <strong>{{ phase.method.name }}<template v-if="phase.falling">, the surface falling again</template></strong>
      <span class="figures">
        <b
          >{{ formatSpeed(phase.method.speed_low_mps, display.units, false) }}–{{
            formatSpeed(phase.method.speed_high_mps, display.units)
          }}</b
        >
        <b v-if="phase.method.off_bed_high_m"
          >{{ formatLength(phase.method.off_bed_low_m, display.units, false) }}–{{
            formatLength(phase.method.off_bed_high_m, display.units)
          }}
          off the bed</b
        >
        <b
          >{{ formatLength(phase.method.depth_top_m, display.units, false) }}–{{ formatLength(phase.method.depth_base_m, display.units) }}
          {{ phase.method.off_bed_high_m ? 'of water' : 'down' }}</b
        >
        <b
          >{{ formatLength(phase.method.setback_low_m, display.units, false) }}–{{
            formatLength(phase.method.setback_high_m, display.units)
          }}
          back</b
        >
      </span>
      <span>{{ phase.method.reason }} Gear: {{ phase.method.gear }}. Colours: {{ shows(phase) }}.</span>
      <span class="label">
        {{ phase.method.school }} · {{ phase.shows[0]?.show.school }} · depth {{ phase.depth_words
        }}<template v-if="slides(phase, i)"> · {{ slides(phase, i) }}</template>
      </span>
      <span v-if="phase.method.caution" class="caution">{{ phase.method.caution }} Local rules come first.</span>
    </button>
    <p v-if="!day.view.phases.length" class="label">The forecast's hours lie outside the day's light: nothing to fish by.</p>
  </section>
</template>

<style scoped>
.phases {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
  gap: 6px;
}
.phase {
  display: grid;
  gap: 3px;
  align-content: start;
  text-align: left;
  padding: 8px 12px;
  background: var(--frost);
  border-left: 5px solid var(--line);
  font-size: 13px;
  line-height: 1.3;
  color: var(--ink);
}
.phase.on {
  border-left-color: var(--ink);
}
.phase:focus-visible {
  outline: 3px solid var(--ink);
}
.when {
  font-weight: 720;
  font-size: 18px;
  font-variant-numeric: tabular-nums;
}
strong {
  font-size: 15px;
  line-height: 1.2;
}
.figures {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  font-size: 15px;
  font-stretch: 88%;
}
.caution {
  border: 2px solid var(--now);
  padding: 4px 6px;
  font-weight: 650;
}
</style>
