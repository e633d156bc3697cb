import vue from '@vitejs/plugin-vue'
import { resolve } from 'node:path'
import vuetify from 'vite-plugin-vuetify'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'
import { firstView } from './build/first-view.ts'
import { pythonRuntime } from './build/python-runtime.ts'
import { appVersion } from './build/version.ts'

// After one visit the app opens without a server: page, fonts, runtime and core are all kept.
function serviceWorker() {
  return VitePWA({
    // A new version waits until it is asked to take over: app/update.ts says that it is here.
    registerType: 'prompt',
    injectRegister: null,
    manifest: {
      name: 'Cold Wake',
      short_name: 'Cold Wake',
      display: 'standalone',
      background_color: '#f3f6f7',
      theme_color: '#0b1418',
      icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' }],
    },
    workbox: {
      // What is kept keeps its headers: give it a new name when the security policy changes.
      cacheId: 'coldwake-1',
      globPatterns: ['**/*.{js,css,html,svg,woff2,mjs,wasm,bin}'],
      maximumFileSizeToCacheInBytes: 48_000_000,
      dontCacheBustURLsMatching: /^assets\//,
      navigateFallback: '/index.html',
      navigateFallbackDenylist: [/^\/(api|static|trust)\//],
    },
  })
}

export default defineConfig(({ mode }) => ({
  base: '/',
  plugins: [
    vue(),
    vuetify({ autoImport: true, styles: { configFile: 'src/app/vuetify.scss' } }),
    ...(mode === 'test' ? [] : [appVersion(), firstView(), pythonRuntime(), serviceWorker()]),
  ],
  resolve: { alias: { '@': resolve(import.meta.dirname, 'src') } },
  worker: { format: 'es' },
  server: {
    port: Number(process.env.WEB_PORT ?? 5173),
    // The host stays the page's own, or the server would take a post for a foreign one.
    proxy: { '/api': { target: `http://127.0.0.1:${process.env.PORT ?? 8000}`, changeOrigin: false } },
  },
  optimizeDeps: { exclude: ['pyodide'] },
  build: { target: 'es2022', chunkSizeWarningLimit: 800 },
  ...(mode === 'test' ? { define: { __APP_VERSION__: JSON.stringify('test') } } : {}),
  test: {
    environment: 'jsdom',
    server: { deps: { inline: ['vuetify'] } },
    setupFiles: ['src/app/test-setup.ts'],
  },
}))
