// Who is logged in.
import { dropCore } from '@/shared/core/host'
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { api, LinkDownError, SignedOutError, take, type Schemas } from '@/shared/api/client'

const KEY = 'coldwake.username'
/** Left without a link: the server has still to be told. */
const LEFT = 'coldwake.left'

export const useSessionStore = defineStore('session', () => {
  const username = ref<string | null>(null)
  const demoOffered = ref(false)
  /** Nobody has an account yet: the first is made on screen. */
  const skipperWanted = ref(false)
  const known = ref(false)
  const unreachable = ref(false)
  const ended = ref(false)
  const logins = ref(0)

  function accept(session: Schemas['Session']): void {
    username.value = session.username
    demoOffered.value = session.demo_offered
    skipperWanted.value = session.skipper_wanted
    known.value = true
    if (session.username) localStorage.setItem(KEY, session.username)
    else localStorage.removeItem(KEY)
  }

  /** Ask once; with no link the last user of this browser goes on with what is kept here. */
  async function ensure(): Promise<void> {
    if (known.value) return
    try {
      if (localStorage.getItem(LEFT)) await take(api.DELETE('/api/session/'))
      localStorage.removeItem(LEFT)
      accept(await take(api.GET('/api/session/')))
      unreachable.value = false
    } catch (error) {
      if (!(error instanceof LinkDownError)) throw error
      unreachable.value = true
      username.value = localStorage.getItem(KEY)
    }
  }

  async function enter(asked: () => Promise<Schemas['Session']>): Promise<void> {
    // A page from the cache may stand here without the token that a login needs.
    await take(api.GET('/api/session/'))
    accept(await asked())
    localStorage.removeItem(LEFT)
    unreachable.value = false
    ended.value = false
    logins.value += 1
  }

  const logIn = (name: string, password: string): Promise<void> =>
    enter(() => take(api.POST('/api/session/login/', { body: { username: name, password } })))

  const makeSkipper = (name: string, password: string): Promise<void> =>
    enter(() => take(api.POST('/api/session/skipper/', { body: { username: name, password } })))

  const logInToDemo = (): Promise<void> => enter(() => take(api.POST('/api/session/demo/')))

  /** Leave. With no link it is left here at once, and at the server as soon as it answers. */
  async function logOut(): Promise<void> {
    try {
      accept(await take(api.DELETE('/api/session/')))
    } catch (error) {
      if (!(error instanceof LinkDownError || error instanceof SignedOutError)) throw error
      localStorage.setItem(LEFT, '1')
      localStorage.removeItem(KEY)
      username.value = null
      known.value = false
    }
    ended.value = false
    dropCore()
  }

  const listCrew = (): Promise<Schemas['Crew'][]> => take(api.GET('/api/session/crew/'))

  const takeCrew = (name: string, password: string): Promise<Schemas['Crew']> =>
    take(api.POST('/api/session/crew/', { body: { username: name, password } }))

  async function dropCrew(id: number): Promise<void> {
    await take(api.DELETE('/api/session/crew/{member_id}/', { params: { path: { member_id: id } } }))
  }

  async function changePassword(password: string, new_password: string): Promise<void> {
    accept(await take(api.POST('/api/session/password/', { body: { password, new_password } })))
  }

  /** The end of the account and of all that it owns on the server. */
  async function deleteAccount(password: string): Promise<void> {
    accept(await take(api.POST('/api/session/delete-account/', { body: { password } })))
    dropCore()
  }

  /** The server no longer knows this login; what is kept here stays its own. */
  function markEnded(): void {
    ended.value = true
  }

  return {
    username,
    demoOffered,
    skipperWanted,
    makeSkipper,
    unreachable,
    ended,
    logins,
    ensure,
    logIn,
    logInToDemo,
    logOut,
    changePassword,
    listCrew,
    takeCrew,
    dropCrew,
    deleteAccount,
    markEnded,
  }
})
