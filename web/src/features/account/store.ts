// Who is logged in.
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { api, LinkDownError, take, type Schemas } from '@/shared/api/client'

const KEY = 'coldwake.username'

export const useSessionStore = defineStore('session', () => {
  const username = ref<string | null>(null)
  const demoOffered = ref(false)
  const known = ref(false)
  const unreachable = ref(false)

  function accept(session: Schemas['Session']): void {
    username.value = session.username
    demoOffered.value = session.demo_offered
    known.value = true
    if (session.username) localStorage.setItem(KEY, session.username)
    else localStorage.removeItem(KEY)
  }

  /** Ask once; with no link the last user of this browser goes on with what is kept here. */
  async function ensure(): Promise<void> {
    if (known.value) return
    try {
      accept(await take(api.GET('/api/session/')))
      unreachable.value = false
    } catch (error) {
      if (!(error instanceof LinkDownError)) throw error
      unreachable.value = true
      username.value = localStorage.getItem(KEY)
    }
  }

  async function logIn(name: string, password: string): Promise<void> {
    accept(await take(api.POST('/api/session/login/', { body: { username: name, password } })))
  }

  async function logInToDemo(): Promise<void> {
    accept(await take(api.POST('/api/session/demo/')))
  }

  async function logOut(): Promise<void> {
    accept(await take(api.DELETE('/api/session/')))
  }

  return { username, demoOffered, unreachable, ensure, logIn, logInToDemo, logOut }
})
