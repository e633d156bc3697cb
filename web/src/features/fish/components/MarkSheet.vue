<script setup lang="ts">
// A mark was chosen: which rod is to fish it? It is set just above, by the user's own offset.
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import { computed } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength } from '@/shared/units/units'
import type { FishView } from '@/features/trip/api'
import RodShape from '@/features/trip/components/RodShape.vue'

const props = defineProps<{ view: FishView; eventId: string | null; rodIndex: (id: string) => number }>()
const emit = defineEmits<{ close: []; fish: [rodId: string, depthM: number]; offset: []; school: [school: string] }>()

const SCHOOLS = [
  { value: 'above', title: 'Above: below the fish is useless' },
  { value: 'level', title: 'By the eyes: set low, they feed downward' },
] as const

const display = useDisplayStore()
const mark = computed(() => props.view.marks.find((candidate) => candidate.event_id === props.eventId))
const rods = computed(() => props.view.rods.filter((rod) => rod.setup))
</script>

<template>
  <entry-sheet
    :model-value="mark !== undefined"
    @update:model-value="emit('close')"
    v-if="mark"
    :title="`Mark at ${formatLength(mark.depth_m, display.units)}`"
    data-test="mark-sheet"
  >
    <v-card-text>
      <p>
        A lure for it runs at <strong>{{ formatLength(mark.run_at_m, display.units) }}</strong>,
        <template v-if="view.above_mark_m > 0">{{ formatLength(view.above_mark_m, display.units) }} above.</template>
        <template v-else>level with it, or under.</template>
        <button class="link" @click="emit('offset')">Change that</button>
      </p>
      <ChoiceRow
        :model-value="view.marks_school"
        label="whose way"
        :options="SCHOOLS"
        test="marks-school"
        @update:model-value="emit('school', $event!)"
      />
      <p v-if="mark.cone_m" class="label" data-test="mark-cone">
        The sonar sees {{ formatLength(mark.cone_m, display.units) }} across there; at this speed a fish is in it for up to
        {{ Math.max(Math.round(mark.in_cone_s!), 1) }} s. Length on the screen is that time, not the size of the fish.
      </p>
      <div class="rods">
        <v-btn
          v-for="rod in rods"
          :key="rod.id"
          class="rod"
          :data-test="`fish-mark-${rod.id}`"
          @click="emit('fish', rod.id, mark.run_at_m)"
        >
          <RodShape :shape="rod.shape" :index="rodIndex(rod.id)" :size="20" />&nbsp;{{ rod.name }}
          <span class="label">&nbsp;{{ rod.line ? formatLength(rod.line.depth_m, display.units) : 'in' }}</span>
        </v-btn>
      </div>
    </v-card-text>
  </entry-sheet>
</template>

<style scoped>
.rods {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  margin-top: 10px;
}
.rod {
  --v-btn-height: var(--touch);
}
.link {
  text-decoration: underline;
  min-height: 44px;
  color: var(--ink);
}
</style>
