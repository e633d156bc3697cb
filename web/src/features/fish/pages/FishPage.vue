<script setup lang="ts">
// Fish: the view people live in.
import { useEventListener, useIntervalFn, useMediaQuery } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import EmptyState from '@/shared/ui/EmptyState.vue'
import { useDisplayStore } from '@/shared/units/store'
import { tenthOfSpeed } from '@/shared/units/units'
import type { FishView, Move, RodLine, RodView } from '@/features/trip/api'
import type { RodAct } from '../components/RodTile.vue'
import { useLive } from '../composables/useLive'
import AheadCalls from '../components/AheadCalls.vue'
import KeepOutNote from '../components/KeepOutNote.vue'
import DayRibbon from '@/features/trip/components/DayRibbon.vue'
import EntryDialogs from '../components/EntryDialogs.vue'
import PracticeBar from '@/features/practice/components/PracticeBar.vue'
import { usePracticeStore } from '@/features/practice/store'
import HeadBar from '../components/HeadBar.vue'
import KeyHelp from '../components/KeyHelp.vue'
import MarkSheet from '../components/MarkSheet.vue'
import MethodCard from '../components/MethodCard.vue'
import NextMove from '../components/NextMove.vue'
import NotTaken from '../components/NotTaken.vue'
import RodTile from '../components/RodTile.vue'
import DayLines from '../components/phone/DayLines.vue'
import PieceShelf from '@/features/trip/components/PieceShelf.vue'
import { rodColour } from '@/features/trip/logic/shapes'
import PhoneHead from '../components/phone/PhoneHead.vue'
import RodPanel from '../components/phone/RodPanel.vue'
import RodStrip from '../components/phone/RodStrip.vue'
import SpeedStrip from '../components/phone/SpeedStrip.vue'
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import SpeedRuler from '../components/SpeedRuler.vue'
import TopView from '../components/TopView.vue'
import WaterColumn from '../components/WaterColumn.vue'
import { rodForKey, useFishActs } from '../composables/useFishActs'
import { useLookAhead } from '@/features/trip/composables/useLookAhead'
import { useOpenTrip } from '@/features/trip/composables/useOpenTrip'
import { useAwake } from '../composables/useAwake'
import { useSpeedTry } from '../composables/useSpeedTry'
import { useSpoken } from '../composables/useSpoken'
import { keyAct } from '../logic/keys'
import { useQuestions } from '@/features/trip/questions'
import { useTripStore } from '@/features/trip/store'

const store = useTripStore()
const questions = useQuestions()
const practice = usePracticeStore()
const display = useDisplayStore()
const router = useRouter()
const selected = ref<string | null>(null)
const markId = ref<string | null>(null)
const acts = useFishActs({ store, selected })
useLive()
const speed = useSpeedTry((mps) => questions.linesAt(mps), store.report)
/** What is being typed at the side, shown in the column. */
const entryLine = shallowRef<RodLine | null>(null)
const level = ref<number | null>(null)
const clock = ref(store.nowS())
const side = ref(true)
const view = computed(() => {
  // Whoever practises without advice gets none, on the phone neither.
  const bare = store.view && store.trip?.is_practice && !practice.advice
  return bare ? { ...store.view!, move: null, others: [] } : store.view
})
useSpoken(() => store.view)
/** On a phone Fish is drawn for a thumb: one screen, and sheets for what needs more. */
const phone = useMediaQuery('(max-width: 700px)')
const marking = ref(false)
const sheet = ref<'move' | 'calls' | 'day' | 'lure' | null>(null)
const sheetOpen = (name: 'move' | 'calls' | 'day' | 'lure') =>
  computed({ get: () => sheet.value === name, set: (now) => (sheet.value = now ? name : null) })
