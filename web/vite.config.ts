import vue from '@vitejs/plugin-vue'
import { resolve } from 'node:path'
import vuetify from 'vite-plugin-vuetify'
import { defineConfig } from 'vite'
import { pythonRuntime } from './build/python-runtime.ts'

export default defineConfig(({ mode }) => ({
  base: '/',
  plugins: [
    vue(),
    vuetify({ autoImport: true, styles: { configFile: 'src/app/vuetify.scss' } }),
    ...(mode === 'test' ? [] : [pythonRuntime()]),
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
