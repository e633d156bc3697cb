<script setup lang="ts">
// The tackle locker: found by a word, counted aboard by a tap, changed at the side.
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { latestOnly } from '@/shared/core/latest'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed } from '@/shared/units/units'
import {
  addStarter,
  deletePiece,
  duplicatePiece,
  getCatalogue,
  listPieces,
  retirePiece,
  setAboard,
  type BoatRow,
  type Catalogue,
  type Piece,
  type PieceKind,
  type Properties,
} from '../api'
import { KIND_TITLES } from '../logic/fields'
import ImportPanel from './ImportPanel.vue'
import LineTable from './LineTable.vue'
import PieceForm from './PieceForm.vue'
import SelectField from '@/shared/ui/SelectField.vue'

const props = defineProps<{ boats: BoatRow[] }>()

const display = useDisplayStore()
const search = ref('')
const kind = ref<PieceKind>('lure')
const retired = ref(false)
const boatId = ref<number | null>(null)
const pieces = shallowRef<Piece[]>([])
/** Of which kind they are: while another is asked for, no tap is meant for all of them. */
const listed = ref('')
const total = ref(0)
const loaded = ref(false)
const catalogue = shallowRef<Catalogue | null>(null)
const side = ref<{ what: 'form'; piece: Piece | null } | { what: 'import' } | null>(null)
const problem = ref<string | null>(null)
const KINDS = Object.keys(KIND_TITLES) as PieceKind[]
/** The boat chosen, or the one with most rods: that is the one most tackle is counted for. */
const boat = computed(
  () => props.boats.find((item) => item.id === boatId.value) ?? [...props.boats].sort((a, b) => b.boat.rods.length - a.boat.rods.length)[0],
)
const FASTEST_MPS = 2.2352

