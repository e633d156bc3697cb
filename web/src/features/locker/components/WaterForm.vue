<script setup lang="ts">
// A water, and what its user read of its rules, with the day and where.
import { computed, ref, watch } from 'vue'
import NumberField from '@/shared/ui/NumberField.vue'
import SelectField from '@/shared/ui/SelectField.vue'
import { describeError } from '@/shared/units/describe'
import { settled, type Typed } from '@/shared/units/measures'
import { useDisplayStore } from '@/shared/units/store'
import { SPECIES } from '@/shared/trade/species'
import { addWater, changeWater, type NewWater, type Water, type WaterRules } from '../api'
import { fishForm, fishRules, said, type FishForm, type SpeciesRules } from '../logic/rules'
import FishRulesFields from './FishRulesFields.vue'

const props = defineProps<{ water: Water | null }>()
const emit = defineEmits<{ saved: [water: Water] }>()

const display = useDisplayStore()
interface Form {
  name: string
  deepest: Typed
  latitude: Typed
  longitude: Typed
  offset: Typed
  zone: string
}
const form = ref<Form>({ name: '', deepest: null, latitude: null, longitude: null, offset: null, zone: '' })
const ZONES = [
  { value: '', title: 'hours from UTC, no summer time' },
  ...Intl.supportedValuesOf('timeZone').map((zone) => ({ value: zone, title: zone.replaceAll('_', ' ') })),
]
const HOOKS = [
  { value: 'any', title: 'any' },
  { value: 'single', title: 'single only' },
  { value: 'single_barbless', title: 'single, barbless' },
] as const
interface Rules {
  on: boolean
  hooks: NonNullable<WaterRules['hooks']>
  bait: boolean
  rods: Typed
  all: FishForm
  species: { species: SpeciesRules['species']; fish: FishForm }[]
  day: string
  origin: string
}
const rules = ref<Rules>(rulesForm(null))
/** Species of which nothing else is said yet. */
const others = computed(() => SPECIES.filter(({ value }) => !rules.value.species.some((item) => item.species === value)))
const nameOf = (species: SpeciesRules['species']): string => SPECIES.find(({ value }) => value === species)!.title
const problem = ref<string | null>(null)
const saving = ref(false)

watch(
  () => props.water?.id,
  () => {
    const water = props.water
    form.value = {
      name: water?.name ?? '',
      deepest: water?.deepest_m ?? null,
      latitude: water?.latitude_deg ?? null,
      longitude: water?.longitude_deg ?? null,
      offset: water?.utc_offset_min ?? -new Date().getTimezoneOffset(),
      zone: water ? (water.timezone ?? '') : Intl.DateTimeFormat().resolvedOptions().timeZone,
    }
    rules.value = rulesForm(water?.rules ?? null)
    problem.value = null
  },
  { immediate: true },
)

/** Today by the reader's own calendar. */
function today(): string {
  const now = new Date()
  return new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10)
}

function rulesForm(known: WaterRules | null): Rules {
  return {
    on: known !== null,
    hooks: known?.hooks ?? 'any',
    bait: known?.bait ?? true,
    rods: known?.rods_most ?? null,
    all: fishForm(known),
    species: (known?.by_species ?? []).map((item) => ({ species: item.species, fish: fishForm(item) })),
    day: known?.entered_on ?? today(),
    origin: known?.origin ?? '',
  }
}

async function save(): Promise<void> {
  problem.value = null
  saving.value = true
  try {
    const body: NewWater = {
      name: form.value.name,
      deepest_m: settled(form.value.deepest, 'Deepest'),
      latitude_deg: settled(form.value.latitude, 'Latitude'),
      longitude_deg: settled(form.value.longitude, 'Longitude'),
      utc_offset_min: settled(form.value.offset, 'Hours from UTC'),
      timezone: form.value.zone,
      rules: rules.value.on
        ? {
            entered_on: rules.value.day,
            origin: rules.value.origin,
            hooks: rules.value.hooks,
            bait: rules.value.bait,
            rods_most: said(rules.value.rods, 'Most rods'),
            ...fishRules(rules.value.all),
            by_species: rules.value.species.map(({ species, fish }) => ({ species, ...fishRules(fish, nameOf(species)) })),
          }
        : null,
    }
    emit('saved', props.water ? await changeWater(props.water.id, body) : await addWater(body))
  } catch (error) {
    problem.value = describeError(error, display.units)
  } finally {
    saving.value = false
  }
}
</script>

