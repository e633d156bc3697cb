<script setup lang="ts">
// Rig: each rod's chain to scale, checked as it is changed, and the speed that all of them share.
import { computed, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import {
  getNews,
  type BenchView,
  type BesideView,
  type RodSetup,
  type ShelfPiece,
  type SpreadCheck,
  type TackleBrought,
} from '@/features/trip/api'
import RodShape from '@/features/trip/components/RodShape.vue'
import { useOpenTrip } from '@/features/trip/composables/useOpenTrip'
import { rodColour } from '@/features/trip/logic/shapes'
import { useQuestions } from '@/features/trip/questions'
import { useTripStore } from '@/features/trip/store'
import { latestOnly } from '@/shared/core/latest'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed } from '@/shared/units/units'
import { describeError } from '@/shared/units/describe'
import BesideBoat from '../components/BesideBoat.vue'
import CableVoltage from '../components/CableVoltage.vue'
import ChainRule from '../components/ChainRule.vue'
import LeaderSchools from '../components/LeaderSchools.vue'
import FindingList from '../components/FindingList.vue'
import CommonSpeed from '../components/CommonSpeed.vue'
import MoodLadder from '../components/MoodLadder.vue'
import PieceShelf from '@/features/trip/components/PieceShelf.vue'
import SetupFields from '@/features/trip/components/SetupFields.vue'

const store = useTripStore()
const questions = useQuestions()
const display = useDisplayStore()
const route = useRoute()
const router = useRouter()
const chosen = ref<string | null>(null)
const draft = shallowRef<RodSetup | null>(null)
const bench = shallowRef<BenchView | null>(null)
const spread = shallowRef<SpreadCheck | null>(null)
const beside = shallowRef<BesideView | null>(null)
/** What the locker has aboard this boat that the trip does not know of. */
const news = shallowRef<TackleBrought | null>(null)
const problem = ref<string | null>(null)
/** What was typed and is no number: it stands until it is changed, whatever the bench answers meanwhile. */
const mistyped = ref<string | null>(null)

const rods = computed(() => store.view?.rods ?? [])
const rod = computed(() => rods.value.find((item) => item.id === chosen.value))
const index = (id: string): number => Math.max(store.trip?.outfit.rods.findIndex((item) => item.id === id) ?? 0, 0)
const changed = computed(() => draft.value !== null && JSON.stringify(draft.value) !== JSON.stringify(rod.value?.setup ?? null))
const state = computed(() => (store.coreReady ? 'ready' : store.coreFailed ? 'server' : 'starting'))
const benchOf = (id: string): BenchView | undefined => spread.value?.rods.find((item) => item.setup.rod_id === id)
const outfit = computed(() => spread.value?.outfit ?? store.trip!.outfit)
const besideRod = computed(() => beside.value?.rods.find((item) => item.rod_id === chosen.value))
const nameOf = (list: 'lures' | 'attractors', id: string | null | undefined): string | null =>
  outfit.value[list].find((item) => item.id === id)?.name ?? null
const countOfNews = computed(() => Object.values(news.value ?? {}).reduce((sum, list) => sum + (list?.length ?? 0), 0))

const tryIt = latestOnly(
  (setup: RodSetup) => questions.bench(setup),
  (answer, asked) => {
    bench.value = answer
    // What the kind of line cannot have has been taken off: the draft goes by that from here.
    if (JSON.stringify(draft.value) === JSON.stringify(asked)) draft.value = answer.setup
    problem.value = null
  },
  (error) => (problem.value = describeError(error, display.units)),
)
const checkAll = latestOnly(
  () => questions.checkSpread(),
  (answer) => (spread.value = answer),
  (error) => (problem.value = describeError(error, display.units)),
)

const lookBeside = latestOnly(
  () => questions.beside(),
  (answer) => (beside.value = answer),
  (error) => (problem.value = describeError(error, display.units)),
)

/** Only the server knows the locker; without a link there is no news, and that is no error. */
async function askNews(): Promise<void> {
  if (!store.trip) return
  try {
    news.value = await getNews(store.trip.id)
  } catch {
    news.value = null
  }
}
async function bringAboard(): Promise<void> {
  const brought = Object.fromEntries(Object.entries(news.value ?? {}).filter(([, list]) => list?.length))
  problem.value = await store.attempt(() => store.record('tackle_brought', brought))
  await askNews()
}
function keepRange(piece: 'attractor' | 'lure', low_mps: number, high_mps: number): Promise<string | null> {
  const setup = rod.value!.setup!
  const piece_id = piece === 'lure' ? setup.lure_id : setup.attractor_id!
  const tow_point = piece === 'lure' ? '' : (setup.tow_point ?? '')
  return store.attempt(() => store.record('auditioned', { piece, piece_id, low_mps, high_mps, tow_point }))
}

