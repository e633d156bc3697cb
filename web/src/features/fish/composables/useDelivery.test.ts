import { beforeEach, describe, expect, it, vi } from 'vitest'
import { LinkDownError } from '@/shared/api/client'
import { CoreError } from '@/shared/core/protocol'
import type { TripEvent } from '../api'
import type { Outbox } from '../outbox'

const postEvents = vi.fn()
vi.mock('../api', () => ({ postEvents: (...args: unknown[]) => postEvents(...args) }))
const { useDelivery } = await import('./useDelivery')

function memoryOutbox(): Outbox & { rows: TripEvent[] } {
  const rows: TripEvent[] = []
  return {
    rows,
    put: async (_, event) => void rows.push(event),
    waiting: async () => [...rows],
    remove: async (ids) => {
      for (const id of ids)
        rows.splice(
          rows.findIndex((row) => row.id === id),
          1,
        )
    },
    keepTrip: async () => undefined,
    keptTrip: async () => undefined,
  }
}

const event = (id: string): TripEvent => ({ id, at_s: 1, type: 'hit', payload: { rod_id: 'rod-1' } })

describe('useDelivery', () => {
  beforeEach(() => postEvents.mockReset())

  it('sends at once and forgets what was acknowledged', async () => {
    postEvents.mockResolvedValue({})
    const outbox = memoryOutbox()
    const delivery = useDelivery({ tripId: 't', outbox, refused: vi.fn() })
    await delivery.send(event('a'))
    await delivery.flush()
    await vi.waitFor(() => expect(delivery.pending.value).toBe(0))
    expect(outbox.rows).toEqual([])
    expect(postEvents.mock.calls[0]).toEqual(['t', [event('a')]])
  })

  it('keeps everything while the link is down and delivers it later', async () => {
    postEvents.mockRejectedValueOnce(new LinkDownError('down'))
    const outbox = memoryOutbox()
    const delivery = useDelivery({ tripId: 't', outbox, refused: vi.fn() })
    await delivery.send(event('a'))
    await vi.waitFor(() => expect(delivery.linkDown.value).toBe(true))
    expect(outbox.rows.map((row) => row.id)).toEqual(['a'])
    postEvents.mockResolvedValue({})
    window.dispatchEvent(new Event('online'))
    await vi.waitFor(() => expect(outbox.rows).toEqual([]))
    expect(delivery.linkDown.value).toBe(false)
    delivery.close()
  })

  it('takes out the one event the server refuses and delivers the rest', async () => {
    const error = new CoreError({ code: 'invalid_input', field: 'events[1].at_s', message: 'no', limit: null, low: null, high: null })
    const outbox = memoryOutbox()
    outbox.rows.push(event('a'), event('b'), event('c'))
    postEvents.mockRejectedValueOnce(error).mockResolvedValue({})
    const refused = vi.fn()
    const delivery = useDelivery({ tripId: 't', outbox, refused })
    await delivery.flush()
    expect(refused).toHaveBeenCalledExactlyOnceWith(event('b'), error)
    expect(postEvents.mock.calls[1]).toEqual(['t', [event('a'), event('c')]])
    expect(outbox.rows).toEqual([])
  })
})
