import { createPinia } from 'pinia'
import { createApp } from 'vue'
import '@fontsource-variable/archivo/wdth.css'
import { registerSW } from 'virtual:pwa-register'
import './base.css'
import App from './App.vue'
import { makeRouter } from './router'
import { useUpdateStore } from './update'
import { makeVuetify } from './vuetify'

const app = createApp(App).use(createPinia()).use(makeRouter()).use(makeVuetify())
const update = useUpdateStore()
const takeOver = registerSW({
  onNeedRefresh: () => update.ready(() => takeOver(true)),
  onRegisteredSW: (_url, registration) => update.canLook(() => registration?.update()),
})
app.mount('#app')