function choose(id: string): void {
  chosen.value = id
  bench.value = null
  const item = rods.value.find((one) => one.id === id)
  change(item?.setup ?? item?.begin ?? null)
}

/** Which part of the box is open. */
const shelf = ref<ShelfPiece['piece'] | null>(null)
function putOn(id: string | null): void {
  if (!draft.value) return
  if (shelf.value === 'attractor') change({ ...draft.value, attractor_id: id, tow_point: '' })
  else if (id !== null) change({ ...draft.value, lure_id: id })
  shelf.value = null
}

function change(setup: RodSetup | null): void {
  draft.value = setup
  mistyped.value = null
  if (setup) tryIt(setup)
}

/** What proved itself goes on another rod too: all from the leader on, the line and its place stay. */
const others = computed(() => rods.value.filter((item) => item.setup && item.id !== chosen.value))
function wearSame(other: RodSetup): void {
  const { lure_id, attractor_id, tow_point, leader_m, leader_id, bait_id, scent_id, snubber, snubber_id } = other
  const worn = { lure_id, attractor_id, tow_point, leader_m, leader_id, bait_id, scent_id, snubber, snubber_id }
  if (draft.value) change({ ...draft.value, ...worn })
}

async function rigIt(setup: RodSetup): Promise<void> {
  problem.value = await store.attempt(() => store.record('rod_rigged', { ...setup }))
  if (problem.value === null && setup.rod_id === chosen.value) change(setup)
}

const moodNow = computed(() => spread.value?.mood ?? 'usual')
function chooseSchool(topic: 'leader' | 'mood', school: string): void {
  void store.record('school_chosen', { topic, school }).then(() => draft.value && tryIt(draft.value))
}

watch(
  () => [
    store.coreReady,
    store.view?.undo_event_id,
    store.view?.speed_mps,
    JSON.stringify(rods.value.map((item) => [item.setup, item.line?.clearance_m?.toFixed(0)])),
  ],
  () => {
    if (!store.view) return
    checkAll(undefined)
    lookBeside(undefined)
    if (chosen.value === null && rods.value[0]) choose(rods.value[0].id)
  },
  // The trip may have been open for hours when this page is looked at.
  { immediate: true },
)

const { empty } = useOpenTrip(askNews)
</script>

