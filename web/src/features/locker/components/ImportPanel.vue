<script setup lang="ts">
// Tackle from a CSV file: first a look at what it would do, row by row, then the import.
import { ref, shallowRef } from 'vue'
import { describeError } from '@/shared/units/describe'
import { useDisplayStore } from '@/shared/units/store'
import { importCsv, MOST_BYTES, type Imported, type Rows } from '../api'

const props = defineProps<{ outfitId: number | undefined }>()
const emit = defineEmits<{ imported: [] }>()

const display = useDisplayStore()
const file = shallowRef<File | null>(null)
const answer = shallowRef<Imported | null>(null)
const problem = ref<string | null>(null)
const busy = ref(false)

async function send(rows: Rows): Promise<void> {
  if (!file.value) return
  busy.value = true
  problem.value = null
  try {
    answer.value = await importCsv(file.value, rows, props.outfitId)
    if (answer.value.imported) emit('imported')
  } catch (error) {
    answer.value = null
    problem.value = describeError(error, display.units)
  } finally {
    busy.value = false
  }
}

function pick(event: Event): void {
  file.value = (event.target as HTMLInputElement).files?.[0] ?? null
  answer.value = null
  problem.value = null
  if (!file.value) return
  if (file.value.size > MOST_BYTES) {
    problem.value = `${file.value.name} is ${(file.value.size / 1e6).toFixed(1)} MB: at most ${MOST_BYTES / 1e6} MB are read. Nothing was imported.`
    return
  }
  void send('check')
}
</script>

<template>
  <section class="import" data-test="import">
    <h2>Tackle from a CSV file</h2>
    <p class="label">
      One row a piece; the first row names the columns, as in the file that “Save as CSV” makes. Inches, ounces and mph. A row whose key is
      known changes that piece.
    </p>
    <input type="file" accept=".csv,text/csv" data-test="import-file" @change="pick" />
    <p v-if="busy" class="label">Reading …</p>
    <p v-if="problem" class="error" role="alert" data-test="import-error">{{ problem }}</p>
    <template v-if="answer">
      <p v-if="answer.note" class="error">{{ answer.note }}</p>
      <p data-test="import-sum">
        <strong>{{ answer.imported ? 'Imported' : 'Would import' }}: {{ answer.added }} new, {{ answer.changed }} changed.</strong>
        <template v-if="answer.bad"> {{ answer.bad }} rows cannot be read.</template>
      </p>
      <ul v-if="answer.problems.length" class="problems">
        <li v-for="(item, index) in answer.problems" :key="index">
          <strong>Row {{ item.row }}, {{ item.field }}</strong> {{ item.message }}
        </li>
      </ul>
      <div v-if="!answer.imported" class="acts">
        <v-btn v-if="!answer.bad" class="solid" :disabled="busy || !answer.good" data-test="import-all" @click="send('all')"
          >Import all {{ answer.good }}</v-btn
        >
        <v-btn v-else class="solid" :disabled="busy || !answer.good" data-test="import-good" @click="send('good')"
          >Import only the {{ answer.good }} good rows</v-btn
        >
      </div>
    </template>
  </section>
</template>

<style scoped>
.import {
  display: flex;
  flex-direction: column;
  gap: 10px;
  background: var(--frost);
  padding: 12px;
}
.problems {
  max-height: 240px;
  overflow: auto;
  padding-left: 18px;
}
</style>
