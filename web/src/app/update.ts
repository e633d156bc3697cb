// A new version of the app: said when it is here, taken over when asked. Nothing that waits is lost by
// it, for what waits lies in the browser's own database.
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { ANSWERED, type Answered } from '@/shared/api/client'

declare const __APP_VERSION__: string

/** A page that the worker does not answer for yet: what it has laid up must be the new version first, or it
 * answers the reload with the old one. */
async function loadAnew(): Promise<void> {
  const registration = await navigator.serviceWorker?.getRegistration()
  await registration?.update().catch(() => undefined)
  const fresh = registration?.installing ?? registration?.waiting
  if (fresh) await activated(fresh)
  location.reload()
}

function activated(worker: ServiceWorker): Promise<void> {
  return new Promise((resolve) => {
    const go = (): void => {
      if (worker.state === 'installed') worker.postMessage({ type: 'SKIP_WAITING' })
      if (worker.state === 'activated' || worker.state === 'redundant') resolve()
    }
    worker.addEventListener('statechange', go)
    go()
  })
}

export const useUpdateStore = defineStore('update', () => {
  const available = ref(false)
  let apply: () => unknown = loadAnew
  let look: () => unknown = () => undefined
  let seen = __APP_VERSION__

  /** The service worker has a newer version ready; `act` takes it over and loads the page anew. */
  function ready(act: () => unknown): void {
    if (navigator.serviceWorker?.controller) apply = act
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