const [moveOpen, callsOpen, dayOpen, lureOpen] = [sheetOpen('move'), sheetOpen('calls'), sheetOpen('day'), sheetOpen('lure')]
const helpOpen = computed({
  get: () => acts.dialog.value === 'help',
  set: (now) => (acts.dialog.value = now ? 'help' : null),
})
const notTakenOpen = computed({
  get: () => acts.dialog.value === 'not-taken',
  set: (now) => (acts.dialog.value = now ? 'not-taken' : null),
})
const chosenRod = computed(() => view.value?.rods.find((rod) => rod.id === selected.value))
const noticeOpen = computed({ get: () => store.notice !== null, set: (now) => !now && (store.notice = null) })

function rodIndex(id: string): number {
  return Math.max(store.trip?.outfit.rods.findIndex((rod) => rod.id === id) ?? 0, 0)
}

/** While a speed is being kept it is shown; what is tried meanwhile goes on from it, and stays. */
async function setSpeed(mps: number): Promise<void> {
  speed.to(mps)
  await store.record('speed_changed', { speed_mps: mps })
  speed.end(mps)
}

function nudgeSpeed(tenths: number): void {
  void setSpeed(tenthOfSpeed(speed.tried.value ?? view.value!.speed_mps, display.units, tenths))
}

function badSpeed(text: string): void {
  store.notice = { level: 'error', field: 'speed_mps', text: `Speed: “${text}” is no number. Type one, such as 1.8.` }
}

function openMark(mark: FishView['marks'][number]): void {
  markId.value = mark.event_id
}

function markEntered(depthM: number): void {
  markId.value = view.value?.marks.findLast((mark) => Math.abs(mark.depth_m - depthM) < 1e-6)?.event_id ?? null
}

function choose(rodId: string): void {
  marking.value = false
  selected.value = selected.value === rodId ? null : rodId
}

/** A tap on the water: the depth of a fish that was seen, or of the rod that is chosen. */
async function at(depthM: number): Promise<void> {
  if (marking.value) {
    marking.value = false
    await store.record('mark_seen', { depth_m: depthM, count: 1 })
  } else if (chosenRod.value?.line) {
    await questions.setDepth(chosenRod.value.id, depthM)
  }
}

/** On the strip a tap acts, and the rod is left as it was chosen; a sheet needs it chosen. */
function phoneAct(act: RodAct, rod: RodView): void {
  const before = selected.value
  acts.rod(act, rod)
  if (acts.dialog.value === null) selected.value = before
}

async function answered(act: (move: Move) => Promise<void>, move: Move): Promise<void> {
  await act(move)
  sheet.value = null
}

async function swapLure(lureId: string): Promise<void> {
  const setup = chosenRod.value?.setup
  sheet.value = null
  if (setup) await store.record('rod_rigged', { ...setup, lure_id: lureId })
}

async function fishMark(rodId: string, depthM: number): Promise<void> {
  markId.value = null
  selected.value = rodId
  await questions.setDepth(rodId, depthM)
}

function onKey(event: KeyboardEvent): void {
  const target = event.target as HTMLElement
  const inField = ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)
  // Behind a sheet or a menu keys do nothing: what is open has them.
  const covered = acts.dialog.value !== null || markId.value !== null || document.querySelector('.v-overlay--active.v-menu') !== null
  const act = keyAct(event, inField || (covered && event.key !== '?'))
  if (!act || !view.value) return
  event.preventDefault()
  const rod = rodForKey(view.value, selected.value)
  const move = view.value.move
  if (act.act === 'rod') selected.value = view.value.rods[Number(event.key) - 1]?.id ?? null
  else if (act.act === 'slower' || act.act === 'faster') nudgeSpeed(act.act === 'slower' ? -1 : 1)
  else if (act.act === 'take') move && void acts.take(move)
  else if (act.act === 'refuse') move && void acts.refuse(move)
  else if (act.act === 'above') side.value = !side.value
  else if (act.act === 'undo') void store.undo()
  else if (
    act.act === 'mark' ||
    act.act === 'temperature' ||
    act.act === 'bottom' ||
    act.act === 'current' ||
    act.act === 'wind' ||
    act.act === 'gps' ||
    act.act === 'place' ||
    act.act === 'help'
  )
    acts.dialog.value = act.act
  else if (rod) acts.rod(act.act as Parameters<typeof acts.rod>[0], rod)
}

