// Emits what the browser's Python needs: runtime, standard library and the core, the last two
// compiled at build time so that the first answer does not wait for a compiler.
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

// Parts of the standard library that nothing aboard can need.
const LEFT_OUT = [
  'test',
  'idlelib',
  'ensurepip',
  'pydoc_data',
  'tkinter',
  'turtledemo',
  'lib2to3',
  'unittest',
  'xmlrpc',
  'wsgiref',
  'venv',
  'curses',
  'dbm',
  'sqlite3',
  'multiprocessing',
  'http',
  'xml',
  'email',
  'mailbox',
  '_pydatetime',
  '_pydecimal',
  'pydoc',
  'pdb',
  'doctest',
  'ftplib',
  'imaplib',
  'smtplib',
  'poplib',
  'tarfile',
  'optparse',
  'argparse',
  'concurrent/futures/process',
]

const COMPILE = `
import importlib.util, io, marshal, zipfile
def pack(source_zip, sources, left_out):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_STORED) as target:
        def put(name, text):
            code = compile(text, name, "exec", dont_inherit=True, optimize=2 if source_zip else 0)
            # Hash-based and unchecked (PEP 552): there is no source beside it to check against.
            head = importlib.util.MAGIC_NUMBER + (1).to_bytes(4, "little") + importlib.util.source_hash(text)
            # Sorted, dated 1980: the same sources always give the same bytes.
            target.writestr(zipfile.ZipInfo(name[:-3] + ".pyc", (1980, 1, 1, 0, 0, 0)), head + marshal.dumps(code))
        if source_zip:
            with zipfile.ZipFile(source_zip) as old:
                for name in sorted(old.namelist()):
                    stem = name.removesuffix(".py")
                    if any(stem == x or name.startswith(x + "/") for x in left_out):
                        continue
                    if name.endswith(".py"):
                        put(name, old.read(name))
        for name, text in sorted(sources.items()):
            put(name, text.encode())
    return out.getvalue()
`

interface RuntimeFile {
  name: string
  data: Uint8Array
}

function coreSources(): Record<string, string> {
  const files = (readdirSync(CORE, { recursive: true }) as string[]).filter(
    // The spread builder stands on scipy: it stays on the server.
    (file) => file.endsWith('.py') && !file.includes('/spread/'),
  )
  return Object.fromEntries(files.sort().map((file) => [file, readFileSync(join(CORE, file), 'utf8')]))
}

async function packages(): Promise<RuntimeFile[]> {
  const sources = coreSources()
  const library = readFileSync(join(PACKAGE, 'python_stdlib.zip'))
  // Each by what it is made of: a changed rule does not send the unchanged library again.
  const key = (...parts: string[]): string =>
    parts
      .reduce((hash, part) => hash.update(part), createHash('sha256').update(VERSION).update(COMPILE))
      .digest('hex')
      .slice(0, 16)
  const names = {
    library: `library-${key(JSON.stringify(LEFT_OUT))}.bin`,
    core: `core-${key(JSON.stringify(sources))}.bin`,
  }
  mkdirSync(CACHE, { recursive: true })
  if (!Object.values(names).every((name) => existsSync(join(CACHE, name)))) {
    const { loadPyodide } = await import('pyodide')
    const python = await loadPyodide({ indexURL: PACKAGE + '/' })
    python.runPython(COMPILE)
    python.FS.writeFile('/tmp/library.zip', library)
    const pack = python.globals.get('pack')
    const make = (zip: string | null, files: Record<string, string>): Uint8Array =>
      pack(zip, python.toPy(files), python.toPy(LEFT_OUT)).toJs()
    writeFileSync(join(CACHE, names.library), make('/tmp/library.zip', {}))
    writeFileSync(join(CACHE, names.core), make(null, sources))
  }
  return Object.values(names).map((name) => ({ name, data: readFileSync(join(CACHE, name)) }))
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
  return {
    name: 'python-runtime',
    async config() {
      files = await packages()
      const [library, core] = files.map((file) => `/${base}/${file.name}`)
      return {
        define: {
          __PYTHON_BASE__: JSON.stringify(`/${base}/`),
          __PYTHON_LIBRARY__: JSON.stringify(library),
          __PYTHON_CORE__: JSON.stringify(core),
          __PYTHON_INFO__: JSON.stringify(LOCK_INFO),
        },
      }
    },
    generateBundle() {
      for (const name of ['pyodide.asm.mjs', 'pyodide.asm.wasm']) {
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
