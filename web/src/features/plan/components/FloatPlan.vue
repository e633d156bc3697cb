<script setup lang="ts">
// What somebody ashore should know: who, where, when back, whom to call. Written to be sent; nothing of it is kept.
import { ref, watch } from 'vue'
import { useLocalStorage } from '@vueuse/core'
import { api, take } from '@/shared/api/client'
import { formatClock } from '@/features/trip/logic/format'
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'

const props = defineProps<{ waterId: number; waterName: string; boat: string; outS: number; backS: number; offsetMin: number }>()
const open = defineModel<boolean>({ required: true })
const display = useDisplayStore()
/** Who and whom stay on this device: they are the same most days. */
const kept = useLocalStorage('coldwake-float-plan', { who: '', call: '', launch: '' })
const note = ref('')
const back = ref('')
const out = ref('')
const written = ref<{ text: string; ics: string } | null>(null)
const problem = ref<string | null>(null)
watch(
  open,
  (isOpen) => {
    if (!isOpen) return
    out.value = formatClock(props.outS, props.offsetMin)
    back.value = formatClock(props.backS, props.offsetMin)
    written.value = null
    problem.value = null
  },
  { immediate: true },
)

/** A clock time of the day, as seconds since 1970. */
function at(clock: string): number {
  const [hours, minutes] = clock.split(':').map(Number)
  const local = props.outS + props.offsetMin * 60
  return local - (local % 86_400) + (hours ?? NaN) * 3600 + (minutes ?? NaN) * 60 - props.offsetMin * 60
}

async function write(): Promise<void> {
  problem.value = null
  try {
    written.value = await take(
      api.POST('/api/plans/float/', {
        body: {
          water_id: props.waterId,
          plan: { ...kept.value, boat: props.boat, water: props.waterName, out_s: at(out.value), back_s: at(back.value), note: note.value },
        },
      }),
    )
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}

function save(): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([written.value!.ics], { type: 'text/calendar' }))
  link.download = 'float-plan.ics'
  link.click()
  URL.revokeObjectURL(link.href)
}
</script>

<template>
  <EntrySheet v-model="open" title="Tell somebody ashore" data-test="float-plan">
    <v-card-text>
      <form class="float" @submit.prevent="write">
        <TextField v-model="kept.who" label="who is aboard" maxlength="200" test="float-who" />
        <TextField v-model="kept.call" label="whom to call if you are not back" maxlength="200" test="float-call" />
        <TextField v-model="kept.launch" label="from which launch" maxlength="200" test="float-launch" />
        <div class="pair">
          <TextField v-model="out" label="out at" type="time" test="float-out" />
          <TextField v-model="back" label="back by" type="time" test="float-back" />
        </div>
        <TextField v-model="note" label="anything else" maxlength="1000" test="float-note" />
        <ErrorNote :text="problem" />
        <v-btn type="submit" class="go" data-test="float-write">Write it</v-btn>
      </form>
      <div v-if="written" class="written">
        <pre data-test="float-text">{{ written.text }}</pre>
        <v-btn size="small" data-test="float-ics" @click="save">Save for a calendar</v-btn>
      </div>
    </v-card-text>
  </EntrySheet>
</template>

<style scoped>
.float {
  display: grid;
  gap: 8px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.go {
  --v-btn-height: 44px;
  background: var(--ink);
  color: var(--frost);
}
.written {
  margin-top: 10px;
}
pre {
  white-space: pre-wrap;
  font: inherit;
  font-size: 14px;
  padding: 8px 10px;
  background: var(--water);
  user-select: all;
}
</style>
