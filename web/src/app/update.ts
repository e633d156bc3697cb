// A new version of the app: said when it is here, taken over when asked. Nothing that waits is lost by
// it, for what waits lies in the browser's own database.
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { ANSWERED, type Answered } from '@/shared/api/client'

declare const __APP_VERSION__: string

export const useUpdateStore = defineStore('update', () => {
  const available = ref(false)
  let apply: () => unknown = () => location.reload()
  let look: () => unknown = () => undefined
  let seen = __APP_VERSION__

  /** The service worker has a newer version ready; `act` takes it over and loads the page anew. */
  function ready(act: () => unknown): void {
    apply = act
    available.value = true
  }

  /** The browser may ask for a newer version in this way. */
  function canLook(act: () => unknown): void {
    look = act
  }

  function takeOver(): void {
    void apply()
  }

  // The server says its version with every answer: another one than ours asks for a look.
  window.addEventListener(ANSWERED, (event) => {
    const { version } = (event as CustomEvent<Answered>).detail
    if (version === seen || version === 'unbuilt') return
    seen = version
    if (navigator.serviceWorker?.controller) void look()
    else available.value = true
  })

  return { available, ready, canLook, takeOver }
})
