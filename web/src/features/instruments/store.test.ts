import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { api } from '@/shared/api/client'
import { useInstrumentsStore } from './store'

const source = { id: 'a', name: 'Sounder', kind: 'tcp', host: '127.0.0.1', port: 10110 } as const
const heard = (age_s: number | null) => ({
  at_s: 0,
  sources: [{ id: 'a', name: 'Sounder', words: '', age_s, good: 1, checksum: 0, unknown: 0, broken: 0 }],
  values: [],
  trip: null,
  recorded: 0,
  refused: '',
})
const answer = (data: unknown) => ({ data, response: new Response('{}', { headers: { 'X-Coldwake-Version': '1' } }) })

beforeEach(() => {
  vi.useFakeTimers()
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
})

describe('instruments', () => {
  it('are asked for as long as somebody looks, and once where nothing is set up', async () => {
    const get = vi.spyOn(api, 'GET').mockResolvedValue(answer({ sources: { sources: [] }, heard: null }) as never)
    const store = useInstrumentsStore()
    const end = store.look()
    await vi.advanceTimersByTimeAsync(5000)
    expect(get).toHaveBeenCalledTimes(1)
    end()
    get.mockResolvedValue(answer({ sources: { sources: [source] }, heard: heard(0) }) as never)
    const both = [store.look(), store.look()]
    await vi.advanceTimersByTimeAsync(5000)
    expect(get.mock.calls.length).toBeGreaterThan(8)
    both[0]!()
    both[0]!()
    const before = get.mock.calls.length
    await vi.advanceTimersByTimeAsync(2000)
    expect(get.mock.calls.length).toBeGreaterThan(before)
    both[1]!()
    const last = get.mock.calls.length
    await vi.advanceTimersByTimeAsync(5000)
    expect(get.mock.calls.length).toBe(last)
  })

  it.each([
    [0, true],
    [9, true],
    [11, false],
    [null, false],
  ])('are heard while one of them has just spoken: %s', async (age, yes) => {
    vi.spyOn(api, 'GET').mockResolvedValue(answer({ sources: { sources: [source] }, heard: heard(age) }) as never)
    const store = useInstrumentsStore()
    const end = store.look()
    await vi.advanceTimersByTimeAsync(10)
    expect(store.isSet).toBe(true)
    expect(store.isHeard).toBe(yes)
    end()
  })

  it('are pushed where a browser can, and asked for again when that breaks off', async () => {
    const streams: { onmessage?: (message: unknown) => void; onerror?: () => void; closed: boolean }[] = []
    vi.stubGlobal(
      'EventSource',
      class {
        closed = false
        constructor() {
          streams.push(this)
        }
        close() {
          this.closed = true
        }
      },
    )
    const get = vi.spyOn(api, 'GET').mockResolvedValue(answer({ sources: { sources: [source] }, heard: heard(9) }) as never)
    const store = useInstrumentsStore()
    const end = store.look()
    await vi.advanceTimersByTimeAsync(600)
    streams[0]!.onmessage!({ data: JSON.stringify(heard(0)) })
    expect(store.told?.heard?.sources[0]?.age_s).toBe(0)
    const before = get.mock.calls.length
    await vi.advanceTimersByTimeAsync(5000)
    expect(get.mock.calls.length).toBe(before)
    streams[0]!.onerror!()
    await vi.advanceTimersByTimeAsync(2000)
    expect(get.mock.calls.length).toBeGreaterThan(before)
    end()
    expect(streams[0]!.closed).toBe(true)
    vi.unstubAllGlobals()
  })
})
