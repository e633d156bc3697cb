// A new version of the app: said when it is here, taken over when asked. Nothing that waits is lost by
// it, for what waits lies in the browser's own database.
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { ANSWERED, type Answered } from '@/shared/api/client'

declare const __APP_VERSION__: string

/** How long before the new worker is asked again: a message to one that is just being stopped is lost. */
const AGAIN_MS = 2_000
/** How long the old worker may finish what it has in hand: then the page lets go of it by loading anew. */
const PATIENCE_MS = 15_000

/** What is laid up must be the new version first, or it answers the reload with the old one. */
async function loadAnew(): Promise<void> {
  const registration = await navigator.serviceWorker?.getRegistration()
  if (registration && !registration.waiting) await registration.update().catch(() => undefined)
  const fresh = registration?.installing ?? registration?.waiting
  if (fresh) await activated(fresh)
  reload()
}

let leaving = false

/** Load the page anew, once: its own wish and the change of worker may both ask for it. */
export function reload(): void {
  if (leaving) return
  leaving = true
  location.reload()
}

function activated(worker: ServiceWorker): Promise<void> {
  return new Promise((resolve) => {
    let asking: ReturnType<typeof setInterval> | undefined
    const ask = (): void => worker.postMessage({ type: 'SKIP_WAITING' })
    const done = (): void => {
      clearInterval(asking)
      resolve()
    }
    const go = (): void => {
      if (worker.state === 'activated' || worker.state === 'redundant') done()
      else if (worker.state === 'installed' && !asking) {
        asking = setInterval(ask, AGAIN_MS)
        setTimeout(done, PATIENCE_MS)
        ask()
      }
    }
    worker.addEventListener('statechange', go)
    go()
  })
}

export const useUpdateStore = defineStore('update', () => {
  const available = ref(false)
  const taking = ref(false)
  let look: (() => unknown) | undefined
  let seen = __APP_VERSION__

  /** The service worker has a newer version ready. */
  function ready(): void {
    available.value = true
  }

  /** The browser may ask for a newer version in this way; one that was heard of before is asked for now. */
  function canLook(act: () => unknown): void {
    look = act
    if (seen !== __APP_VERSION__) void look()
  }

  function takeOver(): void {
    if (taking.value) return
    taking.value = true
    void loadAnew()
  }

  // The server says its version with every answer: another one than ours asks for a look.
  window.addEventListener(ANSWERED, (event) => {
    const { version } = (event as CustomEvent<Answered>).detail
    if (version === seen || version === 'unbuilt') return
    seen = version
    if (navigator.serviceWorker?.controller) void look?.()
    else available.value = true
  })

  return { available, taking, ready, canLook, takeOver }
})
