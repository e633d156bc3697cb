<script setup lang="ts">
// The Locker: what is set up once. Tackle, boats with their rods, waters with their rules.
import { computed, onMounted, ref, shallowRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import PickList from '@/shared/ui/PickList.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { getCatalogue, listBoats, listWaters, type BoatRow, type Catalogue, type Water } from '../api'
import BoatForm from '../components/BoatForm.vue'
import TackleTab from '../components/TackleTab.vue'
import WaterForm from '../components/WaterForm.vue'

type Tab = 'tackle' | 'boats' | 'waters'
const TABS: { value: Tab; title: string }[] = [
  { value: 'tackle', title: 'Tackle' },
  { value: 'boats', title: 'Boats and rods' },
  { value: 'waters', title: 'Waters and rules' },
]
const route = useRoute()
const router = useRouter()
const display = useDisplayStore()
const tab = computed<Tab>(() => TABS.find((item) => item.value === route.query.tab)?.value ?? 'tackle')
const boats = shallowRef<BoatRow[]>([])
const waters = shallowRef<Water[]>([])
const catalogue = shallowRef<Catalogue | null>(null)
const loaded = ref(false)
const problem = ref<string | null>(null)
/** Which boat or water is open: its key, or "new". */
const open = ref<number | 'new' | null>(null)
const said = ref('')

/** What is shown: the first, until another is opened. */
const shown = computed(() => open.value ?? (tab.value === 'boats' ? boats.value : waters.value)[0]?.id ?? null)
const shownKey = computed(() => (shown.value === 'new' ? null : shown.value))
const boatItems = computed(() =>
  boats.value.map(({ id, boat }) => ({
    value: id,
    title: boat.boat_name,
    note: `${boat.rods.length} rods, ${boat.places.length} places`,
    test: `boat-${id}`,
  })),
)
const waterItems = computed(() =>
  waters.value.map((item) => ({
    value: item.id,
    title: item.name,
    note: `${item.has_chart ? 'with a depth chart' : 'no chart'}${item.rules ? `, rules noted ${item.rules.entered_on}` : ''}`,
    test: `water-${item.id}`,
  })),
)
function show(key: number | 'new' | null): void {
  open.value = key
  said.value = ''
}

function go(to: Tab): void {
  open.value = null
  said.value = ''
  void router.replace({ query: { ...route.query, tab: to } })
}
async function load(): Promise<void> {
  try {
    ;[boats.value, waters.value, catalogue.value] = await Promise.all([listBoats(), listWaters(), getCatalogue()])
    loaded.value = true
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}
onMounted(load)

async function saved(what: string, id: number): Promise<void> {
  await load()
  open.value = id
  said.value = `${what} is kept. A trip under way takes it over in Rig.`
}
</script>

<template>
  <main class="locker" data-test="locker">
    <header>
      <h1>Locker</h1>
      <nav aria-label="Parts of the locker">
        <button
          v-for="item in TABS"
          :key="item.value"
          class="tab"
          :class="{ on: tab === item.value }"
          :data-test="`tab-${item.value}`"
          @click="go(item.value)"
        >
          {{ item.title }}
        </button>
      </nav>
    </header>
    <p v-if="problem" class="error" role="alert">{{ problem }}</p>
    <TackleTab v-if="tab === 'tackle' && loaded" :boats="boats" />
    <section v-else-if="tab === 'boats' && loaded" class="pair">
      <div class="names">
        <PickList :model-value="shownKey" label="Boats" :items="boatItems" @update:model-value="show" />
        <p v-if="!boats.length">No boat yet. Add the one you fish from.</p>
        <v-btn class="big" data-test="new-boat" @click="show('new')">Add a boat</v-btn>
      </div>
      <div>
        <p v-if="said" class="said" role="status">{{ said }}</p>
        <BoatForm
          v-if="shown !== null"
          :key="String(shown)"
          :boat="boats.find((item) => item.id === shown) ?? null"
          :catalogue="catalogue"
          @saved="saved($event.boat.boat_name, $event.id)"
        />
      </div>
    </section>
    <section v-else-if="tab === 'waters' && loaded" class="pair">
      <div class="names">
        <PickList :model-value="shownKey" label="Waters" :items="waterItems" @update:model-value="show" />
        <p v-if="!waters.length">No water yet. Add the one you fish.</p>
        <v-btn class="big" data-test="new-water" @click="show('new')">Add a water</v-btn>
      </div>
      <div>
        <p v-if="said" class="said" role="status">{{ said }}</p>
        <router-link v-if="shownKey !== null" :to="`/waters/${shownKey}`" class="to-chart" data-test="to-chart">
          Its chart: soundings, launch, hazards, closed water
        </router-link>
        <WaterForm
          v-if="shown !== null"
          :key="String(shown)"
          :water="waters.find((item) => item.id === shown) ?? null"
          @saved="saved($event.name, $event.id)"
        />
      </div>
    </section>
    <p v-else-if="!problem" class="label">Opening the locker …</p>
  </main>
</template>

<style scoped>
.to-chart {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  color: var(--ink);
}
.locker {
  padding: 6px;
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.locker > * {
  flex: none;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 24px;
  background: var(--frost);
  padding: 8px 12px;
}
nav {
  display: flex;
  flex-wrap: wrap;
}
.tab {
  min-height: 48px;
  padding: 0 16px;
  font-weight: 640;
}
.tab.on {
  box-shadow: inset 0 -4px 0 var(--ink);
}
.pair {
  display: grid;
  grid-template-columns: 280px minmax(0, 1fr);
  gap: 6px;
  align-items: start;
}
.names {
  background: var(--frost);
  padding: 8px;
  display: grid;
  gap: 8px;
}
/* Fields alike in all forms of the locker. */
.locker :deep(input:not([type='checkbox'], [type='file'])),
.locker :deep(select) {
  width: 100%;
  min-height: 44px;
  padding: 4px 8px;
  border: 1px solid var(--ink-2);
  border-radius: 4px;
  background: var(--frost);
  color: var(--ink);
}
.locker :deep(input[type='checkbox']) {
  width: 26px;
  height: 26px;
  margin: 9px 0;
  accent-color: var(--ink);
}
.locker :deep(.plain) {
  min-height: 44px;
  font-weight: 640;
  text-decoration: underline;
  text-align: left;
}
.locker :deep(.solid) {
  min-height: 48px;
  background: var(--ink);
  color: var(--frost);
  align-self: flex-start;
}
.locker :deep(.big) {
  min-height: 44px;
}
@media (max-width: 800px) {
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
