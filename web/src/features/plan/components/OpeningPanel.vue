<script setup lang="ts">
// The opening spread of the phase that is looked at, with every number at the phase's slowest and fastest: what is set at the ramp.
import { computed, ref, shallowRef, watch } from 'vue'
import RodShape from '@/features/trip/components/RodShape.vue'
import { formatNumber } from '@/features/trip/logic/format'
import { latestOnly } from '@/shared/core/latest'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatSpeed } from '@/shared/units/units'
import { planOpening, type Asked, type Earned, type Phase, type PhaseOpening } from '../api'

const props = defineProps<{ asked: Asked; outfitId: number; phase: Phase; begin?: readonly Earned[] }>()
const display = useDisplayStore()
const opening = shallowRef<PhaseOpening | null>(null)
const problem = ref<string | null>(null)
const busy = ref(false)

const build = latestOnly(
  planOpening,
  (answer) => {
    opening.value = answer
    problem.value = null
    busy.value = false
  },
  (error) => {
    problem.value = describeError(error, display.units)
    busy.value = false
  },
)
const nameOf = (id: string): string => opening.value?.numbers.find((rod) => rod.rod_id === id)?.name ?? id
const wordsOf = (id: string): string => opening.value?.spread.rods.find((rod) => rod.setup.rod_id === id)?.words ?? ''
const why = computed(() => opening.value?.spread.reasons.join(' ') ?? '')
const named = (ids: readonly string[]): string => ids.map(nameOf).join(', ')

/** What it was built for: when the day, the boat or the phase is another, it is told as old. */
const asking = computed(() => JSON.stringify([props.asked, props.outfitId, props.phase.method.id, props.begin]))
const builtFor = ref('')
const old = computed(() => builtFor.value !== asking.value)
// Asked for, not run along: it takes the server longer than a day does, and the day is being dragged.
function weigh(): void {
  busy.value = true
  builtFor.value = asking.value
  build({
    day: props.asked,
    outfit_id: props.outfitId,
    at_s: (props.phase.start_s + props.phase.end_s) / 2,
    begin: [...(props.begin ?? [])],
  })
}
watch(() => props.begin, weigh)
</script>

<template>
  <section class="opening" :class="{ bare: !opening }" aria-label="Opening spread" data-test="plan-opening" :data-busy="busy">
    <header>
      <h2 class="label">
        opening spread<template v-if="opening"> for “{{ opening.method_name }}”</template
        ><template v-if="opening && begin?.length">, begun with what earned hits on days like it</template
        ><template v-if="opening && old">, for the day as it was</template>
      </h2>
      <v-btn v-if="old || busy" size="small" :disabled="busy" data-test="weigh" @click="weigh">{{
        busy ? 'Weighing what is in the box…' : `Weigh the box for “${phase.method.name}”`
      }}</v-btn>
    </header>
    <ErrorNote :text="problem" />
    <template v-if="opening && !problem">
      <table :class="{ old }">
        <thead>
          <tr>
            <th>rod</th>
            <th>what it wears</th>
            <th>runs at</th>
            <th>{{ formatSpeed(opening.low_mps, display.units) }}</th>
            <th>{{ formatSpeed(opening.high_mps, display.units) }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="rod in opening.numbers" :key="rod.rod_id" :data-test="`planned-${rod.rod_id}`">
            <td><RodShape :shape="rod.shape" :index="rod.index" /> {{ rod.name }}</td>
            <td>{{ wordsOf(rod.rod_id) }}</td>
            <td class="figure">{{ formatLength(rod.depth_m, display.units) }}</td>
            <td v-for="at in rod.at" :key="at.speed_mps" class="figure">
              {{ at.line ? formatNumber(at.line.number, display.units) : `deepest ${formatLength(at.limit_m ?? 0, display.units)}` }}
            </td>
          </tr>
        </tbody>
      </table>
      <p v-for="bar in opening.bars" :key="bar.name" data-test="bar-reach">
        <b>{{ bar.name }}</b>, {{ formatLength(bar.depth_m, display.units) }} over it:
        <template v-if="bar.near.length">{{ named(bar.near) }} works its top</template><template v-else>nothing works its top</template
        ><template v-if="bar.touch.length">; {{ named(bar.touch) }} would plough it</template
        ><template v-if="bar.over.length">; {{ named(bar.over) }} runs over it</template>.
      </p>
      <p v-for="(item, i) in opening.spread.breaks" :key="i" class="break">{{ item.words }}</p>
      <p class="label">{{ why }} Rigged on the water with <router-link to="/rig/opening">Rig</router-link>.</p>
    </template>
  </section>
</template>

<style scoped>
@media print {
  .bare {
    display: none;
  }
}
.opening {
  padding: 8px 12px;
  background: var(--frost);
  overflow-x: auto;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
}
header .v-btn {
  --v-btn-height: 44px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 14px;
}
table.old {
  color: var(--ink-2);
}
th {
  text-align: left;
  font-weight: 500;
  color: var(--ink-2);
}
th,
td {
  padding: 4px 10px 4px 0;
  border-top: 1px solid var(--line);
  vertical-align: middle;
}
th:nth-child(n + 3),
td:nth-child(n + 3) {
  text-align: right;
  white-space: nowrap;
}
td:first-child {
  white-space: nowrap;
  font-weight: 640;
}
td :deep(svg) {
  vertical-align: -3px;
  margin-right: 4px;
}
.figure {
  font-weight: 700;
  font-variant-numeric: tabular-nums;
}
p {
  margin: 4px 0;
  font-size: 13px;
  line-height: 1.35;
}
.break {
  font-weight: 600;
}
a {
  color: var(--ink);
}
</style>
