<script setup lang="ts">
// Where something is typed or chosen: at the side, at the bottom on a phone, so that the water stays in sight.
import { useTemplateRef } from 'vue'
import { useMediaQuery } from '@vueuse/core'
import type { VCard } from 'vuetify/components'

defineOptions({ inheritAttrs: false })
defineProps<{ title: string; wide?: boolean }>()
const open = defineModel<boolean>({ required: true })
const card = useTemplateRef<VCard>('card')
/** On a phone the keyboard would hide the water: there it comes when it is asked for. */
const isTouched = useMediaQuery('(pointer: coarse)')

/** What is typed first can be typed at once, in the place of what stands there. */
function begin(): void {
  if (isTouched.value) return
  const field = (card.value?.$el as HTMLElement | undefined)?.querySelector<HTMLInputElement>('[autofocus]')
  field?.focus()
  field?.select()
}
</script>

<template>
  <v-dialog
    v-model="open"
    class="entry"
    :class="{ wide }"
    :aria-label="title"
    :scrim="false"
    transition="fade-transition"
    @after-enter="begin"
  >
    <v-card ref="card" :title="title" v-bind="$attrs"><slot /></v-card>
  </v-dialog>
</template>

<style>
.v-overlay.v-dialog.entry > .v-overlay__content {
  position: fixed;
  inset: 0 0 0 auto;
  width: min(400px, 100%);
  max-width: none;
  max-height: none;
  margin: 0;
  /* It takes the focus so that keys come here; what can be pressed shows its own ring. */
  outline: none;
}
.v-overlay.v-dialog.entry .v-card-text {
  flex: 0 0 auto;
}
.v-overlay.v-dialog.entry.wide > .v-overlay__content {
  width: min(720px, 100%);
}
.v-overlay.v-dialog.entry > .v-overlay__content > .v-card {
  height: 100%;
  max-height: none;
  overflow-y: auto;
  border-radius: 0;
  border-left: 1px solid var(--line);
}
@media (max-width: 700px) {
  .v-overlay.v-dialog.entry > .v-overlay__content,
  .v-overlay.v-dialog.entry.wide > .v-overlay__content {
    inset: auto 0 0 0;
    width: 100%;
    max-height: 66%;
  }
  .v-overlay.v-dialog.entry > .v-overlay__content > .v-card {
    height: auto;
    border-left: 0;
    border-top: 1px solid var(--line);
  }
}
</style>
