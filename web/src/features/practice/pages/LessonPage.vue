<script setup lang="ts">
// A lesson: what it teaches, one task at a time, and why an answer was right or not.
import { computed, ref, shallowRef, watch } from 'vue'
import { api, take, type Schemas } from '@/shared/api/client'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { useAttempt } from '@/shared/ui/useAttempt'
import { useDisplayStore } from '@/shared/units/store'
import AskFields from '../components/AskFields.vue'
import BesideLook from '../components/BesideLook.vue'
import LessonColumn from '../components/LessonColumn.vue'
import RodLog from '../components/RodLog.vue'
import SonarPiece from '../components/SonarPiece.vue'
import TurnLook from '../components/TurnLook.vue'
import { factWords, given, isComplete, type Said } from '../logic/answers'

const props = defineProps<{ lesson: string }>()
const display = useDisplayStore()
const { problem, attempt } = useAttempt()
const about = shallowRef<Schemas['Lesson'] | null>(null)
const task = shallowRef<Schemas['Task'] | null>(null)
const judged = shallowRef<Schemas['JudgedAnswer'] | null>(null)
const said = ref<Said>({})
const dialled = ref<Said>({})
const busy = ref(false)
const labels = computed(() => Object.fromEntries((task.value?.asks ?? []).map((ask) => [ask.key, ask.label])))
/** Where the lines lie in the turn: shown with the answer. */
const paths = computed(() => (judged.value?.judged ?? []).flatMap((one) => (one.path?.length ? [one.path] : [])))
/** What the answer was given to: the count goes up with it. */
let asked = 0

function show(told: Schemas['LessonTask']): void {
  about.value = told.lesson
  task.value = told.task
  asked = told.lesson.asked
}
async function once(act: () => Promise<void>): Promise<void> {
  if (busy.value) return
  busy.value = true
  await attempt(act)
  busy.value = false
}
const next = (): Promise<void> =>
  once(async () => {
    const query = { lesson: props.lesson } as { lesson: never }
    show(await take(api.GET('/api/practice/lessons/task/', { params: { query } })))
    judged.value = null
    said.value = {}
    dialled.value = {}
  })
const fishIt = (): Promise<void> =>
  once(async () => {
    const body = { lesson: props.lesson, asked, set: given(task.value!.dials ?? [], dialled.value) }
    show(await take(api.POST('/api/practice/lessons/try/', { body })))
  })
const answer = (): Promise<void> =>
  once(async () => {
    const body = { lesson: props.lesson, asked, answers: given(task.value!.asks, said.value) }
    judged.value = await take(api.POST('/api/practice/lessons/task/', { body }))
    about.value = judged.value.lesson
  })
watch(() => props.lesson, next, { immediate: true })
</script>

<template>
  <main class="lesson" data-test="lesson">
    <header v-if="about">
      <h1>{{ about.title }}</h1>
      <router-link to="/practice">All lessons</router-link>
      <span class="streak" role="status" data-test="streak"
        ><strong>{{ Math.min(about.streak, about.needed) }} of {{ about.needed }}</strong> in a row<template v-if="about.passed"
          >; passed</template
        ></span
      >
      <p class="says">{{ about.says }}</p>
    </header>
    <ErrorNote :text="problem" />
    <form v-if="task" class="card" :aria-label="about?.title" @submit.prevent="answer">
      <p class="task">{{ task.words }}</p>
      <dl v-if="(task.facts ?? []).length">
        <div v-for="fact in task.facts" :key="fact.label">
          <dt class="label">{{ fact.label }}</dt>
          <dd>{{ factWords(fact, display.units) }}</dd>
        </div>
      </dl>
      <BesideLook v-if="task.beside" :look="task.beside" />
      <LessonColumn v-if="task.column" :column="task.column" />
      <SonarPiece v-if="task.screen" :screen="task.screen" />
      <RodLog v-if="task.log" :log="task.log" />
      <TurnLook v-if="task.turn" :look="task.turn" :paths="paths" />
      <template v-if="!judged">
        <fieldset v-if="(task.dials ?? []).length" :disabled="!task.tries">
          <legend class="label">{{ task.tries }} half hours left</legend>
          <AskFields v-model="dialled" :asks="task.dials!" />
          <v-btn class="solid" :disabled="busy || !task.tries || !isComplete(task.dials!, dialled)" data-test="fish-stretch" @click="fishIt"
            >Fish half an hour</v-btn
          >
        </fieldset>
        <AskFields v-model="said" :asks="task.asks" />
        <v-btn type="submit" class="go" :disabled="busy || !isComplete(task.asks, said)" data-test="answer">That is it</v-btn>
      </template>
      <div v-else class="said" role="status" data-test="judged">
        <p v-for="one in judged.judged" :key="one.key">
          <strong>{{ labels[one.key] }}: {{ one.right ? 'right.' : 'no.' }}</strong> {{ one.words }}
          <template v-for="fact in one.facts" :key="fact.label"
            ><span class="fact">{{ fact.label }} {{ factWords(fact, display.units) }}.</span>{{ ' ' }}</template
          >
        </p>
        <v-btn class="go" :disabled="busy" data-test="next-task" @click="next">Next</v-btn>
      </div>
    </form>
  </main>
</template>

<style scoped>
.lesson {
  align-content: start;
  display: grid;
  gap: 6px;
  max-width: 860px;
  padding: 6px;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  align-items: center;
  padding: 12px;
  background: var(--frost);
}
.says {
  flex-basis: 100%;
  max-width: 70ch;
}
.card {
  display: grid;
  gap: 12px;
  padding: 14px;
  background: var(--frost);
}
.task {
  font-size: 18px;
}
dl {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 6px 16px;
}
dd {
  font-weight: 640;
}
fieldset {
  display: grid;
  gap: 10px;
  padding: 12px;
  border: 1px solid var(--line);
}
.v-btn {
  --v-btn-height: 56px;
  justify-self: start;
}
.said {
  display: grid;
  gap: 8px;
}
.fact {
  font-weight: 640;
}
a {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  color: var(--ink);
}
</style>
