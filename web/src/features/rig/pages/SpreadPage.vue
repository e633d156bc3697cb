<script setup lang="ts">
// The opening spread: built with its reasons; changed by the user, who is told what that breaks.
import { computed, ref, shallowRef } from 'vue'
import { useRoute } from 'vue-router'
import { buildOpening, judgeOpening, type OpeningSpread, type PlannedRod, type RodSetup, type TripDocument } from '@/features/trip/api'
import RodShape from '@/features/trip/components/RodShape.vue'
import { useOpenTrip } from '@/features/trip/composables/useOpenTrip'
import { formatNumber } from '@/features/trip/logic/format'
import { useQuestions } from '@/features/trip/questions'
import { useTripStore } from '@/features/trip/store'
import { latestOnly } from '@/shared/core/latest'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatSpeed, speedFromMps, speedToMps, stepM } from '@/shared/units/units'
import SpreadDepths from '../components/SpreadDepths.vue'
import SelectField from '@/shared/ui/SelectField.vue'

const store = useTripStore()
const questions = useQuestions()
const display = useDisplayStore()
const route = useRoute()
const spread = shallowRef<OpeningSpread | null>(null)
/** Reasons of the builder stay beside a rod until it is changed. */
const reasons = shallowRef<Record<string, string[]>>({})
const building = ref(false)
const problem = ref<string | null>(null)
const said = ref('')

/** What is aboard now: tackle brought during the trip is in it. */
const aboard = shallowRef<TripDocument['outfit'] | null>(null)
const outfit = computed(() => aboard.value ?? store.trip!.outfit)
const blades = computed(() => [
  { value: '', title: 'no attractor' },
  ...outfit.value.attractors.map((item) => ({ value: item.id, title: item.name })),
])
const lures = computed(() => outfit.value.lures.map((item) => ({ value: item.id, title: `${item.name}, ${item.colour}` })))
const index = (id: string): number =>
  Math.max(
    0,
    outfit.value.rods.findIndex((rod) => rod.id === id),
  )
const rodOf = (id: string) => outfit.value.rods.find((rod) => rod.id === id)
const brokenRods = computed(() => new Set((spread.value?.breaks ?? []).flatMap((item) => item.rod_ids)))
const uncovered = computed(() => new Set((spread.value?.breaks ?? []).flatMap((item) => (item.depth_m === null ? [] : [item.depth_m!]))))

async function build(speedMps: number | null): Promise<void> {
  building.value = true
  problem.value = null
  said.value = ''
  try {
    spread.value = await buildOpening(store.trip!.id, { speed_mps: speedMps })
    reasons.value = Object.fromEntries(spread.value.rods.map((rod) => [rod.setup.rod_id, rod.reasons]))
  } catch (error) {
    problem.value = describeError(error, display.units)
  } finally {
    building.value = false
  }
}

const judge = latestOnly(
  (asked: { speed_mps: number; rods: { setup: RodSetup; setting_m: number }[] }) => judgeOpening(store.trip!.id, asked),
  (answer) => {
    const before = spread.value
    spread.value = { ...answer, reasons: before?.reasons ?? [] }
    problem.value = null
  },
  (error) => (problem.value = describeError(error, display.units)),
)
function change(rods: PlannedRod[], speedMps: number = spread.value!.speed_mps): void {
  said.value = ''
  judge({ speed_mps: speedMps, rods: rods.map(({ setup, setting_m }) => ({ setup, setting_m })) })
}
function changeRod(id: string, with_: (rod: PlannedRod) => PlannedRod): void {
  reasons.value = { ...reasons.value, [id]: ['changed by you'] }
  change(spread.value!.rods.map((rod) => (rod.setup.rod_id === id ? with_(rod) : rod)))
}
const wear = (id: string, setup: Partial<RodSetup>): void => changeRod(id, (rod) => ({ ...rod, setup: { ...rod.setup, ...setup } }))
function step(id: string, by: number): void {
  changeRod(id, (rod) => ({ ...rod, setting_m: Math.max(1, rod.setting_m + by * stepM(display.units) * (rod.setting_m > 20 ? 5 : 1)) }))
}
function stepSpeed(by: number): void {
  const tenths = Math.max(1, Math.round(speedFromMps(spread.value!.speed_mps, display.units) * 10) + by)
  change(spread.value!.rods, speedToMps(tenths / 10, display.units))
}
const takeOff = (id: string): void => change(spread.value!.rods.filter((rod) => rod.setup.rod_id !== id))

