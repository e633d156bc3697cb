import { describe, expect, it, vi } from 'vitest'
import { createCoreClient } from './client'
import { latestOnly } from './latest'
import { CoreError, unwrap, type WorkerRequest } from './protocol'

class FakeWorker {
  onmessage: ((event: MessageEvent) => void) | null = null
  onerror: ((event: ErrorEvent) => void) | null = null
  sent: WorkerRequest[] = []
  terminated = false
  postMessage(message: WorkerRequest) {
    this.sent.push(message)
  }
  terminate() {
    this.terminated = true
  }
  say(data: unknown) {
    this.onmessage?.({ data } as MessageEvent)
  }
}

function start(timeoutMs?: number) {
  const worker = new FakeWorker()
  return { worker, client: createCoreClient({ makeWorker: () => worker as unknown as Worker, timeoutMs }) }
}

describe('core client', () => {
  it('gives each call its own answer, in any order', async () => {
    const { worker, client } = start()
    worker.say({ kind: 'ready' })
    const first = client.call('orders', {})
    const second = client.call('view', { now_s: 1 })
    expect(JSON.parse(worker.sent[1]!.request)).toEqual({ call: 'view', args: { now_s: 1 } })
    worker.say({ kind: 'answer', id: worker.sent[1]!.id, answer: '{"ok":true,"value":2}' })
    worker.say({ kind: 'answer', id: worker.sent[0]!.id, answer: '{"ok":true,"value":1}' })
    expect(await Promise.all([first, second])).toEqual([1, 2])
  })

  it('throws an error of the core with its field and limit', async () => {
    const { worker, client } = start()
    const asked = client.call('number_for', { rod_id: 'rod-1', depth_m: 3 })
    worker.say({
      kind: 'answer',
      id: worker.sent[0]!.id,
      answer: '{"ok":false,"error":{"code":"no_solution","field":"depth_m","message":"deepest is 4 m","limit":4}}',
    })
    await expect(asked).rejects.toMatchObject({ field: 'depth_m', limit: 4, code: 'no_solution' })
    await asked.catch((error) => expect(error).toBeInstanceOf(CoreError))
  })

  it('gives up on a runtime that hangs', async () => {
    vi.useFakeTimers()
    const { worker, client } = start(1000)
    const waiting = client.call('view', { now_s: 0 })
    vi.advanceTimersByTime(1001)
    await expect(waiting).rejects.toThrow('too long')
    await expect(client.started).rejects.toThrow('too long')
    expect(client.state.value).toBe('failed')
    expect(worker.terminated).toBe(true)
    await expect(client.call('view', { now_s: 0 })).rejects.toThrow('not running')
    vi.useRealTimers()
  })

  it('takes a call that is left open for a dead worker, and says so once', async () => {
    vi.useFakeTimers()
    const worker = new FakeWorker()
    const died = vi.fn()
    const client = createCoreClient({ makeWorker: () => worker as unknown as Worker, callTimeoutMs: 500, died })
    worker.say({ kind: 'ready' })
    const first = client.call('view', { now_s: 0 })
    const second = client.call('plan', { course: 'straight' })
    vi.advanceTimersByTime(501)
    await expect(first).rejects.toThrow('unanswered')
    await expect(second).rejects.toThrow('unanswered')
    expect(died).toHaveBeenCalledTimes(1)
    expect(worker.terminated).toBe(true)
    vi.useRealTimers()
  })

  it('tells whoever waits when the worker dies after it was ready', async () => {
    const worker = new FakeWorker()
    const died = vi.fn()
    const client = createCoreClient({ makeWorker: () => worker as unknown as Worker, died })
    worker.say({ kind: 'ready' })
    const asked = client.call('view', { now_s: 0 })
    worker.onerror?.({ message: 'out of memory' } as ErrorEvent)
    await expect(asked).rejects.toThrow('stopped: out of memory')
    expect(died).toHaveBeenCalledExactlyOnceWith('out of memory')
  })

  it('ends what is open when it is left, without calling it a death', async () => {
    const worker = new FakeWorker()
    const died = vi.fn()
    const client = createCoreClient({ makeWorker: () => worker as unknown as Worker, died })
    worker.say({ kind: 'ready' })
    const asked = client.call('view', { now_s: 0 })
    client.close()
    await expect(asked).rejects.toThrow('left')
    expect(died).not.toHaveBeenCalled()
  })

  it('reports a runtime that cannot start', async () => {
    const { worker, client } = start()
    worker.say({ kind: 'failed', message: 'no wasm' })
    await expect(client.started).rejects.toThrow('no wasm')
  })

  it('unwraps plain values', () => {
    expect(unwrap<number[]>('{"ok":true,"value":[1,2]}')).toEqual([1, 2])
  })
})

describe('latestOnly', () => {
  function gate() {
    const resolvers: ((value: string) => void)[] = []
    const act = vi.fn((_: number) => new Promise<string>((resolve) => resolvers.push(resolve)))
    return { act, resolvers }
  }
  const settle = () => new Promise((resolve) => setTimeout(resolve))

  it('keeps one call in flight and then asks only for the latest', async () => {
    const { act, resolvers } = gate()
    const done = vi.fn()
    const ask = latestOnly(act, done, vi.fn())
    ;[1, 2, 3, 4].forEach((value) => ask(value))
    expect(act.mock.calls.flat()).toEqual([1])
    resolvers[0]!('one')
    await settle()
    expect(act.mock.calls.flat()).toEqual([1, 4])
    resolvers[1]!('four')
    await settle()
    expect(done.mock.calls).toEqual([
      ['one', 1],
      ['four', 4],
    ])
  })

  it('drops what was in flight when cancelled, and works on', async () => {
    const { act, resolvers } = gate()
    const done = vi.fn()
    const ask = latestOnly(act, done, vi.fn())
    ask(1)
    ask(2)
    ask.cancel()
    resolvers[0]!('one')
    await settle()
    expect(done).not.toHaveBeenCalled()
    ask(3)
    expect(act).toHaveBeenLastCalledWith(3)
  })

  it('hands errors over and goes on', async () => {
    const failed = vi.fn()
    const ask = latestOnly(() => Promise.reject(new Error('no')), vi.fn(), failed)
    ask(1)
    await settle()
    ask(2)
    await settle()
    expect(failed).toHaveBeenCalledTimes(2)
  })
})
