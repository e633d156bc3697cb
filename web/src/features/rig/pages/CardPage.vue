<script setup lang="ts">
// The rig card: one page to print or keep, with every number at two speeds and two depths.
import { computed, ref, shallowRef, watch } from 'vue'
import type { LineOrders, NumberAtSpeed, SpreadCheck } from '@/features/trip/api'
import { formatNumber } from '@/features/trip/logic/format'
import { useOpenTrip } from '@/features/trip/composables/useOpenTrip'
import { useQuestions } from '@/features/trip/questions'
import { useTripStore } from '@/features/trip/store'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { fishLengthUnit, formatLength, formatSpeed, tackleLengthFromM } from '@/shared/units/units'

const store = useTripStore()
const questions = useQuestions()
const display = useDisplayStore()
const spread = shallowRef<SpreadCheck | null>(null)
const orders = shallowRef<LineOrders | null>(null)
const numbers = shallowRef<Record<string, { depth: number; at: NumberAtSpeed[] }[]>>({})
const problem = ref<string | null>(null)
const ready = ref(false)

const speeds = computed<number[]>(() => {
  const pair = spread.value?.card_speeds
  return pair ? [pair.first_mps, pair.second_mps] : []
})
const rods = computed(() => (store.view?.rods ?? []).filter((rod) => rod.setup))
const nameOf = (id: string): string => rods.value.find((rod) => rod.id === id)?.name ?? id
const lineOf = (id: string | undefined): string => spread.value?.outfit.lines.find((line) => line.id === id)?.name ?? ''
const day = computed(() =>
  new Date((store.trip!.started_at_s + store.trip!.utc_offset_min * 60) * 1000).toLocaleDateString(undefined, {
    timeZone: 'UTC',
    day: 'numeric',
    month: 'long',
    year: 'numeric',
  }),
)
const depthsFor = (id: string): number[] => spread.value?.card_depths.find((item) => item.rod_id === id)?.depths_m ?? []
const chainWords = (rodId: string): string[] =>
  (spread.value?.rods.find((item) => item.setup.rod_id === rodId)?.chain ?? []).map((part) => {
    if (part.kind === 'line') return `${part.name} ${formatLength(part.length_m, display.units)}`
    return part.kind === 'leader'
      ? `leader ${Math.round(tackleLengthFromM(part.length_m, display.units) * 2) / 2} ${fishLengthUnit(display.units)}`
      : part.name
  })

async function work(): Promise<void> {
  try {
    spread.value = await questions.checkSpread()
    orders.value = await questions.orders()
    const made: typeof numbers.value = {}
    for (const rod of rods.value) {
      made[rod.id] = []
      for (const depth of depthsFor(rod.id)) made[rod.id]!.push({ depth, at: await questions.numbersAt(rod.id, depth, [...speeds.value]) })
    }
    numbers.value = made
    problem.value = null
    ready.value = true
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}
watch(
  () => store.view !== null && (store.coreReady || store.coreFailed),
  (now) => now && void work(),
  // The trip may have been open for hours when this page is looked at.
  { immediate: true },
)
const { empty } = useOpenTrip()
watch(empty, () => (problem.value = 'No trip yet: start one, its rods come to the card.'))

function printCard(): void {
  window.print()
}
</script>

<template>
  <main class="card" data-test="rig-card" :data-state="ready ? 'ready' : 'starting'">
    <p v-if="problem" class="error" role="alert">{{ problem }}</p>
    <template v-if="ready && store.trip && store.view && spread">
      <header>
        <h1>{{ store.trip.water_name }}: {{ store.trip.outfit.boat_name }}, {{ store.trip.species }}, {{ day }}</h1>
        <v-btn class="print" @click="printCard">Print</v-btn>
      </header>
      <p class="facts">
        <span v-if="spread.common.window?.is_open">
          all share
          <strong
            >{{ formatSpeed(spread.common.window.low_mps, display.units, false) }}–{{
              formatSpeed(spread.common.window.high_mps, display.units)
            }}</strong
          >
          through the water
        </span>
        <strong v-else>no speed suits all rods</strong>
        <span v-if="store.view.passes">
          · by GPS at {{ formatSpeed(store.view.speed_mps, display.units) }} through the water:
          <strong
            >{{ formatSpeed(store.view.passes.up_mps, display.units, false) }} up,
            {{ formatSpeed(store.view.passes.down_mps, display.units) }} down</strong
          >
        </span>
        <span v-if="store.view.wind && store.view.wind.into_mps !== null">
          · by your own look
          <strong
            >{{ formatSpeed(store.view.wind.into_mps, display.units, false) }} into the wind,
            {{ formatSpeed(store.view.wind.with_mps!, display.units) }} with it</strong
          >
        </span>
        <span v-if="orders?.out.length"> · out in the order {{ orders.out.map((step) => nameOf(step.rod_id)).join(', ') }}</span>
      </p>
      <table>
        <thead>
          <tr>
            <th>rod</th>
            <th>chain, from the lure up</th>
            <th>lure at</th>
            <th v-for="speed in speeds" :key="speed">{{ formatSpeed(speed, display.units) }}</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="rod in rods" :key="rod.id">
            <tr v-for="(row, i) in numbers[rod.id]?.length ? numbers[rod.id] : [null]" :key="i" :class="{ first: i === 0 }">
              <td v-if="i === 0" :rowspan="Math.max(numbers[rod.id]?.length ?? 1, 1)">
                <strong>{{ rod.name }}</strong><br />{{ rod.place_name }}<br />{{ lineOf(rod.setup?.line_id) }}
              </td>
              <td v-if="i === 0" :rowspan="Math.max(numbers[rod.id]?.length ?? 1, 1)">{{ chainWords(rod.id).join(' · ') }}</td>
              <template v-if="row">
                <td>{{ formatLength(row.depth, display.units) }}</td>
                <td v-for="(item, side) in row.at" :key="side" class="figure">
                  {{
                    item.line ? formatNumber(item.line.number, display.units) : `deepest ${formatLength(item.limit_m ?? 0, display.units)}`
                  }}
                </td>
              </template>
              <td v-else colspan="3">no depth between surface and bottom to ask for</td>
            </tr>
          </template>
        </tbody>
      </table>
      <p class="label">
        Depths carry the doubt shown on Fish. Life jacket on, a cutter within reach of every cable, local rules before this card.
      </p>
    </template>
    <p v-else-if="!problem">Working the numbers …</p>
  </main>
</template>

<style scoped>
.card {
  background: var(--frost);
  padding: 16px 20px;
  max-width: 1100px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
}
h1 {
  font-size: 22px;
  font-weight: 720;
}
.print {
  min-height: var(--touch);
}
.facts {
  margin: 8px 0;
  font-size: 16px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 15px;
}
th {
  text-align: left;
  font-weight: 640;
  border-bottom: 2px solid var(--ink);
}
td,
th {
  padding: 5px 8px 5px 0;
  vertical-align: top;
}
tr.first td {
  border-top: 1px solid var(--line);
}
.figure {
  font-size: 17px;
  white-space: nowrap;
}
@page {
  margin: 12mm;
}
@media print {
  tr {
    break-inside: avoid;
  }
  .print {
    display: none;
  }
  .card {
    max-width: none;
    padding: 0;
    color: #000;
    background: #fff;
  }
}
</style>
