<script setup lang="ts">
// The evening before: the day by hours is the page. It is drawn on, everything follows, and a trip takes it along.
import { computed, nextTick, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { listWaters, type Water } from '@/features/locker/api'
import { listTrips, type NewTrip, type TripList } from '@/features/trip/api'
import { formatClock, tripDay } from '@/features/trip/logic/format'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import EmptyState from '@/shared/ui/EmptyState.vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { LinkDownError } from '@/shared/api/client'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed, temperatureFromC } from '@/shared/units/units'
import type { Asked, Earned } from '../api'
import DayCautions from '../components/DayCautions.vue'
import ColoursAtDepth from '../components/ColoursAtDepth.vue'
import DayPicture from '../components/DayPicture.vue'
import DayWishes from '../components/DayWishes.vue'
import FloatPlan from '../components/FloatPlan.vue'
import KeptDays from '../components/KeptDays.vue'
import LegsPanel from '../components/LegsPanel.vue'
import OpeningPanel from '../components/OpeningPanel.vue'
import PhaseCards from '../components/PhaseCards.vue'
import PlanPaper from '../components/PlanPaper.vue'
import RiverDay from '../components/RiverDay.vue'
import UnderWay from '../components/UnderWay.vue'
import BeginWith from '@/features/review/components/BeginWith.vue'
import { useDay } from '../composables/useDay'
import { useTripStart } from '../composables/useTripStart'
import { SPECIES } from '@/shared/trade/species'

const router = useRouter()
const display = useDisplayStore()
const list = shallowRef<TripList | null>(null)
const waters = shallowRef<Water[]>([])
const error = ref<string | null>(null)
const planning = useDay()
const { wishes, hours, words, age, trouble, day, problem, busy, lastProfile } = planning
/** What the day that is shown was asked with: the spread beside it is for the same. */
const settledDay = shallowRef<Asked | null>(null)
/** Looks that the opening spread is begun with. */
const begin = shallowRef<Earned[]>([])
const hour = ref(9)
const ready = ref(false)
/** The page has found where to begin: what is opened from here on stays. */
const begun = ref(false)
const telling = ref(false)

const bare = computed(() => list.value !== null && !list.value.waters.length && !list.value.outfits.length)
const water = computed(() => waters.value.find((item) => item.id === wishes.water_id) ?? null)
const seen = computed(() => day.value?.view.hours[Math.min(hour.value, day.value.view.hours.length - 1)] ?? null)
const phase = computed(() => {
  const at = seen.value?.at_s
  const all = day.value?.view.phases ?? []
  return all.find((item) => at !== undefined && at >= item.start_s && at < item.end_s) ?? all[0] ?? null
})
const clock = (atS: number) => formatClock(atS, day.value?.utc_offset_min ?? 0)
const degrees = (degc: number) => `${Math.round(temperatureFromC(degc, display.units))}°`
const across = computed(() => seen.value?.across_deg.map((deg) => `${Math.round(deg)}°`).join(' or ') ?? '')
const coldMorning = computed(() => day.value?.view.phases.some((phase) => phase.method.topic === 'cold_morning') ?? false)
const spread = computed(() => {
  const at = seen.value
  return at ? `${degrees(at.surface.low)}–${degrees(at.surface.high)}` : ''
})
const dayName = computed(() =>
  new Date(`${wishes.day}T12:00:00`).toLocaleDateString(undefined, { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' }),
)
const printDay = (): void => window.print()

function look(atS: number): void {
  const all = day.value?.view.hours ?? []
  hour.value = Math.max(
    all.findLastIndex((item) => item.at_s <= atS),
    0,
  )
}

/** Another water or day whose start and weather are still asked for: until then nothing fits together. */
let asking = 0
// Another water, day or fish: the weather is another, the start may be.
watch(
  () => [wishes.water_id, wishes.day] as const,
  async ([waterId], [before]) => {
    if (!ready.value) return
    asking += 1
    if (waterId !== before) await planning.findStart()
    await planning.fetchWeather()
    // What changed with it is told to the watch below first, which has nothing to do then.
    await nextTick()
    asking -= 1
    if (!asking) planning.compute()
  },
)
watch(
  () => [
    wishes.species,
    wishes.surface,
    wishes.secchi,
    wishes.profile,
    wishes.air_low,
    wishes.air_high,
    wishes.cold_school,
    wishes.colour_school,
    wishes.way,
    wishes.home,
    wishes.endurance,
    wishes.current,
    wishes.fell,
  ],
  () => ready.value && !asking && planning.compute(),
)

watch(busy, (now) => {
  if (now || !day.value) return
  try {
    settledDay.value = planning.asked(true)
  } catch {
    // What is half typed is said where the day is computed.
  }
})

function typeIt(): void {
  hours.value = null
  words.value = ''
  age.value = null
  trouble.value = ''
  planning.compute()
}

async function askWeather(): Promise<void> {
  await planning.fetchWeather()
  planning.compute()
}

const named = (rows: { id: number; name: string }[]) => rows.map(({ id, name }) => ({ value: id, title: name }))
const keptDays = useTemplateRef('keptDays')
const { form, planId, starting, alone, leftOut, done, underWay, keep, give, reopen, beginFromKit, start } = useTripStart({
  planning,
  list,
  water,
  error,
  ready,
  kept: async () => keptDays.value?.refresh(),
})

/** Find waters, boats and trips, and where most begin: the water of the last trip. */
async function findAll(): Promise<void> {
  error.value = null
  try {
    const [trips, all] = await Promise.all([listTrips(), listWaters()])
    list.value = trips
    waters.value = all
    // Where the last trip went, most go again.
    const last = trips.trips[0]
    wishes.water_id = (all.find((item) => item.name === last?.water_name) ?? all[0])?.id ?? null
    if (last) wishes.species = last.species as NewTrip['species']
    // A trip that is under way has its own clock.
    if (last && !last.is_ended) wishes.day = tripDay({ ...last, started_at_s: last.now_s })
    form.value.outfit_id = trips.outfits.find((item) => item.id === last?.outfit_id)?.id ?? trips.outfits[0]?.id ?? null
    await Promise.all([planning.findStart(), planning.fetchWeather()])
    ready.value = true
    begun.value = true
    planning.compute()
  } catch (caught) {
    if (caught instanceof LinkDownError && (await beginFromKit().catch(() => false))) return
    error.value = caught instanceof Error ? caught.message : String(caught)
  }
}
onMounted(findAll)
</script>

<template>
  <main class="plan" data-test="plan" :data-state="day ? 'ready' : 'waiting'" :data-busy="busy">
    <EmptyState
      v-if="bare"
      title="Nothing set up yet"
      text="A boat with its rods, tackle from the starter locker, a water: all three in one go, then the first line."
      act="Set up the first day"
      test="set-up-first"
      @act="router.push('/first-day')"
    />
    <template v-else-if="list">
      <UnderWay v-model="list" @problem="error = $event" />
      <ErrorNote :text="error ?? problem" />
      <div class="grid">
        <div class="day">
          <header v-if="day && seen" class="head">
            <h1>{{ water?.name }}</h1>
            <p data-test="seen-hour">
              <b>{{ clock(seen.at_s) }}</b> surface <b>{{ degrees(seen.surface.middle) }}</b> ({{ spread }}) · wind
              <b>{{ formatSpeed(seen.wind_mps, display.units) }}</b> from {{ Math.round(seen.wind_from_deg) }}° ·
              <template v-if="across"
                >across the sun: <b>{{ across }}</b></template
              >
              <template v-else>sun down</template>
            </p>
            <v-btn size="small" class="print" data-test="print-day" @click="printDay">Print</v-btn>
          </header>
          <DayPicture
            v-if="day && water"
            v-model:hour="hour"
            class="hours"
            :day="day"
            :weather="hours"
            :deepest-m="water.deepest_m"
            @draw="planning.draw"
          />
          <p v-else-if="alone" class="wait" data-test="alone">
            No server answers: a day is computed at home. A trip begins here all the same, with waters, boats and planned days as they were
            carried along on {{ alone }}; it is told the server when there is one.<template v-if="leftOut.length">
              Not carried along: {{ leftOut.join(', ') }}.</template
            >
          </p>
          <p v-else class="wait label">Computing the day…</p>
          <p v-if="day" class="label legend">
            <span class="key band"></span>where anglers find them <span class="key dots"></span>published: {{ day.view.published_source }}
            <template v-if="day.view.hours.some((h) => h.thermocline_m !== null)"><span class="key dash"></span>thermocline</template> ·
            {{ day.view.start_words }}; {{ day.view.weather_words }}. A forecast of water, not of bites.
          </p>
          <PhaseCards v-if="day" :day="day" :at-s="seen?.at_s ?? null" @look="look" />
          <OpeningPanel
            v-if="settledDay && phase && form.outfit_id !== null"
            :asked="settledDay"
            :outfit-id="form.outfit_id"
            :phase="phase"
            :begin="begin"
          />
          <BeginWith
            takeable
            @take="begin = $event"
            v-if="settledDay && water"
            :species="wishes.species"
            :water-name="water.name"
            :day="wishes.day"
            :surface-degc="typeof wishes.surface === 'number' ? wishes.surface : null"
          />
          <LegsPanel
            v-if="seen && wishes.water_id !== null"
            :water-id="wishes.water_id"
            :hour="seen"
            :phase="phase"
            :trip-id="underWay?.id ?? null"
          />
          <div v-if="day" class="below">
            <RiverDay v-if="day.river" :day="day" />
            <ColoursAtDepth :light="day.view.light" />
            <DayCautions :day="day" @tell="telling = true" />
          </div>
        </div>
        <aside>
          <template v-if="alone">
            <ChoiceRow v-model="wishes.water_id" label="water" :options="named(list.waters)" test="alone-water" />
            <ChoiceRow v-model="wishes.species" label="after what" :options="SPECIES" test="alone-species" />
          </template>
          <DayWishes
            v-else
            v-model="planning.wishes"
            :waters="waters"
            :words="words"
            :age="age"
            :trouble="trouble"
            :is-typed="hours === null"
            :cold-morning="coldMorning"
            :has-last-profile="lastProfile.length > 1"
            @last-profile="planning.takeProfile"
            @file="planning.takeFile"
            @weather="askWeather"
            @typed="typeIt"
          />
          <form @submit.prevent="start">
            <TextField v-model="form.name" label="the trip's name" maxlength="120" test="trip-name" />
            <ChoiceRow v-if="list.outfits.length" v-model="form.outfit_id" label="boat" :options="named(list.outfits)" test="outfit" />
            <p v-else><router-link to="/locker?tab=boats">Add a boat with its rods first</router-link></p>
            <v-btn type="submit" class="go" :disabled="starting" data-test="start-trip">
              {{ day ? 'Start now, with this day' : 'Start now' }}
            </v-btn>
            <div v-if="day" class="acts">
              <v-btn :disabled="starting" data-test="keep-day" @click="keep">Keep this day</v-btn>
              <v-btn v-if="underWay" :disabled="starting" data-test="give-day" @click="give">Give it to {{ underWay.name }}</v-btn>
            </div>
            <p v-if="done" class="label" role="status">{{ done }}</p>
          </form>
          <KeptDays v-if="begun" ref="keptDays" :open-id="planId" @open="reopen" />
        </aside>
      </div>
      <PlanPaper v-if="day && water" :day="day" :water-name="water.name" :species="wishes.species" :day-name="dayName" />
      <FloatPlan
        v-if="day && water"
        v-model="telling"
        :water-id="water.id"
        :water-name="water.name"
        :boat="list.outfits.find((item) => item.id === form.outfit_id)?.name ?? ''"
        :out-s="day.sun.first_light_s"
        :back-s="day.view.turn_back?.home_s ?? day.sun.sunset_s"
        :offset-min="day.utc_offset_min"
      />
    </template>
    <template v-else>
      <ErrorNote v-if="error" :text="error" />
      <p v-else class="wait label">Looking for waters and boats…</p>
      <v-btn v-if="error" class="again" data-test="look-again" @click="findAll">Try again</v-btn>
    </template>
  </main>
</template>

<style scoped>
.plan {
  padding: 6px;
  display: grid;
  gap: 6px;
}
h1 {
  font-weight: 720;
  font-stretch: 90%;
  font-size: 20px;
  line-height: 1.2;
}
.grid {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 316px;
  gap: 6px;
  align-items: start;
}
.day {
  display: grid;
  gap: 6px;
  min-width: 0;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  align-items: baseline;
  padding: 6px 12px 0;
}
.head p {
  margin: 0;
  font-size: 14px;
  font-variant-numeric: tabular-nums;
}
.hours {
  height: 440px;
}
.wait {
  padding: 40px 20px;
  background: var(--frost);
}
.legend {
  margin: 0;
  padding: 0 12px;
  line-height: 1.5;
}
.key {
  display: inline-block;
  width: 22px;
  height: 10px;
  margin: 0 6px 0 10px;
  border-block: 2px solid var(--ink);
}
.key.band {
  margin-left: 0;
  background: repeating-linear-gradient(135deg, var(--ink) 0 1.5px, transparent 1.5px 6px);
}
.key.dots {
  border-block-style: dotted;
}
.key.dash {
  height: 0;
  border-block: 0;
  border-top: 2px dashed var(--ink);
  vertical-align: middle;
}
aside {
  --touch: 44px;
  display: grid;
  gap: 12px;
  padding: 10px 12px;
  background: var(--frost);
}
.below {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 6px;
}
.below > * {
  padding: 8px 12px;
  background: var(--frost);
}
form {
  display: grid;
  gap: 10px;
  border-top: 1px solid var(--line);
  padding-top: 10px;
}
a {
  color: var(--ink);
}
.go {
  --v-btn-height: var(--touch);
  background: var(--ink);
  color: var(--frost);
}
.acts {
  --v-btn-height: 44px;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.print {
  --v-btn-height: 44px;
  margin-left: auto;
}
@media print {
  .print,
  aside,
  .plan :deep(.open),
  .plan :deep(.leaflet-control-zoom),
  .head,
  .hours,
  .legend,
  .below,
  .plan :deep(.phases),
  .plan :deep(.v-btn) {
    display: none;
  }
  .grid {
    grid-template-columns: minmax(0, 1fr);
  }
  .plan :deep(section) {
    break-inside: avoid;
  }
}
@media (max-width: 900px) {
  .grid {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
