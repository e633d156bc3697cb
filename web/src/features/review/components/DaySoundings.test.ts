import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { makeVuetify } from '@/app/vuetify'

const getDaySoundings = vi.fn()
const addSurvey = vi.fn()
vi.mock('@/features/trip/api', () => ({ getDaySoundings: (id: string) => getDaySoundings(id) }))
vi.mock('@/features/waters/api', () => ({ addSurvey: (id: number, body: unknown) => addSurvey(id, body) }))
const { default: DaySoundings } = await import('./DaySoundings.vue')

const found = {
  water_id: 7,
  name: 'April morning, 2026-04-14',
  count: 2,
  unplaced: 1,
  doubt_m: 11,
  below_m: 1.5,
  taken: false,
  text: 'latitude,longitude,depth\n44,-115,7',
}

beforeEach(() => {
  setActivePinia(createPinia())
  getDaySoundings.mockReset().mockResolvedValue(found)
  addSurvey.mockReset().mockResolvedValue({ count: 2, shallowest_m: 6, deepest_m: 8, oddities: [] })
})

async function shown() {
  const wrapper = mount(DaySoundings, { props: { tripId: 'a' }, global: { plugins: [makeVuetify()] } })
  await flushPromises()
  return wrapper
}

describe('soundings of the day', () => {
  it('are looked at first, at the level of today, and only then taken', async () => {
    const wrapper = await shown()
    await wrapper.get('[data-test=look-soundings]').trigger('click')
    await flushPromises()
    const body = { name: found.name, format: 'csv', unit: 'm', swap: false, text: found.text, below_m: 1.5 }
    expect(addSurvey.mock.calls).toEqual([[7, { ...body, take: false }]])
    getDaySoundings.mockResolvedValue({ ...found, taken: true })
    await wrapper.get('[data-test=take-soundings]').trigger('click')
    await flushPromises()
    expect(addSurvey.mock.calls[1]).toEqual([7, { ...body, take: true }])
    expect(wrapper.text()).toContain('They are in the chart.')
    expect(wrapper.find('[data-test=look-soundings]').exists()).toBe(false)
  })

  it('are offered to no water that is gone, and not spoken of where there are none', async () => {
    getDaySoundings.mockResolvedValue({ ...found, water_id: null })
    expect((await shown()).find('button').exists()).toBe(false)
    getDaySoundings.mockResolvedValue({ ...found, count: 0, unplaced: 0 })
    expect((await shown()).find('[data-test=day-soundings]').exists()).toBe(false)
  })

  it('say what is wrong and keep what was found', async () => {
    addSurvey.mockRejectedValue(new Error('They lie elsewhere.'))
    const wrapper = await shown()
    await wrapper.get('[data-test=look-soundings]').trigger('click')
    await flushPromises()
    expect(wrapper.get('[role=alert]').text()).toBe('They lie elsewhere.')
    expect(wrapper.find('[data-test=look-soundings]').exists()).toBe(true)
  })
})
