<script setup lang="ts">
// What to begin with on a day: what earned hits on days like it, and how much of that is known from where.
import { ref, shallowRef, watch } from 'vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatFishLength, formatLength, formatSpeed } from '@/shared/units/units'
import { beginWith, type Begin, type Species } from '../api'
import { KIND_NAMES } from '../logic/words'

const props = defineProps<{ species: Species; waterName?: string; day?: string; surfaceDegc?: number | null; takeable?: boolean }>()
const emit = defineEmits<{ take: [looks: Pick<Begin['begin'][number], 'lure' | 'colour' | 'attractor'>[]] }>()
const display = useDisplayStore()
const told = shallowRef<Begin | null>(null)
const problem = ref<string | null>(null)
let asked = 0

watch(
  () => [props.species, props.waterName, props.day, props.surfaceDegc] as const,
  async ([species, water_name, day, surface]) => {
    const mine = ++asked
    try {
      const answer = await beginWith({
        species,
        ...(water_name ? { water_name } : {}),
        ...(day ? { day } : {}),
        ...(surface == null ? {} : { surface_degc: surface }),
      })
      if (mine === asked) told.value = answer
      problem.value = null
    } catch (error) {
      problem.value = describeError(error, display.units)
    }
  },
  { immediate: true },
)
function take(): void {
  emit(
    'take',
    told.value!.begin.map(({ lure, colour, attractor }) => ({ lure, colour, attractor })),
  )
}
const share = (part: number): string => `${Math.round(100 * part)} %`
</script>

<template>
  <section class="begin" aria-label="Begin with this" data-test="begin-with">
    <h3>Begin with this</h3>
    <ErrorNote :text="problem" />
    <v-btn v-if="takeable && told?.begin.length" class="solid" data-test="take-begin" @click="take">Open with this</v-btn>
    <p v-if="told && !told.begin.length" class="label">
      No day of yours is like it yet: the opening of Plan stands on the rule book alone.
    </p>
    <table class="rows" v-else-if="told">
      <thead>
        <tr>
          <th>on a</th>
          <th>what</th>
          <th>how</th>
          <th class="count">hits an hour</th>
          <th>known from</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in told.begin" :key="one.kind + one.lure + one.colour + one.attractor">
          <td>{{ KIND_NAMES[one.kind] }}</td>
          <td>
            <strong>{{ one.colour }} {{ one.lure }}</strong
            ><template v-if="one.attractor">
              behind {{ one.attractor
              }}<template v-if="one.leader_m !== null">, {{ formatFishLength(one.leader_m, display.units) }}</template>
            </template>
          </td>
          <td>
            {{ formatLength(one.depth_m, display.units) }} deep, {{ formatLength(one.setback_m, display.units) }} back,
            {{ formatSpeed(one.speed_mps, display.units) }}
          </td>
          <td class="count">{{ one.rate.toFixed(1) }}</td>
          <td>
            {{ one.hits }} hit{{ one.hits === 1 ? '' : 's' }} in {{ Math.round(one.minutes / 60) }} rod-hours on {{ one.days }} day{{
              one.days === 1 ? '' : 's'
            }}
            <span class="label"
              >{{ share(one.of_water) }} this water, {{ share(one.of_month) }} this month, {{ share(one.of_rule_book) }} the usual
              rate</span
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="told?.days.length" class="label" data-test="like-days">
      Days like it:
      <template v-for="(like, i) in told.days.slice(0, 5)" :key="like.name + i"
        ><template v-if="i">; </template>{{ like.name }} ({{ share(like.like) }} like, {{ like.hits }} hits)</template
      >.
    </p>
  </section>
</template>

<style scoped>
.begin {
  display: grid;
  gap: 6px;
  padding: 12px;
  background: var(--frost);
  overflow-x: auto;
}
h3 {
  font-size: 16px;
}
td,
th {
  vertical-align: top;
}
.v-btn {
  --v-btn-height: 48px;
  justify-self: start;
}
td .label {
  display: block;
}
</style>
