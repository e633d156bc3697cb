<script setup lang="ts">
// What the last bite was like: filled in from the record, set right by a tap while somebody still knows.
import { DOING } from '@/features/trip/logic/doing'
import { computed } from 'vue'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import { useTripStore } from '@/features/trip/store'
import type { FishView } from '@/features/trip/api'

const props = defineProps<{ view: FishView; bite: FishView['bites'][number] }>()
const open = defineModel<boolean>({ required: true })
const store = useTripStore()
const name = computed(() => props.view.rods.find((rod) => rod.id === props.bite.rod_id)?.name ?? '')

const FELT = [
  { value: 'short', title: 'A nip' },
  { value: 'solid', title: 'Taken' },
] as const
const LOST = [
  { value: 'at_once', title: 'At once' },
  { value: 'fight', title: 'On the way' },
  { value: 'at_the_boat', title: 'At the boat' },
] as const

const tell = (what: 'felt' | 'lost' | 'doing', value: string | null) =>
  value && void store.record('bite_told', { rod_id: props.bite.rod_id, [what]: value })
</script>

<template>
  <entry-sheet v-model="open" :title="`${name}: the last bite`" data-test="bite-sheet">
    <v-card-text class="told">
      <ChoiceRow
        :model-value="bite.felt"
        label="it felt like"
        :options="FELT"
        test="felt"
        @update:model-value="tell('felt', $event as string)"
      />
      <ChoiceRow
        v-if="bite.was_lost"
        :model-value="bite.lost"
        label="it came off"
        :options="LOST"
        test="lost-where"
        @update:model-value="tell('lost', $event as string)"
      />
      <ChoiceRow
        :model-value="bite.doing"
        label="the line was"
        :options="DOING"
        test="doing"
        @update:model-value="tell('doing', $event as string)"
      />
    </v-card-text>
    <v-card-actions><v-btn @click="open = false">Close</v-btn></v-card-actions>
  </entry-sheet>
</template>

<style scoped>
.told {
  display: grid;
  gap: 12px;
}
</style>
