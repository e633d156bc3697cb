<script setup lang="ts">
// The sonar drill: a piece of screen, what it is, and why.
import { useLocalStorage } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef } from 'vue'
import { api, take, type Schemas } from '@/shared/api/client'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { useAttempt } from '@/shared/ui/useAttempt'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatSpeed } from '@/shared/units/units'

type Kind = Schemas['DrillAnswer']['kind']
const WHAT: Record<Kind, string> = {
  under: 'a fish, under the middle',
  aside: 'a fish, well off the axis',
  half: 'a fish that came or went',
  along: 'a fish that swam along',
  ball: 'the ball, or a lure',
  bait: 'a school of bait',
}
const WIDTH = 640
const HEIGHT = 300
const display = useDisplayStore()
const screen = shallowRef<Schemas['DrillScreen'] | null>(null)
const answer = shallowRef<Schemas['DrillAnswer'] | null>(null)
const given = ref<Kind | null>(null)
const { problem, attempt } = useAttempt()
/** Right of how many, in this browser; and those of the last ten, which cannot be had by luck. */
const score = useLocalStorage('coldwake.drill', { right: 0, asked: 0, last: [] as boolean[] })
const deep = computed(() => (screen.value?.bottom_m ?? 20) * 1.08)
const x = (seconds: number): number => (seconds / (screen.value?.seconds ?? 1)) * WIDTH
const y = (depthM: number): number => (depthM / deep.value) * HEIGHT
const lastTen = computed(() => score.value.last.filter(Boolean).length)
const next = (): Promise<void> =>
  attempt(async () => {
    const seed = Math.floor(Math.random() * 1_000_000)
    screen.value = await take(api.GET('/api/waters/sonar/drill/', { params: { query: { seed } } }))
    answer.value = given.value = null
  })
const read = (kind: Kind): Promise<void> =>
  attempt(async () => {
    if (!screen.value || answer.value) return
    given.value = kind
    answer.value = await take(api.POST('/api/waters/sonar/drill/', { body: { seed: screen.value.seed, answer: kind } }))
    const { right } = answer.value
    score.value = {
      right: score.value.right + Number(right),
      asked: score.value.asked + 1,
      last: [...score.value.last, right].slice(-10),
    }
  })
onMounted(next)
</script>

<template>
  <main class="drill" data-test="drill">
    <header>
      <h1>What is this?</h1>
      <router-link to="/practice/sonar">The bench</router-link>
      <span class="label" data-test="drill-score"
        >{{ score.right }} of {{ score.asked }} right<template v-if="score.last.length === 10"
          >; of the last ten {{ lastTen }}</template
        ></span
      >
    </header>
    <ErrorNote :text="problem" />
    <section v-if="screen">
      <p>
        {{ formatSpeed(screen.speed_mps, display.units) }}, a cone of {{ Math.round(screen.cone_deg) }}°, bottom at
        {{ formatLength(screen.bottom_m, display.units) }}, {{ screen.seconds }} seconds from left to right.
      </p>
      <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="img" aria-label="A piece of screen">
        <line v-for="i in 4" :key="i" x1="0" :x2="WIDTH" :y1="(HEIGHT * i) / 5" :y2="(HEIGHT * i) / 5" class="grid" />
        <text v-for="i in 4" :key="`t${i}`" x="4" :y="(HEIGHT * i) / 5 - 3">{{ formatLength((deep * i) / 5, display.units) }}</text>
        <line
          v-for="(echo, i) in screen.echoes"
          :key="`e${i}`"
          :x1="x(echo[0]!)"
          :x2="x(echo[0]!)"
          :y1="y(echo[1]!) - 3"
          :y2="y(echo[1]!) + 3"
          class="echo"
        />
        <rect x="0" :y="y(screen.bottom_m)" :width="WIDTH" :height="HEIGHT" class="bottom" />
      </svg>
      <div class="answers" role="group" aria-label="What it is">
        <v-btn
          v-for="kind in screen.options"
          :key="kind"
          :disabled="answer !== null && kind !== answer.kind && kind !== given"
          :aria-pressed="given === kind"
          :data-test="`drill-${kind}`"
          @click="read(kind)"
          >{{ WHAT[kind] }}</v-btn
        >
      </div>
      <div v-if="answer" class="said" role="status" data-test="drill-said">
        <p>
          <strong>{{ answer.right ? 'Right.' : `No: ${WHAT[answer.kind]}.` }}</strong> {{ answer.words }} Under the middle a fish at that
          depth is on for {{ answer.middle_s.toFixed(1) }} s at this speed.
        </p>
        <v-btn class="go" data-test="drill-next" @click="next">Next</v-btn>
      </div>
    </section>
  </main>
</template>

<style scoped>
.drill {
  align-content: start;
  display: grid;
  gap: 6px;
  max-width: 860px;
  padding: 6px;
}
header,
section {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 20px;
  align-items: center;
  padding: 12px;
  background: var(--frost);
}
section {
  display: grid;
  align-items: start;
}
h1 {
  font-size: 22px;
}
svg {
  width: 100%;
  background: var(--frost-2);
}
.grid {
  stroke: var(--line);
}
.echo {
  stroke: var(--ink);
  stroke-width: 2;
}
.bottom {
  fill: var(--bed);
}
text {
  fill: var(--ink-2);
  font-size: 11px;
}
.answers {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(210px, 1fr));
  gap: 8px;
}
.v-btn {
  --v-btn-height: 56px;
}
.said {
  display: grid;
  gap: 8px;
  justify-items: start;
}
a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  color: var(--ink);
}
</style>
