<script setup lang="ts">
// What each kind of rig cost in handling, and what it earned: of one trip, or of a season.
import type { Ledger } from '@/features/trip/api'
import { KIND_NAMES } from '../logic/words'

defineProps<{ rows: Ledger['rows'] }>()
</script>

<template>
  <table class="rows" data-test="ledger">
    <thead>
      <tr>
        <th>kind of rig</th>
        <th class="count">in the water</th>
        <th class="count">resets</th>
        <th class="count">middle reset</th>
        <th class="count">tangles</th>
        <th class="count">hits</th>
        <th class="count">landed</th>
        <th class="count">lost</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.kind">
        <td>{{ KIND_NAMES[row.kind] }}</td>
        <td class="count">{{ Math.round(row.rod_minutes) }} min</td>
        <td class="count">{{ row.resets }}</td>
        <td class="count">{{ row.reset_min === null ? '–' : `${row.reset_min.toFixed(1)} min` }}</td>
        <td class="count">{{ row.tangles }}</td>
        <td class="count">{{ row.hits }}</td>
        <td class="count">{{ row.landed }}</td>
        <td class="count">{{ row.lost }}</td>
      </tr>
    </tbody>
  </table>
</template>
