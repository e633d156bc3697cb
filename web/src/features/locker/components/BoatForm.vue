<script setup lang="ts">
// A boat: its rods, and the places where they stand, port to starboard.
import { computed, ref, watch } from 'vue'
import BoatAbove from '@/features/trip/components/BoatAbove.vue'
import RodShape from '@/features/trip/components/RodShape.vue'
import { CoreError } from '@/shared/core/protocol'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import SelectField from '@/shared/ui/SelectField.vue'
import { describeError } from '@/shared/units/describe'
import { settled, type Typed } from '@/shared/units/measures'
import { useDisplayStore } from '@/shared/units/store'
import { addBoat, changeBoat, type Boat, type BoatRow, type Catalogue, type Place, type Rod } from '../api'

const props = defineProps<{ boat: BoatRow | null; catalogue: Catalogue | null }>()
const emit = defineEmits<{ saved: [boat: BoatRow] }>()

interface PlaceRow {
  id: string
  name: string
  kind: Place['kind']
  side: 'port' | 'starboard'
  out: Typed
  height: Typed
  aft: Typed
  cable: string
  cableLength: Typed
  ball: Typed
  shape: NonNullable<Place['ball_shape']>
}
const SHAPES: Rod['shape'][] = ['circle', 'triangle', 'square', 'diamond', 'pentagon', 'star', 'hexagon', 'cross']
const PLACE_KINDS = [
  { value: 'holder', title: 'rod holder' },
  { value: 'downrigger', title: 'downrigger' },
  { value: 'board', title: 'planer board clip' },
] as const
const SIDES = (['port', 'starboard'] as const).map((value) => ({ value, title: value }))
const BALL_SHAPES = [
  { value: 'round', title: 'round' },
  { value: 'torpedo', title: 'torpedo' },
  { value: 'disc', title: 'disc or pancake' },
] as const

const display = useDisplayStore()
const name = ref('')
const length = ref<Typed>(null)
const rods = ref<Rod[]>([])
const places = ref<PlaceRow[]>([])
const sounder = ref<{ depth: Typed; ahead: Typed; cone: Typed }>({ depth: null, ahead: null, cone: null })
const problem = ref<string | null>(null)
/** The boat it was begun from. */
const preset = ref<string | null>(null)
const chosen = ref<string | null>(null)
const saving = ref(false)

const cables = computed(() =>
  (props.catalogue?.materials ?? []).filter((item) => item.is_cable).map((item) => ({ value: item.id, title: item.name })),
)
const usual = (kind: Place['kind']): Place | undefined => props.catalogue?.places.find((place) => place.kind === kind)

function rowOf(place: Place): PlaceRow {
  return {
    id: place.id,
    name: place.name,
    kind: place.kind,
    side: place.side_m < 0 ? 'port' : 'starboard',
    out: Math.abs(place.side_m),
    height: place.tip_height_m,
    aft: place.aft_m ?? 0,
    // What a downrigger usually has is the core's to say (the catalogue): it waits for the kind to be one.
    cable: place.cable_material_id ?? usual('downrigger')?.cable_material_id ?? '',
    cableLength: place.cable_length_m || usual('downrigger')?.cable_length_m || null,
    ball: place.ball_kg || usual('downrigger')?.ball_kg || null,
    shape: place.ball_shape ?? 'round',
  }
}
watch(
  () => [props.boat?.id, props.catalogue !== null],
  () => {
    if (!props.catalogue) return
    const boat = props.boat?.boat
    name.value = boat?.boat_name ?? ''
    length.value = boat?.boat_length_m ?? null
    rods.value = boat ? boat.rods.map((rod) => ({ ...rod })) : []
    places.value = boat ? boat.places.map(rowOf) : []
    // Where most are mounted is the core's to say, until the user does.
    const seen = boat?.sounder ?? props.catalogue.sounder
    sounder.value = { depth: seen.depth_m ?? null, ahead: seen.ahead_m ?? null, cone: seen.cone_deg ?? null }
    problem.value = null
    preset.value = null
    if (!boat) {
      for (let rod = 0; rod < 2; rod += 1) {
        addRod()
        addPlace('holder')
      }
    }
  },
  { immediate: true },
)

/** All of it is there to be changed. */
function beginFrom(boatName: string | null): void {
  const boat = props.catalogue?.boats.find((item) => item.boat_name === boatName)
  if (!boat) return
  preset.value = boatName
  name.value = boat.boat_name
  length.value = boat.boat_length_m
  rods.value = boat.rods.map((rod) => ({ ...rod }))
  places.value = boat.places.map(rowOf)
  sounder.value = { depth: boat.sounder!.depth_m ?? null, ahead: boat.sounder!.ahead_m ?? null, cone: boat.sounder!.cone_deg ?? null }
}

