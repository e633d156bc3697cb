import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { LinkDownError, PATIENCE_MS, type api as Api, type take as Take } from './client'

/** How long each request was given, ms. */
let given: number[]
let api: typeof Api
let take: typeof Take
const fetched = vi.fn()
const answer = () => new Response('{}', { headers: { 'X-Coldwake-Version': '1', 'Content-Type': 'application/json' } })

beforeEach(async () => {
  given = []
  vi.spyOn(AbortSignal, 'timeout').mockImplementation((ms) => {
    given.push(ms)
    return new AbortController().signal
  })
  vi.stubGlobal('fetch', fetched)
  // In a browser a road of this page's is enough.
  const Plain = globalThis.Request
  vi.stubGlobal(
    'Request',
    class extends Plain {
      constructor(road: RequestInfo | URL, init?: RequestInit) {
        super(typeof road === 'string' ? new URL(road, 'http://localhost') : road, init)
      }
    },
  )
  vi.resetModules()
  ;({ api, take } = await import('./client'))
})
afterEach(() => {
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})

describe('how long an answer is waited for', () => {
  it('is little until something has answered, and again after nothing did', async () => {
    fetched.mockImplementation(async () => answer())
    await api.GET('/api/session/')
    await api.GET('/api/session/')
    fetched.mockRejectedValueOnce(new DOMException('over', 'TimeoutError'))
    await api.GET('/api/session/').catch(() => undefined)
    await api.GET('/api/session/')
    expect(given).toEqual([PATIENCE_MS.first, PATIENCE_MS.read, PATIENCE_MS.read, PATIENCE_MS.first])
  })

  it('is long for what changes something: sent again it may have been done already', async () => {
    fetched.mockImplementation(async () => answer())
    await api.POST('/api/session/demo/')
    expect(given).toEqual([PATIENCE_MS.write])
  })

  it('ends as a link that is down', async () => {
    fetched.mockRejectedValue(new DOMException('over', 'TimeoutError'))
    const asked = take(api.GET('/api/session/'))
    await expect(asked).rejects.toMatchObject({ name: 'LinkDownError' })
    await expect(asked).rejects.not.toBeInstanceOf(TypeError)
    expect(new LinkDownError('x').retryAfterMs).toBeNull()
  })
})
