import { createPinia } from 'pinia'
import { createApp } from 'vue'
import '@fontsource-variable/archivo/wdth.css'
import { registerSW } from 'virtual:pwa-register'
import './base.css'
import App from './App.vue'
import { coreSettled, startLaidUpCore } from '@/shared/core/host'
import { makeRouter } from './router'
import { reload, useUpdateStore } from './update'
import { makeVuetify } from './vuetify'

startLaidUpCore()
const app = createApp(App).use(createPinia()).use(makeRouter()).use(makeVuetify())
const update = useUpdateStore()
app.mount('#app')

// What is laid up for days without a link must not delay the page and the core that are wanted now.
const SOON_MS = 1500
window.addEventListener('load', () => setTimeout(() => void coreSettled().then(keepForLater), SOON_MS))

function keepForLater(): void {
  registerSW({
    immediate: true,
    onNeedRefresh: update.ready,
    // Also in the tab where nobody asked: what it has not loaded yet is gone with the old version.
    onNeedReload: reload,
    onRegisteredSW: (_url, registration) => update.canLook(() => registration?.update()),
  })
}
