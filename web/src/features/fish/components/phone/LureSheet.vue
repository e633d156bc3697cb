<script setup lang="ts">
// Another lure on the rod that was chosen: everything else on it stays, and the rules say what they think.
import { computed } from 'vue'
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import PickList from '@/shared/ui/PickList.vue'
import type { RodView, TripDocument } from '@/features/trip/api'

const props = defineProps<{ rod: RodView; outfit: TripDocument['outfit']; worn: readonly string[] }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ swap: [lureId: string] }>()

/** The likest first: of its own kind, then of its own name. */
const items = computed(() => {
  const own = props.outfit.lures.find((lure) => lure.id === props.rod.setup?.lure_id)
  const far = (lure: { kind: string; name: string }) => Number(lure.kind !== own?.kind) * 2 + Number(lure.name !== own?.name)
  return props.outfit.lures
    .filter((lure) => lure.id !== own?.id)
    .map((lure) => ({ lure, free: (lure.count ?? 1) - props.worn.filter((id) => id === lure.id).length }))
    .filter(({ free }) => free > 0)
    .sort((a, b) => far(a.lure) - far(b.lure))
    .map(({ lure }) => ({ value: lure.id, title: `${lure.name}, ${lure.colour}`, test: `lure-pick-${lure.id}` }))
})
</script>

<template>
  <entry-sheet v-model="open" :title="`${rod.name}: another lure`" data-test="lure-sheet">
    <v-card-text>
      <PickList :model-value="null" label="Lures that are free" :items="items" @update:model-value="$event && emit('swap', $event)" />
      <p v-if="!items.length" class="label">All that is aboard is out: the box is Rig's.</p>
    </v-card-text>
  </entry-sheet>
</template>
