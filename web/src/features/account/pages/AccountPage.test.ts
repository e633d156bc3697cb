import { flushPromises } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { show } from '@/app/show.fixture'
import { CoreError } from '@/shared/core/protocol'
import { useSessionStore } from '../store'
import AccountPage from './AccountPage.vue'

const push = vi.hoisted(() => vi.fn())
vi.mock('vue-router', () => ({ useRouter: () => ({ push }) }))

const refused = new CoreError({
  code: 'invalid_input',
  field: 'password',
  message: 'password must be the one that you log in with',
  reason: '',
  limit: null,
  low: null,
  high: null,
  status: 422,
} as never)

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
  push.mockReset()
})

function page() {
  const session = useSessionStore()
  session.username = 'skipper'
  const deleted = vi.spyOn(session, 'deleteAccount').mockResolvedValue()
  const wrapper = show(AccountPage, {})
  const fill = (name: string, text: string) => wrapper.get(`[data-test=${name}]`).setValue(text)
  const send = async (label: string) => {
    await wrapper.get(`form[aria-label="${label}"]`).trigger('submit')
    await flushPromises()
  }
  return { session, deleted, wrapper, fill, send }
}

describe('the end of an account', () => {
  it('asks for its name first, and then goes to the door', async () => {
    const { deleted, wrapper, fill, send } = page()
    await fill('sure-password', 'secret word')
    await fill('sure-name', 'skiper')
    await send('The end of the account')
    expect(deleted).not.toHaveBeenCalled()
    expect(wrapper.text()).toContain('Type the name of the account, skipper')
    await fill('sure-name', 'skipper')
    await send('The end of the account')
    expect(deleted).toHaveBeenCalledWith('secret word')
    expect(push).toHaveBeenCalledWith('/login')
  })

  it('stays where it is when the password is another', async () => {
    const { deleted, wrapper, fill, send } = page()
    deleted.mockRejectedValue(refused)
    await fill('sure-name', 'skipper')
    await send('The end of the account')
    expect(push).not.toHaveBeenCalled()
    expect(wrapper.text()).toContain('the one that you log in with')
  })
})

it('says that a password is changed, or why it is not', async () => {
  const { session, wrapper, fill, send } = page()
  const changed = vi.spyOn(session, 'changePassword').mockRejectedValueOnce(refused).mockResolvedValueOnce()
  await fill('old-password', 'a')
  await fill('new-password', 'b')
  await send('Password')
  expect(wrapper.find('[data-test=changed]').exists()).toBe(false)
  expect(wrapper.text()).toContain('the one that you log in with')
  await send('Password')
  expect(changed).toHaveBeenLastCalledWith('a', 'b')
  expect(wrapper.get('[data-test=changed]').text()).toContain('log in anew')
})