const load = latestOnly(
  async (query: { search: string; kind: string; retired: string }) => ({ ...(await listPieces(query)), kind: query.kind }),
  (answer) => {
    pieces.value = answer.pieces
    listed.value = answer.kind
    total.value = answer.total
    loaded.value = true
  },
  (error) => (problem.value = describeError(error, display.units)),
)
const reload = (): void => load({ search: search.value, kind: kind.value, retired: retired.value ? 'yes' : '' })
watch([search, kind, retired], reload, { immediate: true })
onMounted(async () => {
  try {
    catalogue.value = await getCatalogue()
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
})

async function act(what: () => Promise<unknown>): Promise<void> {
  problem.value = null
  try {
    await what()
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
  reload()
}

const aboard = (piece: Piece): number => piece.aboard.find((row) => row.outfit_id === boat.value?.id)?.count ?? 0
async function count(piece: Piece, change: number): Promise<void> {
  if (!boat.value) return
  const next = Math.min(99, Math.max(0, aboard(piece) + change))
  const boatNow = boat.value.id
  await act(() => setAboard(boatNow, piece.id, next))
}
/** A boat that has nothing of this kind aboard yet: one tap counts one of each. */
const noneAboard = computed(
  () =>
    boat.value !== undefined &&
    !retired.value &&
    listed.value === kind.value &&
    pieces.value.length > 0 &&
    pieces.value.every((piece) => aboard(piece) === 0),
)
async function oneOfEach(): Promise<void> {
  const boatNow = boat.value!.id
  await act(async () => {
    for (const piece of pieces.value) await setAboard(boatNow, piece.id, 1)
  })
}
function saved(piece: Piece): void {
  side.value = { what: 'form', piece }
  reload()
}
async function duplicate(piece: Piece): Promise<void> {
  await act(async () => (side.value = { what: 'form', piece: await duplicatePiece(piece.id) }))
}

/** Deleting cannot be undone: it takes a second tap. */
const deleting = ref<number | null>(null)
async function deleteTwice(piece: Piece): Promise<void> {
  if (deleting.value !== piece.id) {
    deleting.value = piece.id
    return
  }
  deleting.value = null
  await act(() => deletePiece(piece.id).then(() => (side.value = null)))
}

const of = (piece: Piece): Properties => piece.properties as unknown as Properties
const words = (piece: Piece): string => String(of(piece).colour ?? of(piece).finish ?? '')
interface Range {
  low_mps: number
  high_mps: number
}
/** Its own range where it was seen, else the catalogue's. */
function works(piece: Piece): (Range & { own: boolean }) | null {
  const own = (of(piece).own as { works: Range; tow_point: string }[] | undefined)?.find((item) => item.tow_point === '')
  if (own) return { ...own.works, own: true }
  const range = of(piece).works as Range | undefined
  return range ? { ...range, own: false } : null
}
const bar = (range: Range): Record<string, string> => ({
  left: `${Math.min(100, (range.low_mps / FASTEST_MPS) * 100)}%`,
  width: `${Math.max(2, (Math.min(1, range.high_mps / FASTEST_MPS) - range.low_mps / FASTEST_MPS) * 100)}%`,
})
</script>

<template>
  <div class="tackle" :class="{ open: side }">
    <section class="list">
      <div class="controls">
        <input
          v-model="search"
          class="search"
          type="search"
          placeholder="Find by name, colour or kind"
          aria-label="Find tackle"
          data-test="locker-search"
        />
        <SelectField
          v-if="boats.length"
          class="boat"
          :model-value="boat?.id ?? null"
          label="aboard"
          :items="boats.map((item) => ({ value: item.id, title: item.boat.boat_name }))"
          test="aboard-boat"
          @update:model-value="boatId = $event"
        />
        <v-btn class="big" data-test="new-piece" @click="side = { what: 'form', piece: null }">New</v-btn>
        <v-btn class="big" data-test="open-import" @click="side = { what: 'import' }">From CSV</v-btn>
        <a class="big link" :href="`/api/locker/pieces.csv${boat ? `?outfit_id=${boat.id}` : ''}`" download>Save as CSV</a>
      </div>
      <div class="kinds" role="group" aria-label="Kind">
        <button
          v-for="item in KINDS"
          :key="item"
          class="kind"
          :class="{ on: kind === item }"
          :data-test="`kind-${item}`"
          @click="kind = item"
        >
          {{ KIND_TITLES[item] }}
        </button>
        <button class="kind" :class="{ on: retired }" data-test="show-retired" @click="retired = !retired">retired ones</button>
      </div>
      <p v-if="problem" class="error" role="alert" data-test="locker-error">{{ problem }}</p>
      <div v-if="loaded && !total && !search && !retired" class="empty">
        <p>
          No {{ KIND_TITLES[kind].toLowerCase() }} yet. Begin with the starter locker, some eighty generic pieces, and change what differs.
        </p>
        <v-btn class="big solid" data-test="starter" @click="act(() => addStarter(boat?.id))"
          >Put the starter locker in{{ boat ? `, aboard ${boat.boat.boat_name}` : '' }}</v-btn
        >
      </div>
      <p v-else-if="loaded && !total" class="empty">
        Nothing of that name among the {{ retired ? 'retired ' : '' }}{{ KIND_TITLES[kind].toLowerCase() }}.
      </p>
      <p v-else-if="total > pieces.length" class="label">{{ pieces.length }} of {{ total }} shown: search for the rest.</p>
      <p v-if="noneAboard" class="none-aboard">
        None of these is aboard {{ boat!.boat.boat_name }} yet.
        <v-btn class="big" data-test="one-of-each" @click="oneOfEach">Count one of each aboard</v-btn>
      </p>
      <ul>
        <li v-for="piece in pieces" :key="piece.id" :data-test="`piece-${piece.key}`">
          <button class="name" @click="side = { what: 'form', piece }">
            <strong>{{ piece.name }}</strong>
            <span class="label">{{ words(piece) }}</span>
          </button>
          <span v-if="works(piece)" class="works" :title="works(piece)!.own ? 'seen beside the boat' : 'as listed'">
            <span class="axis"><span class="range" :class="{ own: works(piece)!.own }" :style="bar(works(piece)!)" /></span>
            <span class="label"
              >{{ formatSpeed(works(piece)!.low_mps, display.units, false) }}–{{ formatSpeed(works(piece)!.high_mps, display.units)
              }}{{ works(piece)!.own ? ', own' : '' }}</span
            >
          </span>
          <span v-if="boat && !retired" class="count">
            <button :aria-label="`One ${piece.name} fewer aboard`" :data-test="`less-${piece.key}`" @click="count(piece, -1)">−</button>
            <strong :class="{ none: !aboard(piece) }">{{ aboard(piece) }}</strong>
            <button :aria-label="`One ${piece.name} more aboard`" :data-test="`more-${piece.key}`" @click="count(piece, 1)">+</button>
          </span>
        </li>
      </ul>
      <LineTable v-if="(kind === 'line' || kind === 'leader') && catalogue" :materials="catalogue.materials" />
    </section>
    <aside v-if="side" class="side">
      <PieceForm
        v-if="side.what === 'form'"
        :piece="side.piece"
        :kind="side.piece?.kind ?? kind"
        :catalogue="catalogue"
        @saved="saved"
        @close="side = null"
      >
        <div v-if="side.piece" class="acts">
          <button type="button" class="plain" data-test="duplicate" @click="duplicate(side.piece)">Duplicate</button>
          <button
            type="button"
            class="plain"
            data-test="retire"
            @click="
              act(() => retirePiece((side as { piece: Piece }).piece.id, !(side as { piece: Piece }).piece.is_retired)).then(
                () => (side = null),
              )
            "
          >
            {{ side.piece.is_retired ? 'Take up again' : 'Retire' }}
          </button>
          <button type="button" class="plain" data-test="delete" @click="deleteTwice(side.piece)">
            {{ deleting === side.piece.id ? 'Delete it for good?' : 'Delete' }}
          </button>
        </div>
      </PieceForm>
      <template v-else>
        <ImportPanel :outfit-id="boat?.id" @imported="reload" />
        <button class="plain" @click="side = null">Close</button>
      </template>
    </aside>
  </div>
</template>

<style scoped>
.tackle {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  align-items: start;
}
.tackle.open {
  grid-template-columns: minmax(0, 1fr) minmax(340px, 440px);
}
.list {
  background: var(--frost);
  padding: 10px;
}
.controls,
.kinds,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}
.search {
  flex: 1;
  min-width: 200px;
}
.boat {
  display: flex;
  gap: 6px;
  align-items: center;
}
.kinds {
  padding: 8px 0;
  gap: 4px;
}
.kind {
  min-height: 44px;
  padding: 0 12px;
  border: 1px solid var(--line);
  border-radius: 4px;
  font-weight: 620;
}
.kind.on {
  background: var(--ink);
  color: var(--frost);
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 190px auto;
  gap: 12px;
  align-items: center;
  min-height: 52px;
  border-top: 1px solid var(--line);
}
.name {
  text-align: left;
  min-height: 44px;
  display: flex;
  flex-direction: column;
  justify-content: center;
}
.axis {
  position: relative;
  display: block;
  height: 8px;
  background: var(--frost-2);
  border: 1px solid var(--line);
  border-radius: 4px;
}
.range {
  position: absolute;
  top: 0;
  bottom: 0;
  background: var(--ink-2);
  border-radius: 3px;
}
.range.own {
  background: var(--ink);
}
.count {
  display: flex;
  align-items: center;
  grid-column: 3;
}
.count button {
  width: 44px;
  height: 44px;
  border: 1px solid var(--line);
  border-radius: 4px;
  font-size: 20px;
}
.count strong {
  width: 34px;
  text-align: center;
  font-size: 18px;
}
.count .none {
  color: var(--ink-2);
  font-weight: 400;
}
.side {
  position: sticky;
  top: 6px;
  max-height: calc(100vh - 12px);
  overflow: auto;
}
.none-aboard {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 8px 0;
}
.empty {
  padding: 16px 0;
  display: grid;
  gap: 10px;
  justify-items: start;
}
.link {
  display: inline-flex;
  align-items: center;
  color: var(--ink);
  font-weight: 620;
}
@media (max-width: 900px) {
  .tackle.open {
    grid-template-columns: minmax(0, 1fr);
  }
  .open .list {
    display: none;
  }
  .side {
    position: static;
    max-height: none;
  }
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .works {
    grid-row: 2;
    grid-column: 1 / -1;
    padding-bottom: 6px;
  }
  .count {
    grid-column: 2;
  }
}
</style>
