<script setup lang="ts">
// What was put off, for how long, and why: what is not aboard stays away all day.
import { computed } from 'vue'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import { useDisplayStore } from '@/shared/units/store'
import { answerWords } from '@/features/trip/logic/moves'
import type { FishView, Move } from '@/features/trip/api'

const props = defineProps<{ view: FishView }>()
const emit = defineEmits<{ why: [answer: Move['answer']] }>()
const display = useDisplayStore()
const WHY = [
  { value: 'busy', title: 'no hand free' },
  { value: 'tried', title: 'tried already' },
  { value: 'lacking', title: 'not aboard' },
  { value: 'doubted', title: 'not believed' },
] as const
type Why = (typeof WHY)[number]['value']

// Only tackle can be left ashore.
const asked = computed(() => WHY.filter(({ value }) => value !== 'lacking' || latest.value?.change.rod_rigged))
const latest = computed(() => props.view.put_off[0]?.answer ?? null)
const said = computed(() => WHY.find(({ value }) => value === latest.value?.why)?.value ?? null)
const away = (until: number | null): string =>
  until === null ? 'not aboard, all day' : `${Math.max(Math.ceil((until - props.view.now_s) / 60), 1)} min more`

function say(why: Why | null): void {
  if (latest.value && why) emit('why', { ...latest.value, why })
}
</script>

<template>
  <div v-if="latest" data-test="put-off">
    <p class="label">
      Put off:
      <template v-for="(one, i) in view.put_off" :key="one.answer.key"
        ><template v-if="i">; </template>{{ answerWords(one.answer, display.units) }} ({{ away(one.until_s) }})</template
      >.
    </p>
    <ChoiceRow
      :model-value="said"
      :label="`“${answerWords(latest, display.units)}” was put off: why`"
      :options="asked"
      test="why"
      @update:model-value="say"
    />
  </div>
</template>

<style scoped>
p {
  margin: 0 0 4px;
  font-size: 12.5px;
  font-weight: 560;
}
</style>
