<script setup lang="ts">
// A water, and what its user read of its rules, with the day and where.
import { ref, watch } from 'vue'
import NumberField from '@/shared/ui/NumberField.vue'
import { describeError } from '@/shared/units/describe'
import { settled, type Typed } from '@/shared/units/measures'
import { useDisplayStore } from '@/shared/units/store'
import { addWater, changeWater, type NewWater, type Water, type WaterRules } from '../api'

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
const ZONES = Intl.supportedValuesOf('timeZone')
const rules = ref<{
  on: boolean
  hooks: NonNullable<WaterRules['hooks']>
  bait: boolean
  rods: Typed
  bag: Typed
  possession: Typed
  baitCounts: boolean
  least: Typed
  longest: Typed
  slotLow: Typed
  slotHigh: Typed
  from: string
  to: string
  day: string
  origin: string
}>({
  on: false,
  hooks: 'any',
  bait: true,
  rods: null,
  bag: null,
  possession: null,
  baitCounts: false,
  least: null,
  longest: null,
  slotLow: null,
  slotHigh: null,
  from: '',
  to: '',
  day: '',
  origin: '',
})
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
    const known = water?.rules
    rules.value = {
      on: known !== null && known !== undefined,
      hooks: known?.hooks ?? 'any',
      bait: known?.bait ?? true,
      rods: known?.rods_most ?? null,
      bag: known?.bag_most ?? null,
      possession: known?.possession_most ?? null,
      baitCounts: known?.bait_counts ?? false,
      least: known?.least_m ?? null,
      longest: known?.longest_m ?? null,
      slotLow: known?.slot_low_m ?? null,
      slotHigh: known?.slot_high_m ?? null,
      from: known?.season_from ?? '',
      to: known?.season_to ?? '',
      day: known?.entered_on ?? today(),
      origin: known?.origin ?? '',
    }
    problem.value = null
  },
  { immediate: true },
)

/** Today by the reader's own calendar. */
function today(): string {
  const now = new Date()
  return new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10)
}
/** A number that may be left out. */
const said = (value: Typed, what: string): number | null => (value === null || value === '' ? null : settled(value, what))

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
            bag_most: said(rules.value.bag, 'Most fish'),
            possession_most: said(rules.value.possession, 'In possession'),
            bait_counts: rules.value.baitCounts,
            least_m: said(rules.value.least, 'Shortest'),
            longest_m: said(rules.value.longest, 'Longest'),
            slot_low_m: said(rules.value.slotLow, 'Slot from'),
            slot_high_m: said(rules.value.slotHigh, 'Slot to'),
            season_from: rules.value.from.trim(),
            season_to: rules.value.to.trim(),
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
      <label class="field"
        ><span class="label">time zone</span
        ><select v-model="form.zone" data-test="water-zone">
          <option value="">hours from UTC, no summer time</option>
          <option v-for="zone in ZONES" :key="zone" :value="zone">{{ zone.replaceAll('_', ' ') }}</option>
        </select></label
      >
      <NumberField v-if="form.zone === ''" v-model="form.offset" label="hours from UTC" measure="hours" test="water-offset" />
    </div>
    <p v-if="water?.has_chart" class="label">It has a depth chart, which stays as it is.</p>
    <label class="switch"><input v-model="rules.on" type="checkbox" data-test="rules-on" /> Note what you read of its rules</label>
    <fieldset v-if="rules.on">
      <legend class="label">Your own note. It is not the law: local rules are read where they are printed, and they come first.</legend>
      <div class="grid">
        <label class="field"
          ><span class="label">hooks</span
          ><select v-model="rules.hooks" data-test="rules-hooks">
            <option value="any">any</option>
            <option value="single">single only</option>
            <option value="single_barbless">single, barbless</option>
          </select></label
        >
        <NumberField v-model="rules.rods" label="most rods out on a boat" measure="count" placeholder="not said" test="rules-rods" />
        <label class="switch"><input v-model="rules.bait" type="checkbox" /> bait may be used</label>
        <NumberField v-model="rules.bag" label="fish a day, at most" measure="count" placeholder="not said" test="rules-bag" />
        <NumberField
          v-model="rules.possession"
          label="in possession, at most"
          measure="count"
          placeholder="not said"
          test="rules-possession"
        />
        <label class="switch"
          ><input v-model="rules.baitCounts" type="checkbox" data-test="rules-bait-counts" /> a fish caught on bait counts, let go or
          not</label
        >
        <NumberField v-model="rules.least" label="kept fish: shortest" measure="short" placeholder="not said" test="rules-least" />
        <NumberField v-model="rules.longest" label="kept fish: longest" measure="short" placeholder="not said" test="rules-longest" />
        <NumberField v-model="rules.slotLow" label="those from … go back" measure="short" placeholder="no slot" test="rules-slot-low" />
        <NumberField v-model="rules.slotHigh" label="… to" measure="short" placeholder="no slot" test="rules-slot-high" />
        <label class="field"
          ><span class="label">season from, as 04-15</span><input v-model="rules.from" maxlength="5" placeholder="all year"
        /></label>
        <label class="field"
          ><span class="label">to, as 10-31</span><input v-model="rules.to" maxlength="5" placeholder="all year"
        /></label>
        <label class="field"><span class="label">read on</span><input v-model="rules.day" type="date" /></label>
        <label class="field"
          ><span class="label">where</span
          ><input v-model="rules.origin" maxlength="200" placeholder="the printed rules of …" data-test="rules-origin"
        /></label>
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
.field {
  display: flex;
  flex-direction: column;
}
.switch {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
}
fieldset {
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 8px;
}
.error {
  color: var(--now);
  font-weight: 700;
}
</style>
