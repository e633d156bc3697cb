<script setup lang="ts">
// Days planned before: the evening's plan is opened at the ramp, or given to the trip that is under way.
import { onMounted, ref, shallowRef } from 'vue'
import ErrorNote from '@/shared/ui/ErrorNote.vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { dropPlan, listPlans, type PlanRow } from '../api'

defineProps<{ openId: string }>()
const emit = defineEmits<{ open: [id: string] }>()
const display = useDisplayStore()
const rows = shallowRef<PlanRow[]>([])
const problem = ref<string | null>(null)
/** The plan whose dropping was asked for once: the second press drops it. */
const dropping = ref<string | null>(null)

const dayOf = (row: PlanRow) =>
  new Date(`${row.day}T12:00:00`).toLocaleDateString(undefined, { weekday: 'short', day: 'numeric', month: 'short' })

async function refresh(): Promise<void> {
  try {
    rows.value = await listPlans()
    problem.value = null
  } catch (error) {
    problem.value = describeError(error, display.units)
  }
}

async function drop(id: string): Promise<void> {
  if (dropping.value !== id) {
    dropping.value = id
    return
  }
  dropping.value = null
  try {
    await dropPlan(id)
  } catch (error) {
    problem.value = describeError(error, display.units)
    return
  }
  await refresh()
}

onMounted(refresh)
defineExpose({ refresh })
</script>

<template>
  <section v-if="rows.length || problem" aria-label="Kept days" data-test="kept-days">
    <h2 class="label">days that were kept</h2>
    <ErrorNote :text="problem" />
    <ul>
      <li v-for="row in rows" :key="row.id" :class="{ open: row.id === openId }">
        <button type="button" class="row" :data-test="`open-plan-${row.id}`" @click="emit('open', row.id)">
          <b>{{ dayOf(row) }}</b> <span class="label">{{ row.water_name }} · {{ row.species }}</span>
        </button>
        <v-btn size="small" :data-test="`drop-plan-${row.id}`" @click="drop(row.id)">
          {{ dropping === row.id ? 'Press again' : 'Drop' }}
        </v-btn>
      </li>
    </ul>
  </section>
</template>

<style scoped>
section {
  border-top: 1px solid var(--line);
  padding-top: 10px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 220px;
  overflow: auto;
}
li {
  display: flex;
  align-items: center;
  gap: 6px;
}
li.open .row b {
  text-decoration: underline;
}
.row {
  flex: 1;
  min-height: 44px;
  text-align: left;
  color: var(--ink);
}
</style>
