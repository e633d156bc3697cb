<script setup lang="ts">
// What aboard could hang on a rod, drawn to one scale: seen, not read off a list. One press puts it on.
import { computed, shallowRef, watch } from 'vue'
import { latestOnly } from '@/shared/core/latest'
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatSpeed } from '@/shared/units/units'
import type { RodSetup, ShelfPiece } from '../api'
import { hooksOf, outlineOf } from '../logic/outlines'
import { useQuestions } from '../questions'

const props = defineProps<{ title: string; setup: RodSetup; piece: ShelfPiece['piece']; colour: string }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ pick: [id: string | null] }>()

const questions = useQuestions()
const display = useDisplayStore()
const pieces = shallowRef<ShelfPiece[] | null>(null)
const problem = shallowRef<string | null>(null)
const find = latestOnly(
  (setup: RodSetup) => questions.shelf(setup),
  (answer) => {
    pieces.value = answer
    problem.value = null
  },
  (error) => (problem.value = describeError(error, display.units)),
)
watch(open, (now) => now && find(props.setup), { immediate: true })

const WIDE = 150
const TALL = 36
const shown = computed(() => pieces.value?.filter((item) => item.piece === props.piece && (item.is_on || item.free > 0)) ?? [])
/** One scale for all, so that long looks long: the longest fills its place. */
const scale = computed(() => (WIDE - 20) / Math.max(...shown.value.map((item) => item.length_m), 0.05))
const long = (item: ShelfPiece): number => Math.max(item.length_m * scale.value, 8)
const outline = (item: ShelfPiece) =>
  outlineOf(item.outline, long(item), Math.min(Math.max(item.width_m * scale.value, 4), TALL - 8), item.lip)
const works = ({ works }: ShelfPiece): string =>
  `${formatSpeed(works.low_mps, display.units, false)}–${formatSpeed(works.high_mps, display.units)}`

function pick(id: string | null): void {
  open.value = false
  emit('pick', id)
}
</script>

<template>
  <EntrySheet v-model="open" :title="title" data-test="shelf">
    <v-card-text>
      <ErrorNote :text="problem" />
      <ul class="shelf">
        <li v-if="piece === 'attractor'">
          <button type="button" class="piece" :class="{ on: !setup.attractor_id }" data-test="pick-none" @click="pick(null)">
            <svg :width="WIDE" :height="TALL" aria-hidden="true"><line x1="0" :x2="WIDE" :y1="TALL / 2" :y2="TALL / 2" class="bare" /></svg>
            <span><b>None</b> <small class="label">the lure alone</small></span>
          </button>
        </li>
        <li v-for="item in shown" :key="item.id">
          <button
            type="button"
            class="piece"
            :class="{ on: item.is_on }"
            :aria-pressed="item.is_on"
            :data-test="`pick-${item.id}`"
            @click="pick(item.id)"
          >
            <svg :width="WIDE" :height="TALL" aria-hidden="true">
              <line :x1="8 + long(item)" :x2="WIDE" :y1="TALL / 2" :y2="TALL / 2" class="bare" />
              <g :transform="`translate(8 ${TALL / 2})`">
                <path :d="outline(item).body" class="body" :fill="item.piece === 'lure' ? colour : 'var(--frost)'" />
                <path :d="outline(item).strokes" class="strokes" />
                <path v-if="item.hook" :d="hooksOf(item.hook, (item.hook_from_tail_m ?? 0) * scale, long(item))" class="strokes" />
              </g>
            </svg>
            <span>
              <b>{{ item.name }}</b>
              <small class="label"
                >{{ works(item) }}<template v-if="!item.at_speed">, not at this speed</template
                ><template v-if="item.is_on">, on it now</template></small
              >
            </span>
          </button>
        </li>
      </ul>
      <p v-if="pieces && !shown.length" class="label">All that is aboard is out.</p>
    </v-card-text>
  </EntrySheet>
</template>

<style scoped>
.shelf {
  list-style: none;
  margin: 0;
  padding: 0;
}
.piece {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 12px;
  align-items: center;
  width: 100%;
  min-height: 56px;
  padding: 4px 6px;
  text-align: left;
  color: var(--ink);
  border-bottom: 1px solid var(--line);
}
.piece.on {
  background: var(--water);
  box-shadow: inset 4px 0 var(--ink);
}
svg {
  overflow: visible;
}
small {
  display: block;
}
/* On a phone two beside each other, so that the likest are all in sight. */
@media (max-width: 700px) {
  .shelf {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0 6px;
  }
  .piece {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
    font-size: 13px;
    line-height: 1.15;
  }
}
.bare,
.strokes {
  stroke: var(--ink);
  stroke-width: 1.3;
  fill: none;
}
.body {
  stroke: var(--ink);
  stroke-width: 1.3;
}
</style>
