<script setup lang="ts">
// "It touched bottom", "the ball stands on the sonar": a depth seen makes its line surer from then on.
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import { computed, ref, watch } from 'vue'
import { parseNumber } from '@/shared/units/parse'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatSpeed, lengthToM } from '@/shared/units/units'
import type { FishView, RodView } from '@/features/trip/api'
import { formatDepth, formatNumber } from '@/features/trip/logic/format'

const props = defineProps<{
  view: FishView
  rod: RodView
  note: (payload: { rod_id: string; setting_m: number; speed_mps: number; depth_m: number; of: 'lure' | 'ball' }) => Promise<string | null>
  setAside: (eventId: string, aside: boolean) => Promise<string | null>
}>()
const open = defineModel<boolean>({ required: true })

const display = useDisplayStore()
const text = ref('')
const seenOf = ref<'lure' | 'ball'>('lure')
const error = ref<string | null>(null)
const line = computed(() => props.rod.line)

watch(
  open,
  (now) => {
    if (!now) return
    text.value = ''
    error.value = null
    seenOf.value = props.rod.kind === 'downrigger' ? 'ball' : 'lure'
  },
  { immediate: true },
)

async function save(): Promise<void> {
  const value = parseNumber(text.value)
  if (value === null || !line.value) {
    error.value = `Depth seen: “${text.value}” is no number. Type one, such as 31.`
    return
  }
  error.value = await props.note({
    rod_id: props.rod.id,
    setting_m: line.value.number.setting_m,
    speed_mps: props.view.speed_mps,
    depth_m: lengthToM(value, display.units),
    of: seenOf.value,
  })
  if (error.value === null) text.value = ''
}

async function toggle(id: string, aside: boolean): Promise<void> {
  error.value = await props.setAside(id, aside)
}
</script>

<template>
  <entry-sheet v-model="open" :title="`${rod.name}: a depth seen`" data-test="calibration-dialog">
    <v-card-text>
      <p v-if="line">
        {{ formatNumber(line.number, display.units) }} at {{ formatSpeed(view.speed_mps, display.units) }}: the lure is thought to be at
        <strong data-test="calibration-now">{{ formatDepth(line, display.units) }}</strong>.
      </p>
      <div v-if="rod.kind === 'downrigger'" class="row choice" role="group" aria-label="What was seen">
        <v-btn class="pick" :class="{ chosen: seenOf === 'ball' }" @click="seenOf = 'ball'">Ball on the sonar</v-btn>
        <v-btn class="pick" :class="{ chosen: seenOf === 'lure' }" data-test="seen-lure" @click="seenOf = 'lure'"
          >Lure touched bottom</v-btn
        >
      </div>
      <p v-if="seenOf === 'ball' && line?.sonar" class="label" data-test="slant">
        <template v-if="line.sonar.seen"
          >The ball trails, so the sonar shows its slant range: it should read {{ formatLength(line.sonar.reads_m, display.units) }} now.
          Type what the screen says.</template
        >
        <template v-else>At this speed the ball trails out of the sonar's cone: what the screen shows there is not the ball.</template>
      </p>
      <label class="row"
        ><input v-model="text" inputmode="decimal" aria-label="Depth seen" data-test="depth-seen" @keydown.enter="save" /><span
          class="label"
          >{{ display.units.length }}{{ seenOf === 'ball' ? ', the ball' : ', where it touched bottom' }}</span
        ></label
      >
      <p v-if="error" class="error" role="alert">{{ error }}</p>
      <ul v-if="rod.readings?.length" data-test="readings">
        <li v-for="reading in rod.readings" :key="reading.id" :class="{ aside: reading.aside }">
          <span>
            {{ formatNumber(reading.number, display.units) }}, {{ formatSpeed(reading.speed_mps, display.units) }}: {{ reading.of }} at
            <strong>{{ formatLength(reading.seen_m, display.units) }}</strong>
            <template v-if="reading.expected_m !== null"
              >, expected {{ formatLength(reading.expected_m, display.units)
              }}<template v-if="reading.physics_m !== null">
                (untaught {{ formatLength(reading.physics_m, display.units) }})</template
              ></template
            >
            <em v-if="reading.contradicts" class="error"> against the other readings: was the number or the speed another?</em>
          </span>
          <v-btn class="pick" data-test="set-aside" @click="toggle(reading.id, !reading.aside)">{{
            reading.aside ? 'Count it' : 'Set aside'
          }}</v-btn>
        </li>
      </ul>
    </v-card-text>
    <v-card-actions>
      <v-btn class="big" @click="open = false">Close</v-btn>
      <v-btn class="big chosen" data-test="calibration-save" :disabled="!line" @click="save">Save</v-btn>
    </v-card-actions>
  </entry-sheet>
</template>

<style scoped src="./dialog.css"></style>
<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin-top: 10px;
}
li {
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
  border-top: 1px solid var(--line);
  padding: 4px 0;
  font-size: 14px;
}
.choice {
  flex-wrap: wrap;
}
.aside {
  text-decoration: line-through;
}
.pick {
  min-height: 44px;
}
</style>
