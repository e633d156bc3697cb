<script setup lang="ts">
// Every act has one key; this lists them.
import EntrySheet from '@/shared/ui/EntrySheet.vue'
import { KEYS } from '../logic/keys'

const open = defineModel<boolean>({ required: true })
</script>

<template>
  <entry-sheet v-model="open" title="Keys" data-test="key-help">
    <v-card-text>
      <dl>
        <div v-for="key in KEYS" :key="key.key">
          <dt>{{ key.shown ?? key.key }}</dt>
          <dd>{{ key.does }}</dd>
        </div>
      </dl>
    </v-card-text>
  </entry-sheet>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 18px;
}
dl div {
  display: flex;
  gap: 10px;
}
dt {
  min-width: 34px;
  text-align: center;
  font-weight: 750;
  border: 1px solid var(--ink);
  border-radius: 3px;
}
dd {
  margin: 0;
}
</style>
