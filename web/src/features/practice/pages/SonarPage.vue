<script setup lang="ts">
// The sonar bench: a fish under the cone, and what it draws. Length is time, not size.
import { useElementSize } from '@vueuse/core'
import { computed, reactive, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { api, take, type Schemas } from '@/shared/api/client'
import { latestOnly } from '@/shared/core/latest'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { formatLength, formatSpeed, formatTemperature } from '@/shared/units/units'

const display = useDisplayStore()
const wish = reactive({ depth_m: 12, speed_mps: 0.7, pings_ps: 10, cone_deg: 20, aside_m: 0, temperature_degc: 9 })
const meant = shallowRef<Schemas['MarkMeant'] | null>(null)
const problem = ref<string | null>(null)
const ask = latestOnly(
  (body: Schemas['MarkAsked']) => take(api.POST('/api/waters/sonar/', { body })),
  (answer) => {
    meant.value = answer
    problem.value = null
  },
  (error) => (problem.value = describeError(error, display.units)),
)
watch(wish, () => ask({ ...wish }), { immediate: true })

const frame = useTemplateRef<HTMLElement>('frame')
const { width, height } = useElementSize(frame)
const DEEP = 30
const half = computed(() => Math.max(width.value / 2 - 20, 100))
const y = (depthM: number): number => 34 + (depthM / DEEP) * (height.value - 60)
const perM = computed(() => (height.value - 60) / DEEP)
const mouth = computed(() => Math.tan((wish.cone_deg / 2) * (Math.PI / 180)) * DEEP * perM.value)
/** Twenty seconds of screen, drawn from the right as they come. */
const SECONDS = 20
const screenX = (t: number): number => half.value + 40 + ((t + SECONDS / 2) / SECONDS) * (half.value - 30)
const LOOK = { dot: 'a dot', dash: 'a dash', arch: 'an arch', worm: 'a long worm' } as const
const SLIDERS = [
  { key: 'depth_m', name: 'depth of the fish', low: 2, high: 28, step: 0.5 },
  { key: 'speed_mps', name: 'speed over it', low: 0.2, high: 18, step: 0.1 },
  { key: 'aside_m', name: 'off the track', low: 0, high: 6, step: 0.1 },
  { key: 'pings_ps', name: 'pings a second', low: 1, high: 30, step: 1 },
  { key: 'cone_deg', name: 'cone', low: 8, high: 60, step: 1 },
  { key: 'temperature_degc', name: 'water', low: 0, high: 28, step: 0.5 },
] as const
const shown = (key: (typeof SLIDERS)[number]['key']): string => {
  if (key === 'speed_mps') return formatSpeed(wish[key], display.units)
  if (key === 'pings_ps') return String(wish[key])
  if (key === 'temperature_degc') return formatTemperature(wish[key], display.units)
  if (key === 'cone_deg') return `${wish[key]}°`
  return formatLength(wish[key], display.units)
}
</script>

<template>
  <main class="sonar" data-test="sonar">
    <header>
      <h1>What a mark means</h1>
      <router-link to="/practice">Practice</router-link>
    </header>
    <ErrorNote :text="problem" />
    <div class="grid">
      <section ref="frame" class="picture" aria-label="The cone, and what it draws">
        <svg v-if="width > 0" :width="width" :height="height" role="img" :aria-label="meant ? `It draws ${LOOK[meant.mark.look]}` : ''">
          <path :d="`M${half / 2} 34L${half / 2 - mouth} ${y(DEEP)}L${half / 2 + mouth} ${y(DEEP)}Z`" class="cone" />
          <path :d="`M${half / 2 - 40} 22L${half / 2 + 44} 22L${half / 2 + 34} 34L${half / 2 - 40} 34Z`" class="boat" />
          <line x1="0" :x2="half" y1="30" y2="30" class="surface" />
          <ellipse :cx="half / 2 + wish.aside_m * perM" :cy="y(wish.depth_m)" rx="13" ry="5" class="fish" />
          <text x="6" :y="y(wish.depth_m) + 4">{{ formatLength(wish.depth_m, display.units) }}</text>
          <text :x="half / 2" y="14" class="middle">seen from astern</text>
          <rect :x="half + 20" y="22" :width="half - 4" :height="height - 40" class="screen" />
          <text :x="half * 1.5 + 20" y="14" class="middle">twenty seconds on a screen</text>
          <template v-if="meant">
            <line
              v-for="(point, i) in meant.trace"
              :key="i"
              :x1="screenX(point[0]!)"
              :x2="screenX(point[0]!)"
              :y1="y(point[1]!) - 3"
              :y2="y(point[1]!) + 3"
              class="ping"
            />
            <text v-if="!meant.trace.length" :x="half * 1.5 + 20" :y="y(wish.depth_m)" class="middle">
              outside the cone: nothing is drawn
            </text>
          </template>
        </svg>
      </section>
      <aside>
        <label v-for="item in SLIDERS" :key="item.key" class="slide">
          <span class="label">{{ item.name }}</span><b>{{ shown(item.key) }}</b>
          <input
            v-model.number="wish[item.key]"
            type="range"
            :min="item.low"
            :max="item.high"
            :step="item.step"
            :data-test="`sonar-${item.key}`"
          />
        </label>
        <div v-if="meant" class="read" data-test="sonar-read">
          <p>
            The cone is <b>{{ formatLength(meant.mark.width_m, display.units) }}</b> wide there. A fish under the middle is in it for
            <b>{{ meant.mark.seconds < 10 ? meant.mark.seconds.toFixed(1) : Math.round(meant.mark.seconds) }} s</b>,
            {{ Math.max(Math.round(meant.mark.pings), 1) }} pings: <b>{{ LOOK[meant.mark.look] }}</b>.
          </p>
          <p>Twice as slow draws twice as long; twice as deep too. How long a mark is says nothing of how big the fish is.</p>
          <p data-test="sonar-sound">
            Sound runs {{ Math.round(meant.sound_mps) }} m/s in water of {{ formatTemperature(wish.temperature_degc, display.units) }}: a
            unit that reckons with 1500 shows this fish at <b>{{ formatLength(meant.shown_m, display.units) }}</b>.
          </p>
          <p>Off the middle it reads deeper and shorter. Half an arch: it came, or went, by the edge.</p>
        </div>
      </aside>
    </div>
  </main>
</template>

<style scoped>
.sonar {
  align-content: start;
  padding: 6px;
  display: grid;
  gap: 6px;
}
header {
  display: flex;
  gap: 20px;
  align-items: center;
  padding: 6px 12px;
  background: var(--frost);
}
a {
  color: var(--ink);
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
.grid {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 316px;
  gap: 6px;
}
.picture {
  height: min(640px, 80vh);
  background: var(--frost);
  overflow: hidden;
}
.cone {
  fill: var(--water);
  stroke: var(--ink-2);
  stroke-dasharray: 3 4;
}
.boat,
.fish {
  fill: var(--ink);
}
.surface {
  stroke: var(--ink-2);
}
.screen {
  fill: none;
  stroke: var(--ink-2);
}
.ping {
  stroke: var(--ink);
  stroke-width: 2;
}
text {
  font-size: 13px;
  font-weight: 620;
  fill: var(--ink);
}
.middle {
  text-anchor: middle;
}
aside {
  display: grid;
  gap: 10px;
  align-content: start;
  padding: 10px 12px;
  background: var(--frost);
}
.slide {
  display: grid;
  grid-template-columns: 1fr auto;
}
.slide input {
  grid-column: 1 / -1;
  min-height: 44px;
  accent-color: var(--ink);
}
.read {
  border-top: 1px solid var(--line);
  padding-top: 8px;
  font-size: 14px;
  line-height: 1.4;
}
.read p {
  margin: 0 0 8px;
}
@media (max-width: 900px) {
  .grid {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
