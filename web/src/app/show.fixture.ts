// Mount a component as the app does, and take it away after each test.
import { mount, type VueWrapper } from '@vue/test-utils'
import { afterEach } from 'vitest'
import { h, type Component } from 'vue'
import { VApp } from 'vuetify/components'
import { makeVuetify } from '@/app/vuetify'

let mounted: VueWrapper | null = null
afterEach(() => {
  mounted?.unmount()
  mounted = null
})

export function show(component: Component, props: Record<string, unknown>): VueWrapper {
  const app = mount(VApp, { global: { plugins: [makeVuetify()] }, slots: { default: () => h(component, props) } })
  mounted = app as unknown as VueWrapper
  return app.findComponent(component) as VueWrapper
}
