// The one core of the app. It outlives the pages: going from one to another starts nothing anew.
import { createCoreClient, type CoreClient } from './client'

const SETTLED_MS = 10_000

let running: CoreClient | null = null
let tell: () => void = () => undefined
let again: () => void = () => undefined

function makeWorker(): Worker {
  return new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' })
}

/**
 * The core that runs, or one that is started now. `died` hears when it has run and then stopped, `renewed` when it
 * was edited (`make dev`) and has to open the trip again.
 */
export function takeCore(died: () => void, renewed: () => void = () => undefined): CoreClient {
  tell = died
  again = renewed
  if (running) return running
  const fresh = createCoreClient({
    makeWorker,
    died: () => {
      if (running === fresh) running = null
      tell()
    },
    renewed: () => again(),
  })
  running = fresh
  fresh.started.catch(() => {
    if (running === fresh) running = null
  })
  return fresh
}

/** Start it at once where its files are laid up: elsewhere the page that is wanted first needs the line and the processor. */
export function startLaidUpCore(): void {
  if (navigator.serviceWorker?.controller) takeCore(tell)
}

/** Resolves once a core that is starting has started, failed, or taken its time. */
export async function coreSettled(): Promise<void> {
  const patience = new Promise<void>((resolve) => setTimeout(resolve, SETTLED_MS))
  await Promise.race([running?.started.catch(() => undefined), patience])
}

/** Stop it: whoever used the app leaves, and nothing of theirs stays in memory. */
export function dropCore(): void {
  running?.close()
  running = null
  tell = () => undefined
  again = () => undefined
}

import.meta.hot?.on('core-changed', () => running?.renew())
