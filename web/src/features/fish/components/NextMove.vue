<script setup lang="ts">
// ONE next move: what, why, whose rule or which evidence, what it costs, when it can be judged.
import { computed, ref } from 'vue'
import { useDisplayStore } from '@/shared/units/store'
import type { FishView, Move } from '@/features/trip/api'
import { formatPercent } from '@/features/trip/logic/format'
import { verdictNumbers, verdictWords } from '@/features/trip/logic/judged'
import { answerWords, doneWords } from '@/features/trip/logic/moves'
import { moveWords } from '../logic/moves'
import RodShape from '@/features/trip/components/RodShape.vue'
import ChoiceRow from '@/shared/ui/ChoiceRow.vue'
import PutOffMoves from './PutOffMoves.vue'

const props = defineProps<{ view: FishView; rodIndex: (id: string) => number; busy: boolean }>()
const emit = defineEmits<{
  take: [move: Move]
  refuse: [move: Move]
  why: [answer: Move['answer']]
  earlier: [share: string]
  advice: [school: string]
}>()

const display = useDisplayStore()
const move = computed(() => props.view.move)
const rod = computed(() => props.view.rods.find((candidate) => candidate.id === move.value?.answer.rod_id))
const what = computed(() => moveWords(props.view, display.units))
const VERDICTS = {
  better: 'fishes better',
  leaning_better: 'leans better; too early to be sure',
  too_early: 'too early to tell',
  leaning_worse: 'leans worse; too early to be sure',
  worse: 'fishes worse',
}
const evidence = computed(() => {
  const found = props.view.comparison
  if (!found) return ''
  const name = (id: string) => props.view.rods.find((candidate) => candidate.id === id)?.name ?? id
  const ahead = name(found.ahead_rod_id)
  return `${ahead} against ${name(found.behind_rod_id)}: ${VERDICTS[found.result.verdict]} (${formatPercent(found.result.probability)} for ${ahead})`
})
/** Hits to be gained while it lasts: to a tenth, as a forecast of a count is read. */
const hits = (gain: number): string => {
  const tenths = Math.round(gain * 10) / 10
  return `${tenths > 0 ? '+' : tenths < 0 ? '−' : ''}${Math.abs(tenths).toFixed(1)} hits`
}
const uncapped = (words: string): string => words.charAt(0).toLowerCase() + words.slice(1)
const SHARES = [
  { value: 'none', title: 'not' },
  { value: 'half', title: 'half' },
  { value: 'full', title: 'in full' },
] as const
const WHO = [
  { value: 'weighed', title: 'what the day shows' },
  { value: 'habits', title: 'the schools’ habits' },
] as const
/** What it rests on, in full: behind a tap. */
const whole = ref(false)
const last = computed(() => props.view.judged[0])
const judged = computed(() => (last.value ? verdictWords(last.value) : ''))
</script>

