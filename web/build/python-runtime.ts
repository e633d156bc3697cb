// Emits what the browser's Python needs: the runtime, and a picture of its memory taken at build time
// with the core imported, so that the first answer waits for neither a compiler nor an import.
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join, relative, resolve } from 'node:path'
import { brotliCompressSync, constants } from 'node:zlib'
import type { Plugin } from 'vite'

const require = createRequire(import.meta.url)
const PACKAGE = dirname(require.resolve('pyodide/package.json'))
const VERSION: string = JSON.parse(readFileSync(join(PACKAGE, 'package.json'), 'utf8')).version
const LOCK_INFO: unknown = JSON.parse(readFileSync(join(PACKAGE, 'pyodide-lock.json'), 'utf8')).info
const WEB = resolve(import.meta.dirname, '..')
const CORE = resolve(WEB, '../core/src')
const CACHE = resolve(WEB, 'node_modules/.cache/python-runtime')

const DEMO = resolve(WEB, '../demo')
// What the interpreter does before the picture is taken, and the demo trip it does it with.
const START = readFileSync(resolve(import.meta.dirname, 'picture.py'), 'utf8')
const TOLD = JSON.stringify({
  trip: demo('trips/sallow_april'),
  outfit: demo('outfits/open_boat_16ft'),
  chart: demo('charts/sallow_tarn'),
})
const ZIP = `
import io, zipfile
def pack(sources):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_STORED) as target:
        for name, text in sorted(sources.items()):
            target.writestr(name, text)
    return out.getvalue()
`
// A zip archive with nothing in it: the runtime asks for a library, and its memory holds all there is to hold.
const NO_LIBRARY = Uint8Array.from([0x50, 0x4b, 5, 6, ...new Array<number>(18).fill(0)])

const RUNTIME = ['pyodide.asm.mjs', 'pyodide.asm.wasm']

interface RuntimeFile {
  name: string
  data: Uint8Array
}

function demo(name: string): unknown {
  return JSON.parse(readFileSync(join(DEMO, `${name}.json`), 'utf8'))
}

function coreSources(): Record<string, string> {
  const files = (readdirSync(CORE, { recursive: true }) as string[]).filter(
    // The spread builder stands on scipy: it stays on the server.
    (file) => file.endsWith('.py') && !/\/(spread|column|survey|lakesim|season|lessons)\//.test(file),
  )
  return Object.fromEntries(files.sort().map((file) => [file, readFileSync(join(CORE, file), 'utf8')]))
}

async function packages(sources: Record<string, string>): Promise<RuntimeFile[]> {
  const made = createHash('sha256').update(VERSION).update(START).update(TOLD).update(JSON.stringify(sources)).digest('hex').slice(0, 16)
  const name = `memory-${made}.bin`
  mkdirSync(CACHE, { recursive: true })
  if (!existsSync(join(CACHE, name))) {
    const { loadPyodide } = await import('pyodide')
    // One interpreter to pack with, another to take the picture of: it must hold nothing else.
    const packer = await loadPyodide({ indexURL: PACKAGE + '/' })
    packer.runPython(ZIP)
    const zip: Uint8Array = packer.globals.get('pack')(packer.toPy(sources)).toJs()
    const python = await loadPyodide({ indexURL: PACKAGE + '/', _makeSnapshot: true })
    python.FS.writeFile('/core.zip', zip)
    python.globals.set('demo', TOLD)
    python.runPython(START)
    writeFileSync(join(CACHE, name), python.makeMemorySnapshot())
  }
  return [
    { name, data: readFileSync(join(CACHE, name)) },
    { name: 'no-library.bin', data: NO_LIBRARY },
  ]
}

function compressed(data: Uint8Array, label: string): Uint8Array {
  // The runtime is large and never changes within a version: compress it once and keep it.
  const key = createHash('sha256').update(data).digest('hex').slice(0, 16)
  const path = join(CACHE, `${label}-${key}.br`)
  if (!existsSync(path)) {
    const quality = data.length > 3_000_000 ? 9 : 11
    mkdirSync(CACHE, { recursive: true })
    writeFileSync(path, brotliCompressSync(data, { params: { [constants.BROTLI_PARAM_QUALITY]: quality } }))
  }
  return readFileSync(path)
}

/** Serve the Python runtime under assets/, and a compressed twin of every text-like file. */
export function pythonRuntime(): Plugin {
  const base = `assets/python-${VERSION}`
  let files: RuntimeFile[] = []
  const pictured = coreSources()
  return {
    name: 'python-runtime',
    async config() {
      files = await packages(pictured)
      const [memory, library] = files.map((file) => `/${base}/${file.name}`)
      return {
        define: {
          __PYTHON_BASE__: JSON.stringify(`/${base}/`),
          __PYTHON_LIBRARY__: JSON.stringify(library),
          __PYTHON_MEMORY__: JSON.stringify(memory),
          __PYTHON_INFO__: JSON.stringify(LOCK_INFO),
        },
      }
    },
    configureServer(server) {
      // While it is worked on, the runtime comes from where it stands, and an edit of the core is told.
      server.middlewares.use(`/${base}/`, (request, response, next) => {
        const name = (request.url ?? '').split('?')[0]!.replace(/^\//, '')
        const file = files.find((one) => one.name === name)
        if (name === 'sources-now.json') response.end(JSON.stringify(coreSources()))
        else if (name === 'sources-pictured.json') response.end(JSON.stringify(pictured))
        else if (file) response.end(file.data)
        else if (RUNTIME.includes(name)) {
          response.setHeader('Content-Type', name.endsWith('.wasm') ? 'application/wasm' : 'text/javascript')
          response.end(readFileSync(join(PACKAGE, name)))
        } else next()
      })
      server.watcher.add(CORE)
      server.watcher.on('change', (path) => {
        if (path.startsWith(CORE) && path.endsWith('.py')) server.ws.send({ type: 'custom', event: 'core-changed' })
      })
    },
    generateBundle() {
      for (const name of RUNTIME) {
        this.emitFile({ type: 'asset', fileName: `${base}/${name}`, source: readFileSync(join(PACKAGE, name)) })
      }
      for (const file of files) {
        this.emitFile({ type: 'asset', fileName: `${base}/${file.name}`, source: file.data })
      }
    },
    writeBundle(options) {
      const root = options.dir ?? resolve(WEB, 'dist')
      for (const entry of readdirSync(root, { recursive: true, withFileTypes: true })) {
        if (!entry.isFile() || !/\.(m?js|css|svg|wasm|bin|json|webmanifest)$/.test(entry.name)) continue
        const path = join(entry.parentPath, entry.name)
        const data = readFileSync(path)
        if (data.length > 1024) writeFileSync(path + '.br', compressed(data, relative(root, path).replaceAll('/', '_')))
      }
    },
  }
}
