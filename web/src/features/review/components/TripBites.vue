<script setup lang="ts">
// Every bite of the trip as it was, and each change with its verdict.
import { ref, shallowRef, watch } from 'vue'
import type { FishView, TripDocument } from '@/features/trip/api'
import { formatClock } from '@/features/trip/logic/format'
import { DOING } from '@/features/trip/logic/doing'
import { verdictNumbers, verdictWords } from '@/features/trip/logic/judged'
import { doneWords } from '@/features/trip/logic/moves'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatFishLength, formatLength, formatSpeed, formatTemperature } from '@/shared/units/units'
import { listBites, type BiteRow } from '../api'
import { tellLate } from '../logic/late'

const props = defineProps<{ trip: TripDocument; view: FishView }>()
const emit = defineEmits<{ changed: [] }>()
const display = useDisplayStore()
const bites = shallowRef<BiteRow[]>([])
const problem = ref<string | null>(null)
const LIGHT: Record<BiteRow['light'], string> = {
  dark: 'dark',
  first_light: 'first light',
  sun_low: 'sun low',
  sun_up: 'sun up',
  dusk: 'dusk',
}
const doing = (what: string): string => DOING.find((one) => one.value === what)?.title ?? what
const rodName = (id: string | null): string => props.trip.outfit.rods.find((rod) => rod.id === id)?.name ?? 'the boat'

const asked = shallowRef<BiteRow | null>(null)
/** A bite that never was is undone with all that was told of it, each at its own moment. */
async function takeBack(bite: BiteRow): Promise<void> {
  if (asked.value !== bite) {
    asked.value = bite
    return
  }
  try {
    for (const { event_id, at_s } of bite.told) await tellLate(props.trip.id, 'undone', { event_id }, at_s + 0.001)
    asked.value = null
    emit('changed')
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}

watch(
  () => props.view,
  async () => {
    const id = props.trip.id
    try {
      const told = await listBites(id)
      if (id === props.trip.id) bites.value = told
      problem.value = null
    } catch (error) {
      problem.value = describeError(error, display.units)
    }
  },
  { immediate: true },
)
</script>

<template>
  <section class="bites" aria-label="Bites and changes">
    <ErrorNote :text="problem" />
    <table class="rows" v-if="bites.length" data-test="bites">
      <caption>
        Every bite
      </caption>
      <thead>
        <tr>
          <th>at</th>
          <th>rod</th>
          <th>came to</th>
          <th>on</th>
          <th class="count">depth</th>
          <th class="count">back</th>
          <th class="count">speed</th>
          <th class="count">surface</th>
          <th>light</th>
          <th>the line</th>
          <td></td>
        </tr>
      </thead>
      <tbody>
        <tr v-for="bite in bites" :key="bite.rod_id + bite.at_s">
          <td>{{ formatClock(bite.at_s, trip.utc_offset_min) }}</td>
          <td>{{ rodName(bite.rod_id) }}</td>
          <td>{{ bite.came_to }}</td>
          <td>
            {{ bite.colour }} {{ bite.lure }}<template v-if="bite.attractor"> behind {{ bite.attractor }}</template
            ><template v-if="bite.leader_m !== null">, {{ formatFishLength(bite.leader_m, display.units) }}</template>
          </td>
          <td class="count">{{ bite.depth_m === null ? '–' : formatLength(bite.depth_m, display.units) }}</td>
          <td class="count">{{ bite.setback_m === null ? '–' : formatLength(bite.setback_m, display.units) }}</td>
          <td class="count">{{ bite.speed_mps === null ? '–' : formatSpeed(bite.speed_mps, display.units) }}</td>
          <td class="count">{{ bite.warm_degc === null ? '–' : formatTemperature(bite.warm_degc, display.units) }}</td>
          <td>{{ LIGHT[bite.light] }}</td>
          <td>{{ doing(bite.doing) }}</td>
          <td>
            <button v-if="bite.told.length" type="button" class="back" data-test="bite-undo" @click="takeBack(bite)">
              {{ asked === bite ? 'Press again: it never was' : 'Not so' }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <table class="rows" v-if="view.judged.length" data-test="changes">
      <caption>
        Each change
      </caption>
      <tbody>
        <tr v-for="move in view.judged" :key="move.at_s">
          <td>{{ formatClock(move.at_s, trip.utc_offset_min) }}</td>
          <td>{{ rodName(move.rod_id) }}</td>
          <td>{{ doneWords(move.moves, display.units) }}</td>
          <td>{{ verdictNumbers(move) }}</td>
          <td>{{ verdictWords(move) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.back {
  min-height: 44px;
  padding: 0 6px;
  color: var(--ink);
  text-decoration: underline;
}
.bites {
  display: grid;
  gap: 14px;
  overflow-x: auto;
}
caption {
  text-align: left;
  font-weight: 700;
  padding-bottom: 4px;
}
td,
th {
  padding: 5px 8px;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
.count {
  text-align: right;
  white-space: nowrap;
}
</style>