<template>
  <section class="move" aria-label="Next move" data-test="next-move">
    <template v-if="move">
      <h2 data-test="move-what"><RodShape v-if="rod" :shape="rod.shape" :index="rodIndex(rod.id)" :size="22" />{{ what }}</h2>
      <p data-test="move-why">{{ move.reason }}</p>
      <p class="label">
        {{ move.basis === 'school' ? 'School: ' : '' }}{{ move.source
        }}<template v-if="move.probability"> · {{ formatPercent(move.probability) }} that the rate is higher</template
        ><template v-if="move.gain_hits !== null && move.gain_hits !== undefined"> · worth {{ hits(move.gain_hits) }}</template> · takes
        {{ move.cost_min < 1 ? 'no time' : `${move.cost_min} min` }} · judge after {{ move.judge_after_min }} min
      </p>
      <div class="buttons">
        <v-btn class="do" data-test="do-it" :disabled="busy" @click="emit('take', move)">{{
          move.answer.kind === 'tuning' ? 'Looked: it is right' : 'Do it'
        }}</v-btn>
        <v-btn class="not" data-test="not-now" :disabled="busy" @click="emit('refuse', move)">Not now</v-btn>
      </div>
    </template>
    <template v-else>
      <h2 data-test="move-what">Keep fishing</h2>
      <p data-test="move-why">
        {{
          view.ended
            ? 'The trip is over.'
            : view.rods.some((r) => r.line)
              ? 'Leave it alone: no change is worth its minutes now. Note marks, temperature and hits as they come.'
              : 'Set the first line: choose a rod and type its depth.'
        }}
      </p>
    </template>
    <button class="behind" :class="{ whole }" :aria-expanded="whole" data-test="move-behind" @click="whole = !whole">
      <span v-if="last" class="label" data-test="judged">Last change, “{{ doneWords(last.moves, display.units) }}”: {{ judged }}.</span>
      <span v-if="evidence" class="label" data-test="evidence">{{ evidence }}</span>
      <span v-if="view.others.length" class="label" data-test="others"
        >{{ move ? 'Why not' : 'Weighed and not worth it' }}:
        <template v-for="(other, i) in view.others" :key="other.answer.key"
          ><template v-if="i">; </template>{{ uncapped(answerWords(other.answer, display.units)) }}, {{ hits(other.gain_hits) }} ({{
            formatPercent(other.probability)
          }})</template
        >.</span
      >
      <span v-if="view.put_off.length && !whole" class="label" data-test="put-off-count"
        >Put off: {{ view.put_off.length }}. Say why behind this.</span
      >
      <span v-if="view.turn_hint" class="label" data-test="turn-hint">{{ view.turn_hint }}</span>
      <span v-if="view.advice_school === 'habits'" class="label" data-test="by-habit">By habit, not weighed.</span>
      <span v-else-if="!evidence && !last && !view.others.length && !view.funnel && !view.put_off.length" class="label"
        >What it rests on</span
      >
      <span v-if="view.funnel && (whole || view.funnel.cures.length)" class="label" data-test="funnel">{{ view.funnel.words }}</span>
    </button>
    <div v-if="whole" class="more">
      <p v-if="last" class="label" data-test="judged-numbers">{{ verdictNumbers(last) }}</p>
      <ul v-if="view.funnel?.cures.length" class="label" data-test="cures">
        <li v-for="cure in view.funnel.cures" :key="cure">{{ cure }}</li>
      </ul>
      <PutOffMoves :view="view" @why="emit('why', $event)" />
      <ChoiceRow
        :model-value="view.advice_school"
        label="who advises"
        :options="WHO"
        test="advice"
        @update:model-value="emit('advice', $event!)"
      />
      <ChoiceRow
        v-if="view.earlier"
        :model-value="view.earlier.share"
        :label="`${view.earlier.days.length} earlier ${view.earlier.days.length === 1 ? 'day' : 'days'} like this count`"
        :options="SHARES"
        test="earlier"
        @update:model-value="emit('earlier', $event!)"
      />
    </div>
  </section>
</template>

<style scoped>
.move {
  padding: 5px 12px;
  background: var(--frost);
  border-left: 5px solid var(--now);
}
h2 {
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: 20px;
  line-height: 1.1;
  font-weight: 720;
  font-stretch: 90%;
  margin: 2px 0 4px;
}
p {
  font-size: 13.5px;
  line-height: 1.22;
  margin: 0 0 3px;
}
p.label {
  font-size: 12.5px;
  font-weight: 560;
}
.behind {
  display: block;
  width: 100%;
  padding: 3px 0 0;
  border-top: 1px solid var(--line);
  text-align: left;
}
.behind .label {
  display: block;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.behind.whole .label {
  white-space: normal;
}
.more {
  display: grid;
  gap: 8px;
  letter-spacing: normal;
}
.more ul {
  margin: 4px 0;
  padding-left: 18px;
}
.buttons {
  display: flex;
  gap: 8px;
  margin: 2px 0 4px;
}
.buttons .v-btn {
  --v-btn-height: var(--touch);
  flex: 1;
  font-size: 17px;
}
.do {
  background: var(--now);
  color: var(--now-ink);
  border-color: var(--now);
}
</style>
