// The version of the build: made from its sources by scripts/install.sh, known to page and server alike.
import type { Plugin } from 'vite'

export function appVersion(): Plugin {
  const version = process.env.COLDWAKE_BUILD ?? `unnamed-${Date.now()}`
  return {
    name: 'app-version',
    config: () => ({ define: { __APP_VERSION__: JSON.stringify(version) } }),
    generateBundle() {
      // The server puts it on every answer (server/common/middleware.py).
      this.emitFile({ type: 'asset', fileName: 'version.txt', source: version })
    },
  }
}
