<script setup lang="ts">
// One source: where it is heard, and how far what it says is to be set right.
import { shallowRef } from 'vue'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import NumberField from '@/shared/ui/NumberField.vue'
import TextField from '@/shared/ui/TextField.vue'
import type { Typed } from '@/shared/units/measures'
import type { Source } from '../store'
import WheelRuns from './WheelRuns.vue'

const props = defineProps<{ source: Source; known: boolean }>()
const emit = defineEmits<{ keep: [source: Source]; remove: []; leave: [] }>()

const KINDS = [
  { value: 'tcp', title: 'Asked at an address' },
  { value: 'udp', title: 'Sent to this machine' },
  { value: 'serial', title: 'On a cable' },
  { value: 'log', title: 'Recorded log' },
] as const
const BAUDS = [4800, 9600, 38400, 115200].map((value) => ({ value, title: `${value}` }))
const PACES = [1, 5, 20, 60].map((value) => ({ value, title: `×${value}` }))

type Numbers = 'port' | 'baud' | 'pace' | 'transducer_m' | 'wheel_factor' | 'warm_degc'
type Draft = Omit<Source, Numbers> & Record<Numbers, Typed>
const draft = shallowRef<Draft>({ ...props.source, port: props.source.port || null } as Draft)
const set = (change: Partial<Draft>): void => void (draft.value = { ...draft.value, ...change })

/** What does not belong to its kind is left out; what is no number goes as it was typed, and is refused by name. */
function keep(): void {
  const { kind } = draft.value
  const ported = kind === 'tcp' || kind === 'udp'
  emit('keep', {
    ...draft.value,
    host: kind === 'tcp' ? draft.value.host : '',
    port: ported ? draft.value.port : 0,
    device: kind === 'serial' ? draft.value.device : '',
  } as Source)
}
</script>

<template>
  <form class="draft" aria-label="A source" @submit.prevent="keep">
    <TextField :model-value="draft.name" label="its name" maxlength="60" test="source-name" @update:model-value="set({ name: $event })" />
    <ChoiceRow :model-value="draft.kind" label="how" :options="KINDS" test="source-kind" @update:model-value="set({ kind: $event! })" />
    <TextField
      v-if="draft.kind === 'tcp'"
      :model-value="draft.host ?? ''"
      label="address, such as 192.168.4.1"
      inputmode="decimal"
      test="source-host"
      @update:model-value="set({ host: $event.trim() })"
    />
    <NumberField
      v-if="draft.kind === 'tcp' || draft.kind === 'udp'"
      :model-value="draft.port"
      label="port"
      measure="count"
      test="source-port"
      @update:model-value="set({ port: $event })"
    />
    <template v-if="draft.kind === 'serial'">
      <TextField
        :model-value="draft.device ?? ''"
        label="device, such as /dev/ttyUSB0 or COM3"
        test="source-device"
        @update:model-value="set({ device: $event.trim() })"
      />
      <ChoiceRow
        :model-value="Number(draft.baud)"
        label="bits a second"
        :options="BAUDS"
        test="source-baud"
        @update:model-value="set({ baud: $event! })"
      />
    </template>
    <ChoiceRow
      v-if="draft.kind === 'log'"
      :model-value="Number(draft.pace)"
      label="how fast it is played; nothing of it is recorded"
      :options="PACES"
      test="source-pace"
      @update:model-value="set({ pace: $event! })"
    />
    <NumberField
      :model-value="draft.transducer_m"
      label="transducer under the surface"
      measure="long"
      test="source-transducer"
      @update:model-value="set({ transducer_m: $event })"
    />
    <NumberField
      :model-value="draft.wheel_factor"
      label="true speed over the wheel's, by runs both ways"
      measure="share"
      test="source-wheel"
      @update:model-value="set({ wheel_factor: $event })"
    />
    <WheelRuns
      v-if="known && draft.kind !== 'log'"
      :source-id="source.id"
      :present="source.wheel_factor ?? 1"
      @found="set({ wheel_factor: Math.round($event * 100) / 100 })"
    />
    <NumberField
      :model-value="draft.warm_degc"
      label="thermometer too warm by, in a cup of ice water"
      measure="warmth"
      test="source-warm"
      @update:model-value="set({ warm_degc: $event })"
    />
    <div class="acts">
      <v-btn type="submit" class="go" data-test="source-keep">Keep it</v-btn>
      <v-btn v-if="known" data-test="source-remove" @click="emit('remove')">Remove</v-btn>
      <v-btn @click="emit('leave')">Leave</v-btn>
    </div>
  </form>
</template>

<style scoped>
.draft {
  display: grid;
  gap: 10px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.v-btn {
  --v-btn-height: 44px;
}
</style>
