// The screen stays on while a trip is fished, as far as the browser lets it.
import { useWakeLock } from '@vueuse/core'
import { onBeforeUnmount, watch } from 'vue'

export function useAwake(wanted: () => boolean): void {
  const lock = useWakeLock()
  watch(
    wanted,
    (now) => {
      if (!lock.isSupported.value) return
      // A low battery or a covered page may refuse: then it goes dark as ever.
      void (now ? lock.request('screen') : lock.release()).catch(() => undefined)
    },
    { immediate: true },
  )
  onBeforeUnmount(() => void lock.release().catch(() => undefined))
}
