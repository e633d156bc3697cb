import { createPinia } from 'pinia'
import { createApp } from 'vue'
import '@fontsource-variable/archivo/wdth.css'
import './base.css'
import App from './App.vue'
import { makeRouter } from './router'
import { makeVuetify } from './vuetify'

createApp(App).use(createPinia()).use(makeRouter()).use(makeVuetify()).mount('#app')