/** What the drawing shows: only places whose numbers can be read. */
const drawn = computed(() =>
  places.value.flatMap(({ id, name: title, kind, side, out, aft }) =>
    typeof out === 'number' && typeof aft === 'number' ? [{ id, name: title, kind, side_m: side === 'port' ? -out : out, aft_m: aft }] : [],
  ),
)
const current = computed(() => places.value.find((place) => place.id === chosen.value) ?? places.value[0])
function movePlace(id: string, sideM: number, aftM: number): void {
  const place = places.value.find((item) => item.id === id)
  if (!place) return
  place.side = sideM < 0 ? 'port' : 'starboard'
  place.out = Math.abs(sideM)
  place.aft = aftM
}

function fresh(prefix: string, taken: string[]): string {
  let number = 1
  while (taken.includes(`${prefix}-${number}`)) number += 1
  return `${prefix}-${number}`
}
function addRod(): void {
  const id = fresh(
    'rod',
    rods.value.map((rod) => rod.id),
  )
  rods.value.push({ id, name: `Rod ${id.split('-')[1]}`, shape: SHAPES[rods.value.length % SHAPES.length]! })
}
/** A place where most boats have one; the user says where it really is. */
function addPlace(kind: Place['kind']): void {
  const taken = places.value.map((place) => place.id)
  const side = places.value.filter((place) => place.side === 'port').length > places.value.length / 2 ? 'starboard' : 'port'
  const like = usual(kind)!
  chosen.value = fresh(kind, taken)
  places.value.push(
    rowOf({ ...like, id: fresh(kind, taken), name: `${side} ${like.name}`, side_m: (side === 'port' ? -1 : 1) * Math.abs(like.side_m) }),
  )
}

function placeOf(row: PlaceRow): Place {
  const at = row.name || 'a place'
  const out = settled(row.out, `${at}, out from the middle`)
  const place: Place = {
    id: row.id,
    name: row.name,
    kind: row.kind,
    side_m: row.side === 'port' ? -out : out,
    tip_height_m: settled(row.height, `${at}, height`),
    aft_m: settled(row.aft, `${at}, behind the transom`),
  }
  if (row.kind !== 'downrigger') return place
  return {
    ...place,
    cable_material_id: row.cable,
    cable_length_m: settled(row.cableLength, `${at}, cable`),
    ball_kg: settled(row.ball, `${at}, ball`),
    ball_shape: row.shape,
  }
}

/** Which row an error of the server is about, by its name. */
function said(error: unknown): string {
  const at = error instanceof CoreError ? /^places\[(\d+)\]/.exec(error.field)?.[1] : undefined
  const place = at === undefined ? undefined : places.value[Number(at)]
  if (place) chosen.value = place.id
  return `${place ? `${place.name}: ` : ''}${describeError(error, display.units)}`
}
async function save(): Promise<void> {
  problem.value = null
  saving.value = true
  try {
    const body: Boat = {
      boat_name: name.value,
      boat_length_m: settled(length.value, 'Length of the boat'),
      rods: rods.value,
      places: places.value.map(placeOf),
      sounder: {
        depth_m: settled(sounder.value.depth, 'Transducer, below the water'),
        ahead_m: settled(sounder.value.ahead, 'Transducer, ahead of the transom'),
        cone_deg: settled(sounder.value.cone, 'Cone of the sonar'),
      },
    }
    emit('saved', props.boat ? await changeBoat(props.boat.id, body) : await addBoat(body))
  } catch (error) {
    problem.value = said(error)
  } finally {
    saving.value = false
  }
}
</script>

