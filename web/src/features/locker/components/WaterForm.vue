<script setup lang="ts">
// A water, and what its user read of its rules, with the day and where.
import { ref, watch } from 'vue'
import { describeError } from '@/shared/units/describe'
import { parseNumber } from '@/shared/units/parse'
import { useDisplayStore } from '@/shared/units/store'
import { lengthFromM, lengthToM } from '@/shared/units/units'
import { addWater, changeWater, type NewWater, type Water, type WaterRules } from '../api'

const props = defineProps<{ water: Water | null }>()
const emit = defineEmits<{ saved: [water: Water] }>()

const display = useDisplayStore()
const form = ref({ name: '', deepest: '', latitude: '', longitude: '', offset: '' })
const rules = ref<{ on: boolean; hooks: NonNullable<WaterRules['hooks']>; bait: boolean; rods: string; day: string; origin: string }>({
  on: false,
  hooks: 'any',
  bait: true,
  rods: '',
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
      deepest: water ? String(Math.round(lengthFromM(water.deepest_m, display.units))) : '',
      latitude: water ? String(water.latitude_deg) : '',
      longitude: water ? String(water.longitude_deg) : '',
      offset: String((water?.utc_offset_min ?? -new Date().getTimezoneOffset()) / 60),
    }
    const known = water?.rules
    rules.value = {
      on: known !== null && known !== undefined,
      hooks: known?.hooks ?? 'any',
      bait: known?.bait ?? true,
      rods: known?.rods_most ? String(known.rods_most) : '',
      day: known?.entered_on ?? new Date().toISOString().slice(0, 10),
      origin: known?.origin ?? '',
    }
    problem.value = null
  },
  { immediate: true },
)

function number(text: string, what: string): number {
  const value = parseNumber(text)
  if (value === null) throw new Error(`${what}: “${text}” is no number.`)
  return value
}
async function save(): Promise<void> {
  problem.value = null
  saving.value = true
  try {
    const body: NewWater = {
      name: form.value.name,
      deepest_m: lengthToM(number(form.value.deepest, 'Deepest'), display.units),
      latitude_deg: number(form.value.latitude, 'Latitude'),
      longitude_deg: number(form.value.longitude, 'Longitude'),
      utc_offset_min: Math.round(number(form.value.offset, 'Hours from UTC') * 60),
      rules: rules.value.on
        ? {
            entered_on: rules.value.day,
            origin: rules.value.origin,
            hooks: rules.value.hooks,
            bait: rules.value.bait,
            rods_most: rules.value.rods.trim() ? number(rules.value.rods, 'Most rods') : null,
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
      <label class="field"
        ><span class="label">deepest, {{ display.units.length }}</span
        ><input v-model="form.deepest" inputmode="decimal" data-test="water-deepest"
      /></label>
      <label class="field"
        ><span class="label">latitude, degrees north</span><input v-model="form.latitude" inputmode="decimal" data-test="water-latitude"
      /></label>
      <label class="field"
        ><span class="label">longitude, degrees east (west is −)</span
        ><input v-model="form.longitude" inputmode="decimal" data-test="water-longitude"
      /></label>
      <label class="field"><span class="label">hours from UTC</span><input v-model="form.offset" inputmode="decimal" /></label>
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
        <label class="field"
          ><span class="label">most rods out on a boat</span
          ><input v-model="rules.rods" inputmode="numeric" placeholder="not said" data-test="rules-rods"
        /></label>
        <label class="switch"><input v-model="rules.bait" type="checkbox" /> bait may be used</label>
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
