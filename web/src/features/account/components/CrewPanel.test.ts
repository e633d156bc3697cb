import { flushPromises } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { describe, expect, it, vi } from 'vitest'
import { show } from '@/app/show.fixture'
import { useSessionStore } from '../store'
import CrewPanel from './CrewPanel.vue'

describe('the crew', () => {
  it('is taken aboard, listed anew, and let go; what was typed stays where it was refused', async () => {
    setActivePinia(createPinia())
    const session = useSessionStore()
    const listed = vi.spyOn(session, 'listCrew').mockResolvedValue([])
    const take = vi.spyOn(session, 'takeCrew').mockRejectedValueOnce(new Error('That name is taken.'))
    const drop = vi.spyOn(session, 'dropCrew').mockResolvedValue()
    const wrapper = show(CrewPanel, {})
    await flushPromises()
    await wrapper.get('[data-test=crew-name]').setValue('mate')
    await wrapper.get('[data-test=crew-password]').setValue('copper-spoon-7')
    await wrapper.get('form').trigger('submit')
    await flushPromises()
    expect(wrapper.text()).toContain('That name is taken.')
    expect((wrapper.get('[data-test=crew-name]').element as HTMLInputElement).value).toBe('mate')
    take.mockResolvedValueOnce({ id: 4, username: 'mate' })
    listed.mockResolvedValue([{ id: 4, username: 'mate' }])
    await wrapper.get('form').trigger('submit')
    await flushPromises()
    expect(take).toHaveBeenLastCalledWith('mate', 'copper-spoon-7')
    expect(wrapper.get('li').text()).toContain('mate')
    expect((wrapper.get('[data-test=crew-name]').element as HTMLInputElement).value).toBe('')
    listed.mockResolvedValue([])
    await wrapper.get('[data-test=crew-drop-4]').trigger('click')
    await flushPromises()
    expect(drop).toHaveBeenCalledWith(4)
    expect(wrapper.find('li').exists()).toBe(false)
  })
})