<template>
  <form class="boat-form" data-test="boat-form" @submit.prevent="save">
    <ChoiceRow
      v-if="!boat && catalogue"
      :model-value="preset"
      label="begin from one like yours"
      :options="catalogue.boats.map((item) => ({ value: item.boat_name, title: item.boat_name, note: `${item.rods.length} rods` }))"
      test="preset"
      @update:model-value="beginFrom"
    />
    <div class="head">
      <label class="field"><span class="label">boat</span><input v-model="name" maxlength="120" data-test="boat-name" /></label>
      <NumberField v-model="length" class="field" label="length" measure="long" test="boat-length" />
    </div>
    <h2>Where rods stand</h2>
    <p class="label">Drag each to its place; the transom is the line at the stern. What is chosen is named beside.</p>
    <div class="deck">
      <BoatAbove
        v-if="typeof length === 'number'"
        class="drawing"
        movable
        :length-m="length"
        :places="drawn"
        :selected="current?.id ?? null"
        data-test="boat-above"
        @select="chosen = $event"
        @move="movePlace"
      />
      <p v-else class="drawing label">Type the boat's length, and it is drawn.</p>
      <div class="beside">
        <div class="picker" role="group" aria-label="Places">
          <button
            v-for="place in places"
            :key="place.id"
            type="button"
            class="pick"
            :class="{ chosen: place.id === current?.id }"
            :data-test="`pick-${place.id}`"
            @click="chosen = place.id"
          >
            {{ place.name || 'unnamed' }}
          </button>
        </div>
        <div v-if="current" :key="current.id" class="place" :data-test="`place-${current.id}`">
          <label class="field wide"><span class="label">name</span><input v-model="current.name" maxlength="60" /></label>
          <SelectField v-model="current.kind" label="kind" :items="PLACE_KINDS" :test="`place-kind-${current.id}`" />
          <SelectField v-model="current.side" label="side" :items="SIDES" />
          <NumberField
            v-model="current.out"
            :label="current.kind === 'board' ? 'clip out' : 'tip out'"
            measure="long"
            :test="`place-out-${current.id}`"
          />
          <NumberField v-model="current.height" label="high" measure="long" :test="`place-height-${current.id}`" />
          <NumberField v-model="current.aft" label="behind transom" measure="long" />
          <template v-if="current.kind === 'downrigger'">
            <SelectField v-model="current.cable" label="cable" :items="cables" />
            <NumberField v-model="current.cableLength" label="cable" measure="long" />
            <NumberField v-model="current.ball" label="ball" measure="ball" :test="`place-ball-${current.id}`" />
            <SelectField v-model="current.shape" label="its shape" :items="BALL_SHAPES" :test="`place-shape-${current.id}`" />
          </template>
          <button v-if="places.length > 1" type="button" class="plain" @click="places.splice(places.indexOf(current), 1)">Remove</button>
        </div>
        <div class="acts">
          <button type="button" class="plain" data-test="add-holder" @click="addPlace('holder')">Add a holder</button>
          <button type="button" class="plain" data-test="add-rigger" @click="addPlace('downrigger')">Add a downrigger</button>
          <button type="button" class="plain" data-test="add-board" @click="addPlace('board')">Add a board clip</button>
        </div>
      </div>
    </div>
    <h2>Rods</h2>
    <div class="rods">
      <div v-for="(rod, index) in rods" :key="rod.id" class="rod">
        <RodShape :shape="rod.shape" :index="index" :size="24" />
        <input v-model="rod.name" maxlength="60" :aria-label="`Name of rod ${index + 1}`" />
        <SelectField
          v-model="rod.shape"
          :label="`Mark of rod ${index + 1}`"
          silent
          :items="SHAPES.map((shape) => ({ value: shape, title: shape }))"
        />
        <button v-if="rods.length > 1" type="button" class="plain" @click="rods.splice(index, 1)">Remove</button>
      </div>
    </div>
    <button type="button" class="plain" data-test="add-rod" @click="addRod">Add a rod</button>
    <h2>Sonar</h2>
    <div class="place">
      <NumberField v-model="sounder.depth" label="transducer below water" measure="long" test="sounder-depth" />
      <NumberField v-model="sounder.ahead" label="ahead of the transom" measure="long" test="sounder-ahead" />
      <NumberField v-model="sounder.cone" label="cone, across" measure="degrees" test="sounder-cone" />
    </div>
    <p class="label">A ball that trails is seen on a slant, and outside the cone not at all: these say how.</p>
    <p class="label">Never drop a ball, mind fingers when leaning out to clip, and keep a cutter where either hand reaches it.</p>
    <p v-if="problem" class="error" role="alert" data-test="boat-error">{{ problem }} Nothing was lost: mend it and save again.</p>
    <v-btn type="submit" class="solid" :disabled="saving" data-test="save-boat">Save the boat</v-btn>
  </form>
</template>

<style scoped>
.boat-form {
  display: flex;
  flex-direction: column;
  gap: 10px;
  background: var(--frost);
  padding: 12px;
}
h2 {
  font-size: 16px;
  font-weight: 700;
}
.rods {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(330px, 1fr));
  gap: 8px 24px;
}
.rod {
  display: grid;
  grid-template-columns: 26px minmax(0, 1fr) 110px auto;
  gap: 8px;
  align-items: center;
}
.head,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
.head .field {
  flex: 1;
}
.deck {
  display: grid;
  grid-template-columns: minmax(280px, 1fr) minmax(300px, 1.2fr);
  gap: 12px;
}
.drawing {
  height: 420px;
  background: var(--water);
  touch-action: none;
}
.beside {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.picker {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.pick {
  min-height: 44px;
  padding: 0 12px;
  border: 1px solid var(--line);
  border-radius: 4px;
  color: var(--ink);
}
.pick.chosen {
  background: var(--ink);
  color: var(--frost);
}
.place {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(138px, 1fr));
  gap: 6px 10px;
  align-items: end;
}
@media (max-width: 760px) {
  .deck {
    grid-template-columns: minmax(0, 1fr);
  }
}
.field {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
</style>
