// The size of an element, followed as it changes.
import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue'

export interface ElementSize {
  width: Ref<number>
  height: Ref<number>
}

export function useElementSize(element: Ref<HTMLElement | null>): ElementSize {
  const width = ref(0)
  const height = ref(0)
  const observer = new ResizeObserver((entries) => {
    for (const entry of entries) {
      width.value = entry.contentRect.width
      height.value = entry.contentRect.height
    }
  })
  onMounted(() => element.value && observer.observe(element.value))
  onBeforeUnmount(() => observer.disconnect())
  return { width, height }
}
