import vue from '@vitejs/plugin-vue'
import { resolve } from 'node:path'
import vuetify from 'vite-plugin-vuetify'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'
import { pythonRuntime } from './build/python-runtime.ts'

// After one visit the app opens without a server: page, fonts, runtime and core are all kept.
function serviceWorker() {
  return VitePWA({
    registerType: 'autoUpdate',
    injectRegister: 'script',
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
      maximumFileSizeToCacheInBytes: 12_000_000,
      dontCacheBustURLsMatching: /^assets\//,
      navigateFallback: '/index.html',
      navigateFallbackDenylist: [/^\/(api|static|admin)\//],
    },
  })
}

export default defineConfig(({ mode }) => ({
  base: '/',
  plugins: [
    vue(),
    vuetify({ autoImport: true, styles: { configFile: 'src/app/vuetify.scss' } }),
    ...(mode === 'test' ? [] : [pythonRuntime(), serviceWorker()]),
  ],
  resolve: { alias: { '@': resolve(import.meta.dirname, 'src') } },
  worker: { format: 'es' },
  optimizeDeps: { exclude: ['pyodide'] },
  build: { target: 'es2022', chunkSizeWarningLimit: 800 },
  test: {
    environment: 'jsdom',
    server: { deps: { inline: ['vuetify'] } },
    setupFiles: ['src/app/test-setup.ts'],
  },
}))