<template>
  <main class="rig" :data-state="state" data-test="rig">
    <template v-if="store.view && store.trip">
      <aside class="rods" aria-label="Rods">
        <h1>Rig</h1>
        <router-link class="card" :to="{ path: '/rig/card', query: route.query }" data-test="to-card">Rig card, to print</router-link>
        <router-link class="card" :to="{ path: '/rig/spread', query: route.query }" data-test="to-spread"
          >Build an opening spread</router-link
        >
        <v-btn v-if="countOfNews" class="big" data-test="bring-aboard" @click="bringAboard"
          >Take over {{ countOfNews }} from the Locker</v-btn
        >
        <button
          v-for="item in rods"
          :key="item.id"
          class="rod"
          :class="{ chosen: item.id === chosen }"
          :data-test="`rig-${item.id}`"
          @click="choose(item.id)"
        >
          <RodShape :shape="item.shape" :index="index(item.id)" :size="24" />
          <span class="who">
            <strong>{{ item.name }}</strong>
            <span class="label">{{ item.recipe || 'not rigged' }}</span>
          </span>
          <span v-if="benchOf(item.id)?.findings.length" class="count" :class="benchOf(item.id)!.findings[0]!.severity">
            {{ benchOf(item.id)!.findings.length }}
          </span>
        </button>
        <CommonSpeed
          v-if="spread"
          :spread="spread"
          :name-of="(id: string) => rods.find((item) => item.id === id)?.name ?? id"
          @mend="rigIt"
        />
        <CableVoltage
          v-if="spread"
          :spread="spread"
          :trip="store.trip"
          :note="(place_id: string, volts: number) => store.attempt(() => store.record('voltage_read', { place_id, volts }))"
        />
      </aside>

      <section v-if="rod && draft" class="bench">
        <header>
          <h2>{{ rod.name }}</h2>
          <span v-if="bench" class="label">
            {{ bench.kind }}, works {{ formatSpeed(bench.works.low_mps, display.units, false) }}–{{
              formatSpeed(bench.works.high_mps, display.units)
            }}
          </span>
          <span class="gap" />
          <v-menu v-if="others.length">
            <template #activator="{ props: menu }">
              <v-btn v-bind="menu" class="big" data-test="wear-same">Same as…</v-btn>
            </template>
            <v-list density="comfortable">
              <v-list-item
                v-for="item in others"
                :key="item.id"
                :title="`${item.name}: ${item.recipe}`"
                :data-test="`same-as-${item.id}`"
                @click="wearSame(item.setup!)"
              />
            </v-list>
          </v-menu>
          <v-btn v-if="changed" class="big" data-test="put-back" @click="choose(rod.id)">Put back</v-btn>
          <v-btn class="big solid" :disabled="!changed || (mistyped ?? problem) !== null" data-test="rig-it" @click="rigIt(draft)"
            >Rig it so</v-btn
          >
        </header>
        <p v-if="mistyped ?? problem" class="error" role="alert" data-test="rig-error">{{ mistyped ?? problem }}</p>
        <ChainRule
          v-if="bench"
          :bench="bench"
          :colour="rodColour(index(rod.id))"
          @leader="change({ ...draft, leader_m: $event })"
          @open="shelf = $event"
        />
        <div v-if="bench" class="meter" role="img" :aria-label="`Action ${Math.round(bench.wild * 100)} of 100`" data-test="wild">
          <span class="label">calm</span>
          <span class="track"><span class="fill" :style="{ width: `${bench.wild * 100}%` }" /></span>
          <span class="label">wild</span>
        </div>
        <LeaderSchools
          v-if="bench?.leader"
          :leader="bench.leader"
          :schools="bench.schools"
          :mood="moodNow"
          @school="chooseSchool('leader', $event)"
          @mood="chooseSchool('mood', $event)"
        />
        <SetupFields :setup="draft" :outfit="outfit" @change="change" @bad="mistyped = $event" @open="shelf = $event" />
        <PieceShelf
          v-if="shelf"
          :model-value="true"
          :title="`${rod.name}: another ${shelf}`"
          :setup="draft"
          :piece="shelf"
          :colour="rodColour(index(rod.id))"
          @pick="putOn"
          @update:model-value="shelf = null"
        />
        <FindingList v-if="bench" :findings="bench.findings" />
        <MoodLadder
          v-if="bench"
          :bench="bench"
          :colour="rodColour(index(rod.id))"
          :ladder-for="questions.ladder"
          @change="change"
          @failed="problem = describeError($event, display.units)"
        />
        <BesideBoat
          v-if="beside && rod.setup"
          :boat="beside.boat"
          :rod="besideRod"
          :rod-name="rod.name"
          :blade="nameOf('attractors', rod.setup.attractor_id)"
          :lure="nameOf('lures', rod.setup.lure_id) ?? ''"
          :speed-mps="store.view.speed_mps"
          :set-speed="(speed_mps: number) => void store.record('speed_changed', { speed_mps })"
          :utc-offset-min="store.trip.utc_offset_min"
          :check="(item, outcome, ofRod) => void store.record('checked', { item, outcome, rod_id: ofRod ? rod!.id : null })"
          :audition="keepRange"
          :look-again="(why) => void store.record('look_again', { why, rod_id: why === 'bent' ? rod!.id : null })"
        />
      </section>
    </template>
    <div v-else-if="empty" class="nothing">
      <h1>No trip yet</h1>
      <p>Start one: its boat, rods and tackle come to the bench.</p>
      <v-btn class="big" @click="router.push('/plan')">Start a trip</v-btn>
    </div>
    <p v-else-if="store.loadError" class="nothing" role="alert">{{ store.loadError }}</p>
    <p v-else class="nothing">Opening the trip …</p>
  </main>
</template>

<style scoped>
.rig {
  display: grid;
  grid-template-columns: 290px minmax(0, 1fr);
  gap: 6px;
  padding: 6px;
  align-items: start;
}
.rods,
.bench {
  background: var(--frost);
  padding: 8px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.card {
  min-height: 44px;
  display: flex;
  align-items: center;
  color: var(--ink);
  font-weight: 640;
}
.rod {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 56px;
  padding: 4px 8px;
  text-align: left;
  border: 1px solid var(--line);
  border-radius: 4px;
}
.rod.chosen {
  border-color: var(--ink);
  box-shadow: inset 0 0 0 1.5px var(--ink);
}
.who {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
}
.count {
  min-width: 28px;
  text-align: center;
  font-weight: 760;
  border: 1.5px solid var(--ink);
  border-radius: 4px;
}
.count.stop {
  border-color: var(--now);
  color: var(--now);
}
header {
  display: flex;
  align-items: center;
  gap: 10px;
  flex-wrap: wrap;
}
.gap {
  flex: 1;
}
.big {
  min-height: var(--touch);
}
.meter {
  display: flex;
  align-items: center;
  gap: 8px;
}
.track {
  flex: 1;
  max-width: 320px;
  height: 12px;
  border: 1.5px solid var(--ink);
  border-radius: 6px;
  overflow: hidden;
}
.fill {
  display: block;
  height: 100%;
  background: var(--ink);
}
.nothing {
  grid-column: 1 / -1;
  margin: 20vh auto;
  text-align: center;
}
@media (max-width: 900px) {
  .rig {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
