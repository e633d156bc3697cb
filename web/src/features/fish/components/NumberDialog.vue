<script setup lang="ts">
// One number, typed or stepped with big buttons: the only form on the water.
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import NumberStepper from '@/shared/ui/NumberStepper.vue'
import { ref, watch } from 'vue'
import { parseNumber } from '@/shared/units/parse'

const props = defineProps<{
  title: string
  unit: string
  initial: number | null
  step: number
  digits: number
  /** Runs the act; returns an error to show, or null when it is done. */
  submit: (value: number) => Promise<string | null>
  hint?: string
  /** Numbers that are likely: one press saves one. */
  likely?: readonly number[]
}>()
const open = defineModel<boolean>({ required: true })

/** What is typed, while it is: the picture beside answers at once. Null when it is closed, or no number. */
const emit = defineEmits<{ typed: [value: number | null] }>()

const text = ref('')
const error = ref<string | null>(null)
const busy = ref(false)

watch(
  open,
  (now) => {
    if (!now) return
    text.value = props.initial === null ? '' : props.initial.toFixed(props.digits)
    error.value = null
  },
  { immediate: true },
)
// Other units are another number: what was typed in the old ones is not what it says any more.
watch(
  () => props.unit,
  () => (text.value = props.initial === null ? '' : props.initial.toFixed(props.digits)),
)

watch([text, open], () => emit('typed', open.value ? parseNumber(text.value) : null))

function nudge(sign: number): void {
  const value = parseNumber(text.value) ?? props.initial ?? 0
  text.value = (value + sign * props.step).toFixed(props.digits)
}

async function take(value: number): Promise<void> {
  text.value = value.toFixed(props.digits)
  await commit()
}

async function commit(): Promise<void> {
  const value = parseNumber(text.value)
  if (value === null) {
    error.value = `${props.title}: “${text.value}” is no number. Type one, such as ${props.step * 10}.`
    return
  }
  busy.value = true
  error.value = await props.submit(value)
  busy.value = false
  if (error.value === null) open.value = false
}
</script>

<template>
  <entry-sheet v-model="open" :title="title" data-test="number-dialog">
    <v-card-text>
      <NumberStepper v-model="text" :label="title" :unit="unit" autofocus data-test="number-field" @step="nudge" @keydown.enter="commit" />
      <div v-if="likely?.length" class="likely" role="group" aria-label="Likely">
        <v-btn v-for="value in likely" :key="value" :data-test="`likely-${value.toFixed(digits)}`" @click="take(value)">{{
          value.toFixed(digits)
        }}</v-btn>
      </div>
      <p v-if="hint" class="label">{{ hint }}</p>
      <p v-if="error" class="error" role="alert" data-test="number-error">{{ error }}</p>
      <slot />
    </v-card-text>
    <v-card-actions>
      <v-btn class="big" @click="open = false">Cancel</v-btn>
      <v-btn class="big solid" :loading="busy" data-test="number-save" @click="commit">Save</v-btn>
    </v-card-actions>
  </entry-sheet>
</template>

<style scoped>
.error {
  color: var(--now);
  font-weight: 700;
  margin-top: 8px;
}
.likely {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(64px, 1fr));
  gap: 6px;
  margin-top: 10px;
}
.likely .v-btn {
  --v-btn-height: var(--touch);
  min-width: 0;
  font-size: 17px;
}
.big {
  --v-btn-height: var(--touch);
  flex: 1;
  font-size: 17px;
}
</style>