<template>
  <form class="water-form" data-test="water-form" @submit.prevent="save">
    <div class="grid">
      <label class="field"><span class="label">water</span><input v-model="form.name" maxlength="120" data-test="water-name" /></label>
      <NumberField v-model="form.deepest" label="deepest" measure="long" test="water-deepest" />
      <NumberField v-model="form.latitude" label="latitude, north" measure="degrees" test="water-latitude" />
      <NumberField v-model="form.longitude" label="longitude, east (west is −)" measure="degrees" test="water-longitude" />
      <SelectField v-model="form.zone" label="time zone" :items="ZONES" test="water-zone" />
      <NumberField v-if="form.zone === ''" v-model="form.offset" label="hours from UTC" measure="hours" test="water-offset" />
    </div>
    <p v-if="water?.has_chart" class="label">It has a depth chart, which stays as it is.</p>
    <label class="switch"><input v-model="rules.on" type="checkbox" data-test="rules-on" /> Note what you read of its rules</label>
    <fieldset v-if="rules.on">
      <legend class="label">Your own note. It is not the law: local rules are read where they are printed, and they come first.</legend>
      <div class="grid">
        <SelectField v-model="rules.hooks" label="hooks" :items="HOOKS" test="rules-hooks" />
        <NumberField v-model="rules.rods" label="most rods out on a boat" measure="count" placeholder="not said" test="rules-rods" />
        <label class="switch"><input v-model="rules.bait" type="checkbox" /> bait may be used</label>
        <FishRulesFields v-model="rules.all" test="rules" />
        <label class="field"><span class="label">read on</span><input v-model="rules.day" type="date" /></label>
        <label class="field"
          ><span class="label">where</span
          ><input v-model="rules.origin" maxlength="200" placeholder="the printed rules of …" data-test="rules-origin"
        /></label>
      </div>
      <section v-for="(item, i) in rules.species" :key="item.species" class="species" :aria-label="nameOf(item.species)">
        <h2>{{ nameOf(item.species) }}: in the place of what is said of all fish</h2>
        <div class="grid">
          <FishRulesFields v-model="item.fish" :test="`rules-${item.species}`" />
          <v-btn :data-test="`drop-rules-${item.species}`" @click="rules.species.splice(i, 1)">Nothing of its own</v-btn>
        </div>
      </section>
      <div v-if="others.length" class="acts">
        <span class="label">something else is said of</span>
        <v-btn
          v-for="{ value, title } in others"
          :key="value"
          :data-test="`add-rules-${value}`"
          @click="rules.species.push({ species: value, fish: fishForm(null) })"
          >{{ title }}</v-btn
        >
      </div>
    </fieldset>
    <p v-if="problem" class="error" role="alert" data-test="water-error">{{ problem }} Nothing was lost: mend it and save again.</p>
    <v-btn type="submit" class="solid" :disabled="saving" data-test="save-water">Save the water</v-btn>
  </form>
</template>

<style scoped>
.water-form {
  display: flex;
  flex-direction: column;
  gap: 10px;
  background: var(--frost);
  padding: 12px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 8px 12px;
  align-items: end;
}
fieldset {
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 8px;
}
.species {
  border-top: 1px solid var(--line);
  margin-top: 10px;
  padding-top: 6px;
}
h2 {
  margin: 0 0 6px;
  font-size: 14px;
}
.acts {
  --v-btn-height: 44px;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin-top: 10px;
}
</style>
