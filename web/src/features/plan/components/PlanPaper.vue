<script setup lang="ts">
// The day on paper: one sheet for the boat, to be read with wet hands when nothing else works. Shown in print alone.
import { computed } from 'vue'
import { formatClock } from '@/features/trip/logic/format'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatSpeed, temperatureFromC } from '@/shared/units/units'
import type { DayTried, Phase } from '../api'

const props = defineProps<{ day: DayTried; waterName: string; species: string; dayName: string }>()
const display = useDisplayStore()
const clock = (atS: number) => formatClock(atS, props.day.utc_offset_min)
const degrees = (degc: number) => `${Math.round(temperatureFromC(degc, display.units))}°`

/** Every second hour between first light and dark: paper is small. */
const hours = computed(() =>
  props.day.view.hours.filter(
    (hour, i) => i % 2 === 0 && hour.at_s >= props.day.sun.first_light_s - 3600 && hour.at_s <= props.day.sun.dark_s,
  ),
)
const layers = (spans: readonly { top_m: number; base_m: number }[]): string =>
  spans.map((span) => `${formatLength(span.top_m, display.units, false)}–${formatLength(span.base_m, display.units)}`).join(', ') || '–'
const colours = (phase: Phase): string =>
  phase.shows.map((item, i) => `${i ? `from ${clock(item.from_s)} ` : ''}${item.show.colours}`).join(', ')
const span = (low: number, high: number): string => `${formatLength(low, display.units, false)}–${formatLength(high, display.units)}`
</script>

<template>
  <article class="paper" data-test="paper">
    <h1>{{ waterName }}, {{ species }}, {{ dayName }}</h1>
    <p>
      First light {{ clock(day.sun.first_light_s) }},
      {{ day.sun.sunrise_s < day.sun.sunset_s ? `sun ${clock(day.sun.sunrise_s)}–${clock(day.sun.sunset_s)}` : 'the sun does not rise' }},
      dark {{ clock(day.sun.dark_s) }}.
      <template v-if="day.view.turn_back"
        ><b>Turn back by {{ clock(day.view.turn_back.at_s) }}</b> for the {{ day.view.turn_back.why }}.</template
      >
    </p>
    <table>
      <thead>
        <tr>
          <th>from</th>
          <th>how, and whose view</th>
          <th>speed</th>
          <th>down</th>
          <th>back</th>
          <th>show</th>
          <th>began</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="phase in day.view.phases" :key="phase.start_s">
          <td>
            <b>{{ clock(phase.start_s) }}</b>
          </td>
          <td>
            <b>{{ phase.method.name }}</b> {{ phase.method.gear }}. <i>{{ phase.method.school }}.</i>
          </td>
          <td>
            {{ formatSpeed(phase.method.speed_low_mps, display.units, false) }}–{{
              formatSpeed(phase.method.speed_high_mps, display.units)
            }}
          </td>
          <td>
            <template v-if="phase.method.off_bed_high_m"
              >{{ span(phase.method.off_bed_low_m, phase.method.off_bed_high_m) }} off the bed, in </template
            >{{ span(phase.method.depth_top_m, phase.method.depth_base_m) }}
          </td>
          <td>{{ span(phase.method.setback_low_m, phase.method.setback_high_m) }}</td>
          <td>{{ colours(phase) }}</td>
          <td class="blank"></td>
        </tr>
      </tbody>
    </table>
    <table>
      <thead>
        <tr>
          <th>hour</th>
          <th v-for="hour in hours" :key="hour.at_s">{{ clock(hour.at_s) }}</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <th>surface</th>
          <td v-for="hour in hours" :key="hour.at_s">{{ degrees(hour.surface.middle) }}</td>
        </tr>
        <tr>
          <th>read</th>
          <td v-for="hour in hours" :key="hour.at_s" class="blank"></td>
        </tr>
        <tr>
          <th>they sit</th>
          <td v-for="hour in hours" :key="hour.at_s">{{ layers(hour.anglers) }}</td>
        </tr>
        <tr>
          <th>wind</th>
          <td v-for="hour in hours" :key="hour.at_s">
            {{ formatSpeed(hour.wind_mps, display.units, false) }} / {{ Math.round(hour.wind_from_deg) }}°
          </td>
        </tr>
        <tr>
          <th>across sun</th>
          <td v-for="hour in hours" :key="hour.at_s">{{ hour.across_deg.map((deg) => `${Math.round(deg)}°`).join(' ') || '–' }}</td>
        </tr>
      </tbody>
    </table>
    <p v-for="caution in day.view.cautions" :key="caution.kind">
      {{ clock(caution.from_s) }}–{{ clock(caution.to_s) }}: {{ caution.text }}
    </p>
    <p v-for="said in day.rules" :key="said">{{ said }}</p>
    <p>
      Local rules and what you see on the water come before any of this. The column: {{ day.view.start_words }};
      {{ day.view.weather_words }}.
    </p>
  </article>
</template>

<style scoped>
.paper {
  display: none;
}
@media print {
  .paper {
    /* On paper it comes first. */
    order: -1;
    display: block;
    break-after: page;
    color: black;
    background: white;
    font-size: 10.5pt;
    line-height: 1.25;
  }
  h1 {
    font-size: 15pt;
    margin: 0 0 4pt;
  }
  p {
    margin: 3pt 0;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    margin: 6pt 0;
  }
  th,
  td {
    border: 0.5pt solid black;
    padding: 2pt 4pt;
    text-align: left;
    vertical-align: top;
    font-weight: 400;
    font-variant-numeric: tabular-nums;
  }
  th {
    font-size: 9pt;
  }
  .blank {
    min-width: 34pt;
  }
}
</style>
