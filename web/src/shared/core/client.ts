// The page's side of the worker: calls by name, answers as promises.
import { ref, type Ref } from 'vue'
import type { CoreCalls } from './calls'
import { unwrap, type WorkerResponse } from './protocol'

export type CoreState = 'starting' | 'ready' | 'failed'

/** One call by its name; its arguments and its answer are written from the core. */
export type CallCore = <K extends keyof CoreCalls>(name: K, args: CoreCalls[K]['args']) => Promise<CoreCalls[K]['result']>

export interface CoreClient {
  state: Ref<CoreState>
  /** Resolves once the core answers, rejects when it cannot start. */
  started: Promise<void>
  call: CallCore
  /** Only while the core is being worked on: take its sources anew. */
  renew(): void
  close(): void
}

export interface CoreClientOptions {
  makeWorker: () => Worker
  /** A blocked runtime hangs for ever: after so long the server has to answer instead. */
  timeoutMs?: number
  /** No single question takes this long: a worker that leaves one open has died. */
  callTimeoutMs?: number
  /** It ran and then died: whoever asked has been told, and another can be started. */
  died?: (message: string) => void
  /** It has taken its sources anew, and has no trip open. */
  renewed?: () => void
}

/** Start the core in a worker. */
export function createCoreClient(options: CoreClientOptions): CoreClient {
  const { makeWorker, timeoutMs = 30_000, callTimeoutMs = 20_000, died, renewed } = options
  const state = ref<CoreState>('starting')
  const waiting = new Map<number, { resolve: (answer: string) => void; reject: (error: Error) => void }>()
  let lastId = 0
  let settle: { resolve: () => void; reject: (error: Error) => void }
  const started = new Promise<void>((resolve, reject) => (settle = { resolve, reject }))
  // A page that never waits for it must not see an unhandled rejection.
  started.catch(() => undefined)
  const worker = makeWorker()

  function fail(message: string): void {
    if (state.value === 'failed') return
    clearTimeout(timer)
    const ran = state.value === 'ready'
    state.value = 'failed'
    const error = new Error(`The computation in the browser ${ran ? 'stopped' : 'could not start'}: ${message}`)
    settle.reject(error)
    for (const { reject } of waiting.values()) reject(error)
    waiting.clear()
    worker.terminate()
    if (ran) died?.(message)
  }

  const timer = setTimeout(() => fail('it took too long'), timeoutMs)
  worker.onerror = (event) => fail(event.message)
  worker.onmessage = (event: MessageEvent<WorkerResponse>) => {
    const message = event.data
    if (message.kind === 'failed') return fail(message.message)
    if (message.kind === 'renewed') return renewed?.()
    if (message.kind === 'ready') {
      clearTimeout(timer)
      state.value = 'ready'
      return settle.resolve()
    }
    waiting.get(message.id)?.resolve(message.answer)
    waiting.delete(message.id)
  }

  return {
    state,
    started,
    async call(name, args) {
      if (state.value === 'failed') throw new Error('The computation in the browser is not running.')
      const id = ++lastId
      let late: ReturnType<typeof setTimeout> | undefined
      try {
        const answer = await new Promise<string>((resolve, reject) => {
          waiting.set(id, { resolve, reject })
          worker.postMessage({ id, request: JSON.stringify({ call: name, args }) })
          // While it starts, its own time limit holds.
          if (state.value === 'ready') late = setTimeout(() => fail(`it left “${name}” unanswered`), callTimeoutMs)
        })
        return unwrap(answer)
      } finally {
        clearTimeout(late)
      }
    },
    renew() {
      worker.postMessage({ id: 0, request: '', renew: true })
    },
    close() {
      clearTimeout(timer)
      if (state.value !== 'failed') {
        state.value = 'failed'
        const error = new Error('The trip was left.')
        settle.reject(error)
        for (const { reject } of waiting.values()) reject(error)
        waiting.clear()
      }
      worker.terminate()
    },
  }
}