const state = computed(() => (store.coreReady ? 'ready' : store.coreFailed ? 'server' : 'starting'))
useIntervalFn(() => (clock.value = store.nowS()), 1000)
// Every trip has a clock of its own: drawn by another's, a day of April would run on into November.
watch(
  () => store.trip?.id,
  () => (clock.value = store.nowS()),
  { flush: 'sync' },
)

const { empty } = useOpenTrip(() => (clock.value = store.nowS()))
useLookAhead()
useAwake(() => view.value !== null && !view.value.ended)
useEventListener(window, 'keydown', onKey)
</script>

<template>
  <main class="fish" :class="{ phone }" :data-state="state" data-test="fish">
    <template v-if="view && store.trip">
      <PracticeBar v-if="store.trip.is_practice" />
      <PhoneHead
        v-if="phone"
        :view="view"
        :trip="store.trip"
        :now-s="clock"
        :marking="marking"
        :above="!side"
        @ask="acts.dialog.value = $event"
        @mark="marking = !marking"
        @undo="store.undo()"
        @above="side = !side"
        @day="sheet = 'day'"
      />
      <HeadBar v-else :view="view" :trip="store.trip" :now-s="clock" @ask="acts.dialog.value = $event" @undo="store.undo()" />

      <div class="main">
        <div class="water">
          <WaterColumn
            v-if="side"
            :view="view"
            :preview="entryLine ? [entryLine] : speed.preview.value"
            :level="level"
            :rod-index="rodIndex"
            :boat-length-m="store.trip.outfit.boat_length_m"
            :selected="selected"
            :aim="phone && (marking || !!chosenRod?.line)"
            :number-for="questions.numberFor"
            :set-depth="questions.setDepth"
            @select="selected = $event"
            @mark="openMark"
            @at="at"
          />
          <TopView
            v-else
            :view="view"
            :rod-index="rodIndex"
            :boat-length-m="store.trip.outfit.boat_length_m"
            :plan-for="questions.plan"
            :manoeuvre-for="questions.manoeuvre"
            :line-orders="questions.orders"
            :tightest-turns="questions.tightest"
            @failed="store.report"
          />
          <v-btn v-if="!phone" class="switch" data-test="switch-view" @click="side = !side">{{
            side ? 'From above' : 'From the side'
          }}</v-btn>
        </div>
        <SpeedRuler
          v-if="!phone"
          class="speed"
          :view="view"
          :tried="speed.tried.value"
          :preview="speed.preview.value"
          :rod-index="rodIndex"
          @try="speed.to"
          @let-go="speed.end()"
          @set="setSpeed"
          @bad="badSpeed"
          @gps="acts.dialog.value = 'gps'"
        />
        <aside v-if="!phone" class="side">
          <KeepOutNote class="ahead" :view="view" />
          <AheadCalls
            class="ahead"
            :view="view"
            :rod-index="rodIndex"
            @set="store.record('line_set', { rod_id: $event.rod_id, setting_m: $event.number!.setting_m, wanted_depth_m: null })"
          />
          <NextMove
            :view="view"
            :rod-index="rodIndex"
            :busy="acts.busy.value"
            @take="acts.take"
            @refuse="acts.refuse"
            @why="acts.sayWhy"
            @earlier="store.record('school_chosen', { topic: 'earlier', school: $event })"
            @advice="store.record('school_chosen', { topic: 'advice', school: $event })"
          />
          <MethodCard
            :view="view"
            :offset-min="store.trip.utc_offset_min"
            @school="store.record('school_chosen', { topic: 'cold_morning', school: $event })"
            @temperature="acts.dialog.value = 'temperature'"
          />
        </aside>
      </div>
      <template v-if="phone">
        <RodPanel
          v-if="chosenRod"
          :rod="chosenRod"
          :index="rodIndex(chosenRod.id)"
          :now-s="clock"
          :ended="view.ended"
          :bitten="view.bites.some((bite) => bite.rod_id === chosenRod!.id)"
          @act="acts.rod($event, chosenRod)"
          @lure="sheet = 'lure'"
          @close="selected = null"
        />
        <template v-else>
          <KeepOutNote :view="view" />
          <DayLines
            :view="view"
            :rod-index="rodIndex"
            @move="sheet = 'move'"
            @calls="sheet = 'calls'"
            @set="store.record('line_set', { rod_id: $event.rod_id, setting_m: $event.number!.setting_m, wanted_depth_m: null })"
          />
          <SpeedStrip :view="view" :tried="speed.tried.value" @try="speed.to" @let-go="speed.end()" @set="setSpeed" />
        </template>
        <RodStrip
          :rods="view.rods"
          :rod-index="rodIndex"
          :now-s="clock"
          :selected="selected"
          :ended="view.ended"
          @choose="choose"
          @act="(act, rod) => phoneAct(act, rod)"
        />
        <EntrySheet v-model="moveOpen" title="Next move" data-test="move-sheet">
          <v-card-text>
            <NextMove
              :view="view"
              :rod-index="rodIndex"
              :busy="acts.busy.value"
              @take="(move) => answered(acts.take, move)"
              @refuse="(move) => answered(acts.refuse, move)"
              @why="acts.sayWhy"
              @earlier="store.record('school_chosen', { topic: 'earlier', school: $event })"
              @advice="store.record('school_chosen', { topic: 'advice', school: $event })"
            />
          </v-card-text>
        </EntrySheet>
        <EntrySheet v-model="callsOpen" title="Bottom ahead">
          <v-card-text>
            <AheadCalls
              :view="view"
              :rod-index="rodIndex"
              @set="store.record('line_set', { rod_id: $event.rod_id, setting_m: $event.number!.setting_m, wanted_depth_m: null })"
            />
          </v-card-text>
        </EntrySheet>
        <EntrySheet v-model="dayOpen" title="The day" data-test="day-sheet">
          <v-card-text>
            <p v-for="note in view.limit?.notes ?? []" :key="note">{{ note }}</p>
            <MethodCard
              :view="view"
              :offset-min="store.trip.utc_offset_min"
              @school="store.record('school_chosen', { topic: 'cold_morning', school: $event })"
              @temperature="acts.dialog.value = 'temperature'"
            />
            <DayRibbon
              :view="view"
              :trip="store.trip"
              :now-s="clock"
              :rod-index="rodIndex"
              @temperature="acts.dialog.value = 'temperature'"
            />
          </v-card-text>
        </EntrySheet>
        <PieceShelf
          v-if="chosenRod?.setup"
          v-model="lureOpen"
          :title="`${chosenRod.name}: another lure`"
          :setup="chosenRod.setup"
          piece="lure"
          :colour="rodColour(rodIndex(chosenRod.id))"
          @pick="$event && swapLure($event)"
        />
      </template>
      <div v-else class="rods" data-test="rods">
        <RodTile
          v-for="rod in view.rods"
          :key="rod.id"
          :rod="rod"
          :index="rodIndex(rod.id)"
          :now-s="clock"
          :selected="selected === rod.id"
          :ended="view.ended"
          :bitten="view.bites.some((bite) => bite.rod_id === rod.id)"
          @select="selected = rod.id"
          @act="acts.rod($event, rod)"
        />
      </div>
      <p v-if="view.unread.length" class="unread" role="status" data-test="unread">
        {{ view.unread.length }} of this trip's entries were written by another version and are not understood: they are kept as they are,
        and left out here ({{ view.unread[0]!.what.replaceAll('_', ' ') }}: {{ view.unread[0]!.message }}).
      </p>
      <DayRibbon
        v-if="!phone"
        class="day"
        :view="view"
        :trip="store.trip"
        :now-s="clock"
        :rod-index="rodIndex"
        @temperature="acts.dialog.value = 'temperature'"
      />

      <EntryDialogs
        v-model="acts.dialog.value"
        :view="view"
        :rod="chosenRod"
        :rod-index="rodIndex"
        @marked="markEntered"
        @tried="entryLine = $event"
        @level="level = $event"
      />
      <MarkSheet
        :view="view"
        :event-id="markId"
        :rod-index="rodIndex"
        @close="markId = null"
        @fish="fishMark"
        @offset="acts.dialog.value = 'offset'"
        @school="store.record('school_chosen', { topic: 'marks', school: $event })"
      />
      <KeyHelp v-model="helpOpen" />
      <NotTaken v-model="notTakenOpen" />
    </template>
    <EmptyState
      v-else-if="empty"
      title="No trip yet"
      text="Start one: choose the water and what you fish for, then let out the first line."
      act="Start a trip"
      test="no-trip"
      @act="router.push('/plan')"
    />
    <EmptyState
      v-else-if="store.loadError"
      role="alert"
      title="This trip cannot be opened"
      :text="store.loadError"
      act="See your trips"
      @act="router.push('/review')"
    />
    <p v-else class="nothing">Opening the trip …</p>
    <v-snackbar v-model="noticeOpen" :timeout="9000" location="top" data-test="notice">
      <span role="alert">{{ store.notice?.text }}</span>
    </v-snackbar>
  </main>
