/// <reference lib="webworker" />
// The core in the browser: the same Python as on the server, in a worker of its own.
import { loadPyodide } from 'pyodide'
import type { WorkerRequest, WorkerResponse } from './protocol'

declare const __PYTHON_BASE__: string
declare const __PYTHON_LIBRARY__: string
declare const __PYTHON_MEMORY__: string
declare const __PYTHON_INFO__: unknown

interface Core {
  call(request: string): string
  /** Whether what is imported differs from these sources, and was imported anew. */
  renew?: (sources: string) => boolean
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
  const core: Core = { call: (request) => python.globals.get('bridge').call(request) as string }
  if (import.meta.env.DEV) {
    const { default: workbench } = await import('../../../build/renew.py?raw')
    python.runPython(workbench)
    python.globals.set('told', await sourcesOf('pictured'))
    python.runPython(`import json; workbench = Workbench("coldwake_core", json.loads(told), "/core-live")`)
    core.renew = (sources) => {
      python.globals.set('told', sources)
      const renewed = python.runPython('workbench.take(json.loads(told))') as boolean
      if (renewed) python.runPython('from coldwake_core.bridge import Bridge; bridge = Bridge()')
      return renewed
    }
    // Edits since the picture was taken.
    await renew(core)
  }
  return core
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

async function sourcesOf(time: 'pictured' | 'now'): Promise<string> {
  return (await fetch(`${scope.location.origin + __PYTHON_BASE__}sources-${time}.json`)).text()
}

/** An edit that cannot be imported leaves the core as it was. */
async function renew(core: Core): Promise<boolean> {
  try {
    return core.renew?.(await sourcesOf('now')) ?? false
  } catch (error) {
    console.error(String(error))
    return false
  }
}

scope.onmessage = async (event: MessageEvent<WorkerRequest>) => {
  if (import.meta.env.DEV && event.data.renew) {
    if (await renew(await ready)) post({ kind: 'renewed' })
    return
  }
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
