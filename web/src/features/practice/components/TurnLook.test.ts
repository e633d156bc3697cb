import { mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import TurnLook from './TurnLook.vue'

const look: Schemas['TurnLook'] = {
  toward: 'starboard',
  radius_m: 30,
  tips: [-2, 1.5, 12].map((side_m) => ({ side_m, ahead_m: 0 })),
  lures: [-2, 1.5, 12].map((side_m) => ({ side_m, ahead_m: -40 })),
}
const show = (paths: Schemas['OnPlan'][][]) => mount(TurnLook, { props: { look, paths }, global: { plugins: [createPinia()] } })

describe('a turn from above', () => {
  it('gives nothing away before it is answered', () => {
    const wrapper = show([])
    expect(wrapper.findAll('[data-test=turned-line]')).toHaveLength(0)
    expect(wrapper.findAll('text').map((text) => text.text())).toEqual(['1', '2', '3'])
    expect(wrapper.get('svg').attributes('aria-label')).toContain('turns to starboard')
    expect(wrapper.get('svg').attributes('aria-label')).toContain('rod 1 7 ft to port')
  })

  it('draws each line where it lies in the turn, in the room it had before', async () => {
    const wrapper = show([])
    const hull = wrapper.get('polygon').attributes('points')
    const inside = [
      { side_m: 12, ahead_m: 0 },
      { side_m: 30, ahead_m: -15 },
    ]
    await wrapper.setProps({ paths: [inside, inside, inside] })
    expect(wrapper.findAll('[data-test=turned-line]')).toHaveLength(3)
    expect(wrapper.findAll('text')).toHaveLength(3)
    expect(wrapper.get('polygon').attributes('points')).toBe(hull)
    const [tip, lure] = wrapper.get('[data-test=turned-line] polyline').attributes('points')!.split(' ')
    // To starboard is to the right, astern is down.
    expect(Number(lure!.split(',')[0])).toBeGreaterThan(Number(tip!.split(',')[0]))
    expect(Number(lure!.split(',')[1])).toBeGreaterThan(Number(tip!.split(',')[1]))
  })
})
