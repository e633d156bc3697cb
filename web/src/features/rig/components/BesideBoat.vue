<script setup lang="ts">
// Beside the boat: the quick looks before a line goes out, and this very piece's own range.
import { computed, ref } from 'vue'
import type { BesideView, LookState } from '@/features/trip/api'
import { formatClock } from '@/features/trip/logic/format'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed, speedFromMps, speedToMps } from '@/shared/units/units'
import SelectField from '@/shared/ui/SelectField.vue'

type RodBeside = BesideView['rods'][number]
const props = defineProps<{
  boat: LookState[]
  rod: RodBeside | undefined
  rodName: string
  blade: string | null
  lure: string
  speedMps: number
  setSpeed: (mps: number) => void
  utcOffsetMin: number
  check: (item: LookState['look']['item'], outcome: 'ok' | 'fault' | 'skipped', ofRod: boolean) => void
  audition: (piece: 'attractor' | 'lure', low_mps: number, high_mps: number) => Promise<string | null>
  lookAgain: (why: 'wind' | 'waves' | 'bent') => void
}>()

const display = useDisplayStore()
const piece = ref<'attractor' | 'lure'>('attractor')
/** Speeds tapped so far for the piece that is looked at: the boat's own at that moment. */
const slow = ref<number | null>(null)
const fast = ref<number | null>(null)
const problem = ref<string | null>(null)
const looked = computed<'attractor' | 'lure'>(() => (props.blade === null ? 'lure' : piece.value))
/** A tenth of what is shown: the finest step a hand sets. */
function step(by: number): void {
  const tenths = Math.round(speedFromMps(props.speedMps, display.units) * 10) + by
  props.setSpeed(speedToMps(Math.max(1, tenths) / 10, display.units))
}
const due = (looks: LookState[]): number => looks.filter((item) => item.due).length

async function keep(): Promise<void> {
  if (slow.value === null || fast.value === null) return
  problem.value = await props.audition(looked.value, slow.value, fast.value)
  if (problem.value === null) slow.value = fast.value = null
}
const groups = computed(() => [
  { title: 'Before the ramp', ofRod: false, looks: props.boat },
  ...(props.rod ? [{ title: props.rodName, ofRod: true, looks: props.rod.looks }] : []),
])
</script>

<template>
  <section class="beside" data-test="beside">
    <p v-if="rod?.again" class="again" role="status" data-test="look-again">
      Look at it again beside the boat: {{ rod.again }}, {{ formatClock(rod.again_since_s!, utcOffsetMin) }}.
    </p>
    <details v-for="group in groups" :key="group.title" :open="group.ofRod && due(group.looks) > 0">
      <summary :data-test="group.ofRod ? 'rod-looks' : 'boat-looks'">
        {{ group.title }}: {{ due(group.looks) ? `${due(group.looks)} to look at` : 'all looked at' }}
      </summary>
      <ul>
        <li v-for="item in group.looks" :key="item.look.item" :class="{ done: !item.due }">
          <span class="what"
            >{{ item.look.text }}<span v-if="item.outcome === 'fault'" class="fault"> {{ item.look.remedy }}</span>
            <span v-if="item.at_s !== null" class="label"> {{ item.outcome }} {{ formatClock(item.at_s, utcOffsetMin) }}</span></span
          >
          <button :data-test="`ok-${item.look.item}`" @click="check(item.look.item, 'ok', group.ofRod)">Right</button>
          <button :data-test="`fault-${item.look.item}`" @click="check(item.look.item, 'fault', group.ofRod)">Not so</button>
          <button :data-test="`skip-${item.look.item}`" @click="check(item.look.item, 'skipped', group.ofRod)">Skip</button>
        </li>
      </ul>
    </details>
    <details v-if="rod" data-test="audition">
      <summary>Its own range{{ rod.blade_own || rod.lure_own ? ', seen' : '' }}</summary>
      <p class="label">
        Hold it beside the boat. Slow down until it barely works still, tap; speed up until it barely does, tap. That goes before the listed
        range from then on.
      </p>
      <div class="row">
        <SelectField
          v-if="blade !== null"
          v-model="piece"
          label="Which piece"
          silent
          :items="[
            { value: 'attractor', title: blade },
            { value: 'lure', title: lure },
          ]"
          test="audition-piece"
          @change="((slow = null), (fast = null))"
        />
        <strong v-else>{{ lure }}</strong>
        <span class="label">
          now {{ formatSpeed((looked === 'attractor' ? rod.blade_works! : rod.lure_works).low_mps, display.units, false) }}–{{
            formatSpeed((looked === 'attractor' ? rod.blade_works! : rod.lure_works).high_mps, display.units)
          }}, {{ (looked === 'attractor' ? rod.blade_own : rod.lure_own) ? 'seen beside the boat' : 'as listed' }}
        </span>
      </div>
      <div class="row">
        <span class="label">the boat through the water</span>
        <button class="why" aria-label="A tenth slower" data-test="slower" @click="step(-1)">−</button>
        <strong data-test="beside-speed">{{ formatSpeed(speedMps, display.units) }}</strong>
        <button class="why" aria-label="A tenth faster" data-test="faster" @click="step(1)">+</button>
      </div>
      <div class="row">
        <v-btn class="big" data-test="slowest" @click="slow = speedMps"
          >Slowest: {{ slow === null ? formatSpeed(speedMps, display.units) : `${formatSpeed(slow, display.units)} ✓` }}</v-btn
        >
        <v-btn class="big" data-test="fastest" @click="fast = speedMps"
          >Fastest: {{ fast === null ? formatSpeed(speedMps, display.units) : `${formatSpeed(fast, display.units)} ✓` }}</v-btn
        >
        <v-btn class="big solid" :disabled="slow === null || fast === null" data-test="keep-range" @click="keep">Keep its range</v-btn>
      </div>
      <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
    </details>
    <div v-if="rod" class="row">
      <span class="label">Look again:</span>
      <button class="why" data-test="again-wind" @click="lookAgain('wind')">wind shifted</button>
      <button class="why" data-test="again-waves" @click="lookAgain('waves')">waves or rain</button>
      <button class="why" data-test="again-bent" @click="lookAgain('bent')">this one was bent</button>
    </div>
  </section>
</template>

<style scoped>
.beside {
  border-top: 1px solid var(--line);
  padding-top: 8px;
  display: grid;
  gap: 6px;
}
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  font-weight: 640;
  cursor: pointer;
}
.again {
  border-left: 5px solid var(--now);
  padding: 6px 10px;
  font-weight: 700;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) repeat(3, auto);
  gap: 6px;
  align-items: center;
  min-height: 48px;
}
li button,
.why {
  min-height: 44px;
  padding: 0 12px;
  border: 1px solid var(--line);
  border-radius: 4px;
  font-weight: 620;
}
.done .what {
  color: var(--ink-2);
}
.fault {
  color: var(--now);
  font-weight: 700;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.big {
  min-height: 48px;
}
</style>