</template>

<style scoped>
.fish {
  display: flex;
  flex-direction: column;
  gap: 6px;
  padding: 6px;
  min-height: 100%;
}
.entry {
  --v-btn-height: var(--touch);
  font-size: 16px;
}
.main {
  display: grid;
  grid-template: 'water side' minmax(260px, 1fr) 'speed side' auto / minmax(0, 1fr) 372px;
  gap: 6px;
  flex: 1;
}
.water {
  grid-area: water;
  position: relative;
  min-height: 0;
}
.switch {
  position: absolute;
  right: 6px;
  bottom: 6px;
  --v-btn-height: 44px;
  background: var(--frost);
}
.speed {
  grid-area: speed;
}
.side {
  grid-area: side;
  display: flex;
  flex-direction: column;
  gap: 6px;
  background: var(--frost);
}
.side > :last-child {
  flex: 1;
}
.rods {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(178px, 1fr);
  gap: 6px;
  overflow-x: auto;
}
.unread {
  background: var(--frost);
  padding: 6px 10px;
  font-size: 13px;
}
.nothing {
  margin: 20vh auto;
  text-align: center;
}
@media (min-width: 901px) and (min-height: 720px) {
  /* One screen, nothing to scroll but what is too long to read at a glance. */
  .fish {
    height: 100vh;
  }
  .main,
  .side {
    min-height: 0;
  }
  .side {
    /* It must not stretch the rows it stands beside: what is too long scrolls. */
    height: 0;
    min-height: 100%;
    overflow-y: auto;
  }
}
@media (max-width: 900px) {
  .main {
    display: contents;
  }
  .water {
    order: 1;
    height: 300px;
    flex: none;
  }
  .rods {
    order: 2;
    flex: none;
    scroll-snap-type: x proximity;
  }
  .rods > * {
    scroll-snap-align: start;
  }
  .speed {
    order: 3;
  }
  .side {
    display: contents;
  }
  .side > * {
    order: 4;
  }
  .side > .ahead {
    /* What the bottom is about to take comes before the rods. */
    order: 1;
  }
  .day {
    order: 5;
  }
}
.fish.phone {
  /* One screen above the places: nothing to scroll with a wet thumb. */
  height: calc(100dvh - 60px);
  min-height: 480px;
  gap: 4px;
  padding: 4px;
  overflow: hidden;
}
.fish.phone .water {
  order: 0;
  flex: 1;
  height: auto;
  min-height: 0;
}
.fish.phone .water :deep(.column) {
  min-height: 0;
}
</style>
