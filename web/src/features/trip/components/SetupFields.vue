<script setup lang="ts">
// What is on the rod: pieces chosen from what is aboard, lengths and weights typed.
import { computed } from 'vue'
import type { RodSetup, TripDocument } from '../api'
import NumberField from '@/shared/ui/NumberField.vue'
import SelectField from '@/shared/ui/SelectField.vue'
import type { Typed } from '@/shared/units/measures'

const props = defineProps<{ setup: RodSetup; outfit: TripDocument['outfit'] }>()
const emit = defineEmits<{ change: [setup: RodSetup]; bad: [text: string]; open: [piece: 'lure' | 'attractor'] }>()

type Choice = 'place_id' | 'line_id' | 'leader_id' | 'release_id' | 'bait_id' | 'scent_id' | 'snubber_id'
type Measured = 'leader_m' | 'setback_m' | 'weight_kg' | 'weight_ahead_m' | 'drop_m' | 'above_ball_m' | 'slider_kg'

const line = computed(() => props.outfit.lines.find((item) => item.id === props.setup.line_id))
interface Named {
  id: string
  name: string
}
const named = ({ id, name }: Named) => ({ value: id, title: name })
/** A choice that may be none; left out altogether where there is nothing to choose from. */
const optional = (key: Choice, label: string, items: Named[] | undefined) =>
  items?.length ? [{ key, label, items: [{ value: '', title: 'none said' }, ...items.map(named)] }] : []
const towPoints = computed(() => props.outfit.attractors.find((item) => item.id === props.setup.attractor_id)?.tow_points ?? [])
const choices = computed(() => [
  { key: 'place_id' as Choice, label: 'stands at', items: props.outfit.places.map(named) },
  { key: 'line_id' as Choice, label: 'line', items: props.outfit.lines.map(named) },
  ...(props.setup.attractor_id ? optional('leader_id', 'leader', props.outfit.leaders) : []),
  ...(line.value?.kind === 'downrigger' ? optional('release_id', 'release', props.outfit.releases) : []),
  ...(props.setup.attractor_id && props.outfit.snubbers?.length
    ? optional('snubber_id', 'snubber ahead of it', props.outfit.snubbers)
    : []),
  ...optional('bait_id', 'bait', props.outfit.baits),
  ...optional('scent_id', 'scent', props.outfit.scents),
])
/** Lure and attractor are chosen from the box as they look, not from a list of names. */
const worn = computed(() => {
  const lure = props.outfit.lures.find((item) => item.id === props.setup.lure_id)
  const blade = props.outfit.attractors.find((item) => item.id === props.setup.attractor_id)
  return [
    { piece: 'lure' as const, name: lure ? `${lure.name}, ${lure.colour}` : 'none' },
    { piece: 'attractor' as const, name: blade?.name ?? 'none' },
  ]
})
const measures = computed(() => {
  const fields: { key: Measured; label: string; kind: 'short' | 'long' | 'weight' }[] = []
  if (props.setup.attractor_id) fields.push({ key: 'leader_m', label: 'leader', kind: 'short' })
  if (line.value?.kind === 'downrigger') {
    fields.push({ key: 'setback_m', label: 'setback', kind: 'long' }, { key: 'above_ball_m', label: 'clip above ball', kind: 'long' })
    if ((props.setup.above_ball_m ?? 0) > 0) fields.push({ key: 'slider_kg', label: 'own slider weight', kind: 'weight' })
  } else {
    fields.push({ key: 'weight_kg', label: 'weight on the line', kind: 'weight' })
    if ((props.setup.weight_kg ?? 0) > 0) {
      fields.push(
        { key: 'weight_ahead_m', label: 'weight ahead by', kind: 'long' },
        { key: 'drop_m', label: 'on a drop line', kind: 'short' },
      )
    }
  }
  return fields
})

function choose(key: Choice, id: string): void {
  const next: RodSetup = { ...props.setup, [key]: id === '' ? null : id }
  const leader = key === 'leader_id' ? props.outfit.leaders?.find((item) => item.id === id) : undefined
  if (leader) next.leader_m = leader.length_m
  emit('change', next)
}

function type(field: { key: Measured; label: string }, value: Typed): void {
  if (typeof value === 'number') emit('change', { ...props.setup, [field.key]: value })
  else if (value !== null) emit('bad', `${field.label}: “${value}” is no number. Type one, such as 9.`)
}
</script>

<template>
  <div class="fields">
    <div v-for="item in worn" :key="item.piece" class="worn">
      <span class="label">{{ item.piece }}</span>
      <button type="button" :data-test="`choose-${item.piece}`" @click="emit('open', item.piece)">{{ item.name }}</button>
    </div>
    <SelectField
      v-for="choice in choices"
      :key="choice.key"
      :model-value="setup[choice.key] ?? ''"
      :label="choice.label"
      :items="choice.items"
      :test="`choose-${choice.key}`"
      @update:model-value="choose(choice.key, $event ?? '')"
    />
    <SelectField
      v-if="towPoints.length"
      :model-value="setup.tow_point ?? ''"
      label="tow point"
      :items="[{ value: '', title: 'not said' }, ...towPoints.map(({ name }) => ({ value: name, title: name }))]"
      test="choose-tow_point"
      @update:model-value="emit('change', { ...setup, tow_point: $event ?? '' })"
    />
    <NumberField
      v-for="field in measures"
      :key="field.key"
      :model-value="setup[field.key] ?? 0"
      :label="field.label"
      :measure="field.kind"
      :test="`type-${field.key}`"
      @update:model-value="type(field, $event)"
    />
    <label v-if="setup.attractor_id && !outfit.snubbers?.length" class="check">
      <input
        type="checkbox"
        :checked="setup.snubber ?? false"
        data-test="snubber"
        @change="emit('change', { ...setup, snubber: ($event.target as HTMLInputElement).checked })"
      />
      <span class="label">snubber ahead of it</span>
    </label>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: 8px 12px;
}
label {
  display: flex;
  flex-direction: column;
}
.worn {
  display: flex;
  flex-direction: column;
  gap: 2px;
}
input,
button {
  min-height: 44px;
  font-size: 16px;
  font-weight: 600;
  color: var(--ink);
  background: var(--frost);
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 0 8px;
  width: 100%;
}
button {
  text-align: left;
  border-color: var(--ink);
}
.check {
  flex-direction: row;
  align-items: center;
  gap: 8px;
}
.check input {
  width: 28px;
  accent-color: var(--ink);
}
</style>
