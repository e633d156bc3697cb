import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { show } from '@/app/show.fixture'
import { useDisplayStore } from '@/shared/units/store'
import AskFields from './AskFields.vue'
import RodLog from './RodLog.vue'

const FT = 0.3048
const ask = {
  key: 'depth',
  label: 'at',
  kind: 'choice' as const,
  options: [
    { key: '1', words: 'on the bottom', depth_m: null },
    { key: '2', words: '', depth_m: 20 * FT },
  ],
}

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
})

describe('a small day', () => {
  it('puts a depth that may be chosen in the units that are set, and words as they are', async () => {
    const wrapper = show(AskFields, { asks: [ask], modelValue: {} })
    expect(wrapper.text()).toContain('20 ft')
    expect(wrapper.text()).toContain('on the bottom')
    useDisplayStore().units.length = 'm'
    await nextTick()
    expect(wrapper.text()).toContain('6 m')
    expect(wrapper.text()).not.toContain('ft')
  })

  it('says of each rod what is on it and how deep, where that is told', () => {
    const rod = { name: 'Rod 1', words: 'pink', hits: [12], changed: [], depth_m: 10 * FT }
    const wrapper = show(RodLog, { log: { minutes: 60, rods: [rod, { ...rod, name: 'Rod 2', words: 'green', depth_m: null }], marks: [] } })
    const words = wrapper.get('[data-test=rod-log]').attributes('aria-label')
    expect(words).toBe('Rod 1 pink, 10 ft: 0:12; Rod 2 green: 0:12')
  })
})
