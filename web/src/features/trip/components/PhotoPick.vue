<script setup lang="ts">
// A photo to go with what is noted: taken now or chosen, made small here, looked at before it is kept.
import { ref, useTemplateRef } from 'vue'
import { shrink, type Shrunk } from '../logic/shrink'

const photo = defineModel<Shrunk | null>({ required: true })
const emit = defineEmits<{ problem: [text: string | null] }>()
const input = useTemplateRef<HTMLInputElement>('input')
const busy = ref(false)

async function chosen(): Promise<void> {
  const file = input.value?.files?.[0]
  if (!file) return
  busy.value = true
  emit('problem', null)
  try {
    photo.value = await shrink(file)
  } catch (error) {
    emit('problem', error instanceof Error ? error.message : String(error))
  } finally {
    busy.value = false
    // The same file may be chosen once more.
    if (input.value) input.value.value = ''
  }
}
</script>

<template>
  <div class="photo">
    <input ref="input" type="file" accept="image/*" capture="environment" hidden data-test="photo-file" @change="chosen" />
    <template v-if="photo">
      <img :src="photo.thumb" alt="The photo that is kept with it" data-test="photo-thumb" />
      <v-btn data-test="photo-drop" @click="photo = null">Without it</v-btn>
    </template>
    <v-btn v-else :loading="busy" data-test="photo-take" @click="input?.click()">Photo</v-btn>
  </div>
</template>

<style scoped>
.photo {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-top: 8px;
}
img {
  height: 56px;
  max-width: 96px;
  object-fit: cover;
  border: 1px solid var(--line);
}
.v-btn {
  --v-btn-height: var(--touch);
}
</style>
