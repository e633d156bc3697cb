/// <reference lib="webworker" />
// The core in the browser: the same Python as on the server, in a worker of its own.
import { loadPyodide } from 'pyodide'
import { RENEW } from './renew'
import type { WorkerRequest, WorkerResponse } from './protocol'

declare const __PYTHON_BASE__: string
declare const __PYTHON_LIBRARY__: string
declare const __PYTHON_MEMORY__: string
declare const __PYTHON_INFO__: unknown

interface Core {
  call(request: string): string
  renew(sources: string): void
}

const scope = self as unknown as DedicatedWorkerGlobalScope

async function start(): Promise<Core> {
  const origin = scope.location.origin
  const python = await loadPyodide({
    indexURL: origin + __PYTHON_BASE__,
    stdLibURL: origin + __PYTHON_LIBRARY__,
    packageBaseUrl: origin + __PYTHON_BASE__,
    // The interpreter as it stood at build time, the core imported and its bridge waiting.
    _loadSnapshot: fetch(origin + __PYTHON_MEMORY__).then((answer) => {
      if (!answer.ok) throw new Error(`core: ${answer.status}`)
      return answer.arrayBuffer()
    }),
    // Nothing is ever fetched by name: there are no packages to look up.
    lockFileContents: { info: __PYTHON_INFO__, packages: {} } as never,
  })
  return {
    call: (request) => python.globals.get('bridge').call(request) as string,
    renew(sources) {
      python.globals.set('sources', sources)
      python.runPython(RENEW)
    },
  }
}

const ready = start()
ready.then(
  () => post({ kind: 'ready' }),
  (error: unknown) => post({ kind: 'failed', message: String(error) }),
)

function post(message: WorkerResponse): void {
  scope.postMessage(message)
}

/** What the bridge itself could not answer: the interpreter gave up, or memory ran out. */
function faultAnswer(error: unknown): string {
  return JSON.stringify({
    ok: false,
    error: {
      code: 'fault',
      field: '',
      message: `The computation failed (${String(error).slice(0, 200)}).`,
      reason: '',
      limit: null,
      low: null,
      high: null,
    },
  })
}

/** An edit that cannot be imported leaves the core as it was. */
async function renew(): Promise<void> {
  const sources = await (await fetch(`${scope.location.origin + __PYTHON_BASE__}sources.json`)).text()
  try {
    ;(await ready).renew(sources)
    post({ kind: 'renewed' })
  } catch (error) {
    console.error(String(error))
  }
}

scope.onmessage = async (event: MessageEvent<WorkerRequest>) => {
  if (import.meta.env.DEV && event.data.renew) return renew()
  const { id, request } = event.data
  let answer: string
  try {
    answer = (await ready).call(request)
  } catch (error) {
    answer = faultAnswer(error)
    post({ kind: 'answer', id, answer })
    // An interpreter that threw past its own door cannot be trusted with the next question.
    post({ kind: 'failed', message: String(error) })
    return
  }
  post({ kind: 'answer', id, answer })
}
