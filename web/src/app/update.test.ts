import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { ANSWERED } from '@/shared/api/client'

/** A service worker that goes on when it is asked for the nth time, or never. */
class FakeWorker extends EventTarget {
  state: ServiceWorkerState = 'installed'
  asked = 0

  constructor(readonly heeds: number) {
    super()
  }

  postMessage(message: { type: string }): void {
    if (message.type === 'SKIP_WAITING' && ++this.asked === this.heeds) this.becomes('activated')
  }

  becomes(state: ServiceWorkerState): void {
    this.state = state
    this.dispatchEvent(new Event('statechange'))
  }
}

interface Registration {
  installing?: FakeWorker
  waiting?: FakeWorker
  update: () => Promise<void>
}

let reloads = 0

/** The store as a page has it that was just loaded: reloading is done once a page. */
async function opened(registration: Registration, controller: object | null = {}) {
  vi.stubGlobal('navigator', { serviceWorker: { controller, getRegistration: async () => registration } })
  const { reload, useUpdateStore } = await import('./update')
  return Object.assign(useUpdateStore(), { reload })
}

function answeredBy(version: string): void {
  window.dispatchEvent(new CustomEvent(ANSWERED, { detail: { version, serverS: 0, askedS: 0, gotS: 0 } }))
}

describe('a new version', () => {
  beforeEach(() => {
    vi.resetModules()
    vi.useFakeTimers()
    vi.unstubAllGlobals()
    reloads = 0
    vi.stubGlobal('location', { reload: () => reloads++ })
    setActivePinia(createPinia())
    return () => vi.useRealTimers()
  })

  it('is taken over when it waits, by the first message', async () => {
    const waiting = new FakeWorker(1)
    const update = vi.fn(async () => undefined)
    const store = await opened({ waiting, update })
    store.takeOver()
    await vi.advanceTimersByTimeAsync(100)
    expect(reloads).toBe(1)
    // What is here already needs no link to be taken over.
    expect(update).not.toHaveBeenCalled()
    // The library sees the change of worker too.
    store.reload()
    await vi.advanceTimersByTimeAsync(60_000)
    expect([waiting.asked, reloads]).toEqual([1, 1])
  })

  it('asks again when the first message was lost', async () => {
    const store = await opened({ waiting: new FakeWorker(2), update: async () => undefined })
    store.takeOver()
    // Pressed twice it is asked once.
    store.takeOver()
    await vi.advanceTimersByTimeAsync(100)
    expect(reloads).toBe(0)
    expect(store.taking).toBe(true)
    await vi.advanceTimersByTimeAsync(5_000)
    expect(reloads).toBe(1)
  })

  it('loads the page anew all the same when the old one does not let go', async () => {
    const store = await opened({ waiting: new FakeWorker(Infinity), update: async () => undefined })
    store.takeOver()
    await vi.advanceTimersByTimeAsync(10_000)
    expect(reloads).toBe(0)
    await vi.advanceTimersByTimeAsync(10_000)
    expect(reloads).toBe(1)
  })

  it('is waited for while it is still being laid up, however long', async () => {
    const coming = new FakeWorker(1)
    coming.state = 'installing'
    const registration: Registration = { update: async () => void (registration.installing = coming) }
    const store = await opened(registration, null)
    store.takeOver()
    await vi.advanceTimersByTimeAsync(120_000)
    expect(reloads).toBe(0)
    coming.becomes('installed')
    await vi.advanceTimersByTimeAsync(100)
    expect(reloads).toBe(1)
  })

  it('is loaded from the server when laying it up fails', async () => {
    const coming = new FakeWorker(1)
    coming.state = 'installing'
    const store = await opened({ installing: coming, update: () => Promise.reject(new Error('no link')) })
    store.takeOver()
    await vi.advanceTimersByTimeAsync(100)
    coming.becomes('redundant')
    await vi.advanceTimersByTimeAsync(100)
    expect(reloads).toBe(1)
  })

  it('asks the browser to look when the server says another version, before or after it can', async () => {
    const store = await opened({ update: async () => undefined })
    const look = vi.fn()
    answeredBy('test')
    answeredBy('unbuilt')
    store.canLook(look)
    expect(look).not.toHaveBeenCalled()
    answeredBy('second')
    answeredBy('second')
    expect(look).toHaveBeenCalledTimes(1)
    // Said already before the page could look: looked for as soon as it can.
    const late = vi.fn()
    store.canLook(late)
    expect(late).toHaveBeenCalledTimes(1)
    expect(store.available).toBe(false)
    store.ready()
    expect(store.available).toBe(true)
  })

  it('is said at once on a page that no worker answers for', async () => {
    const store = await opened({ update: async () => undefined }, null)
    answeredBy('second')
    expect(store.available).toBe(true)
  })
})
