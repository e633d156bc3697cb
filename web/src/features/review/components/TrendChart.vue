<script setup lang="ts">
// One chart of a season: its sentence, the dots with their intervals, the same as a table and as a file.
import { computed, ref } from 'vue'
import VChart from 'vue-echarts'
import { useDisplayStore } from '@/shared/units/store'
import type { SeasonAsked, Trend, UnitsName } from '../api'
import { useInks } from '@/shared/ui/useInks'
import { trendOption } from '../logic/charts'
import { AXIS_NAMES, barName, trendSentence } from '../logic/words'

const props = defineProps<{ trend: Trend; asked: SeasonAsked; unitsName: UnitsName }>()
const display = useDisplayStore()
const inks = useInks()
const asTable = ref(false)
const option = computed(() => trendOption(props.trend, display.units, inks.value))
const file = computed(
  () =>
    `/api/seasons/trend.csv?${new URLSearchParams({ ...props.asked, axis: props.trend.axis, units: props.unitsName } as Record<string, string>)}`,
)
</script>

<template>
  <section class="trend" :aria-label="AXIS_NAMES[trend.axis]" :data-test="`trend-${trend.axis}`">
    <header>
      <h3>By {{ AXIS_NAMES[trend.axis] }}</h3>
      <v-btn size="small" :aria-pressed="asTable" :data-test="`table-${trend.axis}`" @click="asTable = !asTable">{{
        asTable ? 'Chart' : 'Table'
      }}</v-btn>
      <a :href="file">CSV</a>
    </header>
    <p data-test="sentence">{{ trendSentence(trend, display.units) }}</p>
    <template v-if="trend.bars.length">
      <table class="rows" v-if="asTable">
        <thead>
          <tr>
            <th>{{ AXIS_NAMES[trend.axis] }}</th>
            <th class="count">rod-hours</th>
            <th class="count">hits</th>
            <th class="count">landed</th>
            <th class="count">hits an hour</th>
            <th class="count">80 % interval</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="bar in trend.bars" :key="bar.name + bar.low">
            <td>{{ barName(trend.axis, bar, display.units) }}</td>
            <td class="count">{{ (bar.minutes / 60).toFixed(1) }}</td>
            <td class="count">{{ bar.hits }}</td>
            <td class="count">{{ bar.landed }}</td>
            <td class="count">{{ bar.rate.toFixed(2) }}</td>
            <td class="count">{{ bar.rate_low.toFixed(2) }}–{{ bar.rate_high.toFixed(2) }}</td>
          </tr>
        </tbody>
      </table>
      <VChart v-else class="chart" :style="{ height: `${52 + 26 * trend.bars.length}px` }" :option="option" autoresize aria-hidden="true" />
      <p v-if="trend.unknown_min > 30" class="label">
        Of {{ Math.round(trend.unknown_min / 60) }} rod-hours it is not known where they belong; they stand in none.
      </p>
    </template>
  </section>
</template>

<style scoped>
.trend {
  display: grid;
  gap: 6px;
  align-content: start;
  padding: 12px;
  background: var(--frost);
}
header {
  display: flex;
  gap: 12px;
  align-items: center;
}
h3 {
  margin-right: auto;
  font-size: 16px;
}
a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  color: var(--ink);
}
.v-btn {
  --v-btn-height: 44px;
}
td,
th {
  padding: 4px 8px;
  border-bottom: 1px solid var(--line);
}
</style>