async function rigAll(): Promise<void> {
  for (const rod of spread.value!.rods) {
    problem.value = await store.attempt(() => store.record('rod_rigged', { ...rod.setup }))
    if (problem.value) return
  }
  said.value = 'Rigged. Let them out, boards first and cables last; then tap that all are out.'
}
async function allOut(): Promise<void> {
  for (const rod of spread.value!.rods) {
    problem.value = await store.attempt(() =>
      store.record('line_set', { rod_id: rod.setup.rod_id, setting_m: rod.setting_m, wanted_depth_m: null }),
    )
    if (problem.value) return
  }
  const speed = spread.value!.speed_mps
  problem.value = await store.attempt(() => store.record('speed_changed', { speed_mps: speed }))
  if (!problem.value) said.value = 'All out at these numbers.'
}

const { empty } = useOpenTrip(async () => {
  aboard.value = (await questions.checkSpread()).outfit
  await build(null)
})
</script>

<template>
  <main class="opening" data-test="opening">
    <template v-if="store.trip">
      <header>
        <router-link class="back" :to="{ path: '/rig', query: route.query }">Rig</router-link>
        <h1>Opening spread</h1>
        <span class="gap" />
        <v-btn class="big" :disabled="building" data-test="build" @click="build(null)">Build anew</v-btn>
        <v-btn v-if="spread" class="big" :disabled="building" data-test="build-at" @click="build(spread.speed_mps)"
          >Build for {{ formatSpeed(spread.speed_mps, display.units) }}</v-btn
        >
        <v-btn v-if="spread" class="big solid" data-test="rig-all" @click="rigAll">Rig all so</v-btn>
        <v-btn v-if="spread && said" class="big" data-test="all-out" @click="allOut">All are out</v-btn>
      </header>
      <p v-if="problem" class="error" role="alert" data-test="opening-error">{{ problem }}</p>
      <p v-if="said" class="said" role="status">{{ said }}</p>
      <p v-if="building" class="label">Weighing what is in the box …</p>
      <div v-if="spread" class="body">
        <section class="side">
          <div class="pace">
            <button class="step" aria-label="A tenth slower" @click="stepSpeed(-1)">−</button>
            <strong class="figure" data-test="opening-speed">{{ formatSpeed(spread.speed_mps, display.units) }}</strong>
            <button class="step" aria-label="A tenth faster" @click="stepSpeed(1)">+</button>
          </div>
          <p v-if="spread.passes">
            by GPS {{ formatSpeed(spread.passes.up_mps, display.units) }} up the current,
            {{ formatSpeed(spread.passes.down_mps, display.units) }} down it
          </p>
          <p v-for="reason in spread.reasons" :key="reason" class="label">{{ reason }}</p>
          <SpreadDepths :spread="spread" :shape-of="(id: string) => rodOf(id)?.shape ?? 'circle'" :index="index" :uncovered="uncovered" />
        </section>
        <section class="rods">
          <ul v-if="spread.breaks.length" class="breaks" data-test="breaks">
            <li v-for="(item, order) in spread.breaks" :key="order">
              {{ item.depth_m === null ? '' : `${formatLength(item.depth_m!, display.units)}: ` }}{{ item.words }}
            </li>
          </ul>
          <p v-else class="fine" data-test="no-breaks">
            One speed suits all, no lines near each other, nothing asked for that is not aboard.
          </p>
          <article
            v-for="rod in spread.rods"
            :key="rod.setup.rod_id"
            class="rod"
            :class="{ broken: brokenRods.has(rod.setup.rod_id) }"
            :data-test="`opening-${rod.setup.rod_id}`"
          >
            <RodShape :shape="rodOf(rod.setup.rod_id)?.shape ?? 'circle'" :index="index(rod.setup.rod_id)" :size="26" />
            <div class="who">
              <strong>{{ rodOf(rod.setup.rod_id)?.name }}</strong>
              <span class="label">{{ outfit.places.find((place) => place.id === rod.setup.place_id)?.name }}</span>
            </div>
            <div class="number">
              <button
                class="step"
                :aria-label="`Less on ${rod.setup.rod_id}`"
                :data-test="`less-${rod.setup.rod_id}`"
                @click="step(rod.setup.rod_id, -1)"
              >
                −
              </button>
              <strong>{{ formatNumber(rod.number, display.units) }}</strong>
              <button
                class="step"
                :aria-label="`More on ${rod.setup.rod_id}`"
                :data-test="`more-${rod.setup.rod_id}`"
                @click="step(rod.setup.rod_id, 1)"
              >
                +
              </button>
              <span class="label"
                >runs at {{ formatLength(rod.depth_m, display.units)
                }}<template v-if="rod.setup.setback_m">, setback {{ formatLength(rod.setup.setback_m, display.units) }}</template></span
              >
            </div>
            <div class="wears">
              <SelectField
                :model-value="rod.setup.attractor_id ?? ''"
                :label="`Attractor of ${rod.setup.rod_id}`"
                silent
                :items="blades"
                @update:model-value="wear(rod.setup.rod_id, { attractor_id: $event || null, tow_point: '' })"
              />
              <SelectField
                :model-value="rod.setup.lure_id"
                :label="`Lure of ${rod.setup.rod_id}`"
                silent
                :items="lures"
                :test="`lure-${rod.setup.rod_id}`"
                @update:model-value="wear(rod.setup.rod_id, { lure_id: $event! })"
              />
            </div>
            <button class="off" @click="takeOff(rod.setup.rod_id)">Leave it in</button>
            <p class="why label">
              <strong class="recipe">{{ rod.words }}</strong> {{ (reasons[rod.setup.rod_id] ?? []).join('; ') }}
            </p>
          </article>
        </section>
      </div>
    </template>
    <p v-else-if="empty" class="label">No trip yet: start one under Trips.</p>
    <p v-else-if="store.loadError" role="alert">{{ store.loadError }}</p>
    <p v-else class="label">Opening the trip …</p>
  </main>
