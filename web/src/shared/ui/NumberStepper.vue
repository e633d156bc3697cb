<script setup lang="ts">
// A figure between two big buttons: typed, or stepped with a wet thumb.
import { computed, useAttrs } from 'vue'

defineOptions({ inheritAttrs: false })
defineProps<{ label: string; unit: string; less?: string; more?: string; lessTest?: string; moreTest?: string }>()
const text = defineModel<string>({ required: true })
/** What it is given goes to the input, but for the class: that says where the whole of it stands. */
const attrs = useAttrs()
const forInput = computed(() => Object.fromEntries(Object.entries(attrs).filter(([name]) => name !== 'class')))
const emit = defineEmits<{ step: [sign: 1 | -1] }>()
</script>

<template>
  <div class="stepper" :class="$attrs.class">
    <v-btn class="step" :aria-label="less ?? 'Less'" :data-test="lessTest" @click="emit('step', -1)">−</v-btn>
    <label class="field">
      <input v-bind="forInput" v-model="text" inputmode="decimal" :aria-label="label" />
      <span class="label">{{ unit }}</span>
    </label>
    <v-btn class="step" :aria-label="more ?? 'More'" :data-test="moreTest" @click="emit('step', 1)">+</v-btn>
  </div>
</template>

<style scoped>
.stepper {
  display: flex;
  align-items: center;
  gap: 6px;
}
.step {
  --v-btn-height: var(--touch);
  min-width: var(--touch);
  width: var(--touch);
  padding: 0;
  font-size: 26px;
}
.field {
  display: flex;
  flex: 1;
  flex-direction: column;
  align-items: center;
  min-width: 0;
}
.field input {
  width: 100%;
  text-align: center;
  font-size: 36px;
  line-height: 1.05;
  font-weight: 660;
  font-stretch: 84%;
  color: var(--ink);
  border-bottom: 2px solid var(--line);
}
.field .label {
  white-space: nowrap;
}
</style>
