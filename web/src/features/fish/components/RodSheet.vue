<script setup lang="ts">
// One rod in full: its number at two speeds at once, its tip, and whether it is to touch the bottom.
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import { computed, ref, shallowRef, watch } from 'vue'
import { latestOnly } from '@/shared/core/latest'
import { parseNumber } from '@/shared/units/parse'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatSpeed, lengthFromM, lengthToM, speedFromMps, speedToMps } from '@/shared/units/units'
import type { FishView, NumberAtSpeed, RodLine, RodView } from '@/features/trip/api'
import BeatCounter from './BeatCounter.vue'
import { formatDepth, formatNumber } from '@/features/trip/logic/format'

type Tip = 'low' | 'level' | 'high'

const props = defineProps<{
  view: FishView
  rod: RodView
  speedAtDepth: (rodId: string, beats: number, seconds: number) => Promise<{ speed_mps: number; doubt_mps: number }>
  numbersAt: (rodId: string, depthM: number, speedsMps: number[]) => Promise<NumberAtSpeed[]>
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{
  tip: [tip: Tip]
  tap: [on: boolean]
  boards: []
  clearance: []
  beat: [beats: number, seconds: number]
  failed: [error: unknown]
  tried: [line: RodLine | null]
}>()

const display = useDisplayStore()
const depth = ref('')
const speeds = ref<[string, string]>(['', ''])
/** Only what was typed here is shown in the column: the sheet opens on the rod as it is. */
const edited = ref(false)
const found = shallowRef<NumberAtSpeed[]>([])
const problem = ref<string | null>(null)
const TIPS: { value: Tip; title: string }[] = [
  { value: 'low', title: 'Low' },
  { value: 'level', title: 'In the holder' },
  { value: 'high', title: 'High' },
]
const river = computed(() => (props.view.current?.speed_mps ?? 0) > 0)
const names = computed(() => (river.value ? ['against the current', 'with it'] : ['with the wind behind', 'into it']))

watch(
  open,
  (now) => {
    if (!now) return
    const { first_mps, second_mps } = props.rod.pair_mps!
    speeds.value = [first_mps, second_mps].map((value) => speedFromMps(value, display.units).toFixed(1)) as [string, string]
    const metres = props.rod.line?.depth_m ?? 3
    depth.value = String(Math.round(lengthFromM(metres, display.units) * 2) / 2)
  },
  { immediate: true },
)

const ask = latestOnly(
  (asked: { depth: number; speeds: number[] }) => props.numbersAt(props.rod.id, asked.depth, asked.speeds),
  (answer) => {
    found.value = answer
    if (edited.value) emit('tried', open.value ? (answer[0]?.line ?? null) : null)
    problem.value = null
  },
  (error) => emit('failed', error),
)
watch(
  [depth, speeds, () => props.rod.setup, open],
  () => {
    if (!open.value) {
      edited.value = false
      emit('tried', null)
      return
    }
    const metres = parseNumber(depth.value)
    const both = speeds.value.map((text) => parseNumber(text))
    if (metres === null || both.some((value) => value === null)) {
      problem.value = 'Depth and speeds: type numbers, such as 12 and 1.4.'
      return
    }
    ask({ depth: lengthToM(metres, display.units), speeds: both.map((value) => speedToMps(value!, display.units)) })
  },
  { deep: true, immediate: true },
)
const countdown = computed(() => found.value[0]?.line?.countdown_s ?? null)
const clip = computed(() => found.value[0]?.line?.clip_above_ball_m ?? null)
</script>

<template>
  <entry-sheet v-model="open" :title="rod.name" data-test="rod-sheet">
    <v-card-text>
      <label class="depth">
        <span class="label">lure at</span>
        <input v-model="depth" inputmode="decimal" aria-label="Depth of the lure" data-test="sheet-depth" @input="edited = true" />
        <span class="label">{{ display.units.length }}, at two speeds through the water</span>
      </label>
      <div class="pair">
        <div v-for="side in [0, 1] as const" :key="side" class="side">
          <span class="label">{{ names[side] }}</span>
          <label>
            <input v-model="speeds[side]" inputmode="decimal" :aria-label="`Speed ${names[side]}`" :data-test="`sheet-speed-${side}`" />
            <span class="label">{{ display.units.speed }}</span>
          </label>
          <template v-if="found[side]">
            <strong v-if="found[side]!.line" class="figure" :data-test="`sheet-number-${side}`">
              {{ formatNumber(found[side]!.line!.number, display.units) }}
            </strong>
            <span v-else class="label">deepest is {{ formatLength(found[side]!.limit_m ?? 0, display.units) }}</span>
            <span v-if="found[side]!.line" class="label">
              lure {{ formatDepth(found[side]!.line!, display.units) }} at {{ formatSpeed(found[side]!.speed_mps, display.units) }}
            </span>
          </template>
        </div>
      </div>
      <p v-if="problem" class="error" role="alert">{{ problem }}</p>
      <p v-if="countdown !== null" class="label">Stopped on a slack line it sinks there in {{ Math.round(countdown) }} s: count it down.</p>
      <p v-if="clip !== null" class="label">
        Counter left alone: clip this line {{ formatLength(clip, display.units) }} above the ball. A new counter moves every line on the
        cable.
      </p>
      <p v-if="(rod.line?.strumming ?? 0) >= 0.1" class="label" data-test="strums">
        Its {{ rod.kind === 'downrigger' ? 'cable' : 'line' }} hums in the water: about {{ Math.round(rod.line!.strumming! * 100) }} % more
        drag than held still, counted in.
      </p>
      <p v-if="rod.line?.beyond_law" class="label" data-test="beyond-law">
        Faster than the drag of a ball is known for: it runs deeper than is said here. Slow down before you trust it near the bottom.
      </p>
      <div v-if="rod.has_tip" class="group" role="group" aria-label="Rod tip">
        <span class="label">rod tip</span>
        <v-btn
          v-for="item in TIPS"
          :key="item.value"
          class="choice"
          :class="{ chosen: rod.setup?.tip === item.value }"
          :data-test="`tip-${item.value}`"
          @click="emit('tip', item.value)"
          >{{ item.title }}</v-btn
        >
      </div>
      <BeatCounter
        v-if="rod.setup?.attractor_id"
        :rod="rod"
        :speed-mps="view.speed_mps"
        :speed-at-depth="speedAtDepth"
        @count="(beats, seconds) => emit('beat', beats, seconds)"
        @failed="emit('failed', $event)"
      />
      <div class="group">
        <v-btn class="choice" :class="{ chosen: rod.bottom_tap }" data-test="bottom-tap" @click="emit('tap', !rod.bottom_tap)">
          {{ rod.bottom_tap ? 'Meant to tap the bottom' : 'Keep off the bottom' }}
        </v-btn>
        <span class="label">
          {{
            rod.bottom_tap
              ? 'It is called when it loses the bottom.'
              : view.clearance_m > 0
                ? `It is called ${formatLength(view.clearance_m, display.units)} off the bottom.`
                : 'It is called when it comes to the bottom.'
          }}
          <button class="link" data-test="clearance" @click="emit('clearance')">Change that.</button>
          Snags: never on a bottom you do not know.
        </span>
      </div>
      <div v-if="rod.on_board" class="group">
        <v-btn class="choice" data-test="board-reset" @click="emit('boards')">Goes back out innermost</v-btn>
        <span class="label">The lines inside slide out one place.</span>
      </div>
    </v-card-text>
    <v-card-actions><v-btn class="choice" @click="open = false">Close</v-btn></v-card-actions>
  </entry-sheet>
</template>

<style scoped>
.depth,
.group {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin: 6px 0;
}
input {
  width: 76px;
  font-size: 24px;
  font-weight: 660;
  text-align: center;
  color: var(--ink);
  border-bottom: 2px solid var(--ink);
  min-height: 44px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
.side {
  display: flex;
  flex-direction: column;
  gap: 2px;
  padding: 8px;
  border: 1px solid var(--line);
  border-radius: 4px;
}
.figure {
  font-size: 24px;
}
.choice {
  min-height: var(--touch);
}
.link {
  text-decoration: underline;
  min-height: 44px;
  font-weight: 640;
}
</style>
