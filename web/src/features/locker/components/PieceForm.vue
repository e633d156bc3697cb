<script setup lang="ts">
// One piece of tackle: its properties typed in the reader's units, kept as SI.
import { computed, ref, watch } from 'vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { CoreError } from '@/shared/core/protocol'
import { addPiece, changePiece, type Catalogue, type Piece, type PieceKind, type Properties } from '../api'
import NumberField from '@/shared/ui/NumberField.vue'
import SelectField from '@/shared/ui/SelectField.vue'
import { settled as settle, shownIn, type Typed } from '@/shared/units/measures'
import { blank, fieldsOf, get, KIND_TITLES, put, type Field } from '../logic/fields'
import DivePoints from './DivePoints.vue'
import TowPoints from './TowPoints.vue'

const props = defineProps<{ piece: Piece | null; kind: PieceKind; catalogue: Catalogue | null }>()
const emit = defineEmits<{ saved: [piece: Piece]; close: [] }>()

const display = useDisplayStore()
const draft = ref<Properties>({})
const problem = ref<{ field: string; text: string } | null>(null)
const saving = ref(false)

watch(
  () => [props.piece?.id, props.kind],
  () => {
    const before = props.piece?.properties as Properties | undefined
    draft.value = before ? put(before, 'id', undefined) : blank(props.kind)
    problem.value = null
  },
  { immediate: true },
)

const fields = computed(() => fieldsOf(props.kind, draft.value))
const plugs = computed(() => [
  { value: '', title: 'choose by size and lip' },
  ...((props.catalogue?.plugs ?? []) as unknown as { id: string; name: string }[]).map(({ id, name }) => ({ value: id, title: name })),
])
const isPlug = computed(() => props.kind === 'lure' && draft.value.kind === 'plug')
const materials = (field: Field) =>
  (props.catalogue?.materials ?? [])
    .filter((item) => !item.is_cable && item.has_core === (field.cored ?? false))
    .map((item) => ({ value: item.id, title: item.name }))
const own = computed(() => (draft.value.own as { works: { low_mps: number; high_mps: number }; tow_point: string }[] | undefined) ?? [])

const typed = (field: Field): Typed => (get(draft.value, field.path) as Typed | undefined) ?? null
function change(path: string, value: unknown): void {
  draft.value = put(draft.value, path, value)
}

function fromCatalogue(id: string): void {
  const plug = (props.catalogue?.plugs as unknown as Properties[] | undefined)?.find((item) => item.id === id)
  if (!plug) return
  draft.value = { ...put(plug, 'id', undefined), hook: 'two_trebles' }
}

/** What is typed, when every number in it is one; the first that is none is named. */
function settled(): Properties | null {
  for (const field of fields.value) {
    const value = field.type === 'number' ? typed(field) : null
    if (value === null) continue
    try {
      settle(value, field.label)
    } catch (error) {
      problem.value = { field: field.path, text: (error as Error).message }
      return null
    }
  }
  return draft.value
}

async function save(): Promise<void> {
  problem.value = null
  const properties = settled()
  if (!properties) return
  saving.value = true
  try {
    const saved = props.piece ? await changePiece(props.piece.id, props.kind, properties) : await addPiece(props.kind, properties)
    emit('saved', saved)
  } catch (error) {
    const path = error instanceof CoreError ? error.field.replace(/^properties\./, '') : ''
    const field = fields.value.find((item) => item.path === path || item.path.startsWith(`${path}.`))
    problem.value = { field: field?.path ?? path, text: describeError(error, display.units, field?.label) }
  } finally {
    saving.value = false
  }
}
</script>

<template>
  <form class="piece" data-test="piece-form" @submit.prevent="save">
    <header>
      <h2>{{ piece ? piece.name : `New: ${KIND_TITLES[kind].toLowerCase().replace(/s$/, '')}` }}</h2>
      <button type="button" class="plain" @click="emit('close')">Close</button>
    </header>
    <SelectField
      v-if="isPlug && !piece"
      :model-value="''"
      label="begin with a generic plug"
      :items="plugs"
      test="plug-catalogue"
      @update:model-value="fromCatalogue($event ?? '')"
    />
    <div class="grid">
      <template v-for="field in fields.filter((item) => item.type !== 'flag')" :key="field.path">
        <NumberField
          v-if="field.type === 'number'"
          :model-value="typed(field)"
          :label="field.label"
          :measure="field.measure!"
          :placeholder="field.optional ? 'usual' : ''"
          :bad="problem?.field === field.path"
          :test="`field-${field.path}`"
          @update:model-value="change(field.path, $event ?? undefined)"
        />
        <label v-else-if="field.type === 'text'" class="field" :class="{ bad: problem?.field === field.path }">
          <span class="label">{{ field.label }}</span>
          <input
            :value="String(get(draft, field.path) ?? '')"
            maxlength="60"
            :data-test="`field-${field.path}`"
            @input="change(field.path, ($event.target as HTMLInputElement).value)"
          />
        </label>
        <SelectField
          v-else
          :model-value="String(get(draft, field.path) ?? '')"
          :label="field.label"
          :items="field.type === 'choice' ? field.options! : materials(field)"
          :bad="problem?.field === field.path"
          :test="`field-${field.path}`"
          @update:model-value="change(field.path, $event)"
        />
      </template>
    </div>
    <div class="flags">
      <label v-for="field in fields.filter((item) => item.type === 'flag')" :key="field.path" class="flag">
        <input
          type="checkbox"
          :checked="get(draft, field.path) === true"
          :data-test="`field-${field.path}`"
          @change="change(field.path, ($event.target as HTMLInputElement).checked)"
        />
        {{ field.label }}
      </label>
    </div>
    <DivePoints
      v-if="isPlug"
      :points="(draft.points as never) ?? []"
      :materials="catalogue?.materials ?? []"
      @change="change('points', $event.length ? $event : undefined)"
    />
    <TowPoints
      v-if="kind === 'attractor' && draft.style === 'tow_points'"
      :points="(draft.tow_points as never) ?? []"
      @change="change('tow_points', $event.length ? $event : undefined)"
    />
    <p v-for="item in own" :key="item.tow_point" class="label" data-test="own-range">
      Seen beside the boat: {{ shownIn(item.works.low_mps, 'speed', display.units) }}–{{
        shownIn(item.works.high_mps, 'speed', display.units)
      }}
      {{ display.units.speed }}{{ item.tow_point ? `, ${item.tow_point}` : '' }}. It goes before the figures above.
      <button
        type="button"
        class="plain"
        @click="
          change(
            'own',
            own.filter((other) => other !== item),
          )
        "
      >
        Forget it
      </button>
    </p>
    <p v-if="problem" class="error" role="alert" data-test="piece-error">{{ problem.text }} Nothing was lost: mend it and save again.</p>
    <footer>
      <v-btn type="submit" class="solid" :disabled="saving" data-test="save-piece">Save</v-btn>
      <slot />
    </footer>
  </form>
</template>

<style scoped>
.piece {
  display: flex;
  flex-direction: column;
  gap: 10px;
  background: var(--frost);
  padding: 12px;
}
header {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 8px 12px;
}
.field {
  display: flex;
  flex-direction: column;
  gap: 2px;
}
.flags {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
}
.flag {
  display: flex;
  gap: 8px;
  align-items: center;
}
footer {
  position: sticky;
  bottom: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
  align-items: center;
  padding: 8px 0;
  background: var(--frost);
  border-top: 1px solid var(--line);
}
.bad input,
.bad select {
  border-color: var(--now);
  border-width: 2px;
}
</style>