</template>

<style scoped>
.opening {
  padding: 6px;
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.opening > * {
  flex: none;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  background: var(--frost);
  padding: 8px 12px;
}
.back {
  color: var(--ink);
  font-weight: 640;
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
.gap {
  flex: 1;
}
.big {
  min-height: 48px;
}
.body {
  display: grid;
  grid-template-columns: 274px minmax(0, 1fr);
  gap: 6px;
  align-items: start;
}
.side,
.rods {
  background: var(--frost);
  padding: 10px 12px;
  display: grid;
  gap: 8px;
}
.pace,
.number {
  display: flex;
  align-items: center;
  gap: 8px;
}
.figure {
  font-size: 30px;
}
.step {
  width: 44px;
  height: 44px;
  border: 1px solid var(--line);
  border-radius: 4px;
  font-size: 20px;
}
.rod {
  display: grid;
  grid-template-columns: 30px 92px 330px minmax(0, 1fr) 96px;
  gap: 2px 12px;
  align-items: center;
  border-top: 1px solid var(--line);
  padding-top: 6px;
}
.rod.broken {
  box-shadow: inset 5px 0 0 var(--now);
  padding-left: 10px;
}
.who,
.wears {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.number {
  flex-wrap: wrap;
  gap: 0 8px;
}
.wears {
  flex-direction: row;
  gap: 6px;
}
.number strong {
  min-width: 128px;
  text-align: center;
}
.wears > * {
  flex: 1;
}
.why {
  grid-column: 2 / -1;
}
.recipe {
  font-size: 14px;
  color: var(--ink);
}
.off {
  min-height: 44px;
  font-weight: 620;
  text-decoration: underline;
}
.breaks {
  color: var(--now);
  font-weight: 700;
  padding-left: 20px;
  margin: 0;
}
.fine {
  font-weight: 640;
}
@media (max-width: 1000px) {
  .body {
    grid-template-columns: minmax(0, 1fr);
  }
  .rod {
    grid-template-columns: 30px minmax(0, 1fr) auto;
  }
  .number,
  .wears,
  .why {
    grid-column: 1 / -1;
  }
  .off {
    grid-column: 3;
    grid-row: 1;
  }
}
</style>
