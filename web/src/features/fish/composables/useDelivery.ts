// Delivery of events: at once when the link is up, later when it is not, each exactly once.
import { ref, type Ref } from 'vue'
import { LinkDownError } from '@/shared/api/client'
import { CoreError } from '@/shared/core/protocol'
import { postEvents, type TripEvent } from '../api'
import { refusedIndex } from '../logic/events'
import type { Outbox } from '../outbox'

const RETRY_MS = 4000
const BATCH = 200

export interface Delivery {
  pending: Ref<number>
  linkDown: Ref<boolean>
  send(event: TripEvent): Promise<void>
  flush(): Promise<void>
  close(): void
}

export interface DeliveryOptions {
  tripId: string
  outbox: Outbox
  /** The server refused an event for good: it has been taken out. */
  refused: (event: TripEvent, error: CoreError) => void
}

export function useDelivery(options: DeliveryOptions): Delivery {
  const { tripId, outbox, refused } = options
  const pending = ref(0)
  const linkDown = ref(false)
  let running: Promise<void> | null = null
  let again = false
  let timer: ReturnType<typeof setTimeout> | undefined

  async function round(): Promise<boolean> {
    const events = (await outbox.waiting(tripId)).slice(0, BATCH)
    pending.value = events.length
    if (events.length === 0) return false
    try {
      await postEvents(tripId, events)
      await outbox.remove(events.map((event) => event.id))
    } catch (error) {
      if (!(error instanceof CoreError)) throw error
      // All or none: take out the one at fault and offer the rest again.
      const bad = events[refusedIndex(error.field) ?? 0]!
      await outbox.remove([bad.id])
      refused(bad, error)
    }
    linkDown.value = false
    return true
  }

  async function run(): Promise<void> {
    try {
      while (await round());
    } catch (error) {
      linkDown.value = error instanceof LinkDownError
      clearTimeout(timer)
      timer = setTimeout(() => void flush(), RETRY_MS)
    }
  }

  async function flush(): Promise<void> {
    if (running) {
      again = true
      return running
    }
    running = run().finally(() => {
      running = null
      if (again) {
        again = false
        void flush()
      }
    })
    return running
  }

  const online = (): void => void flush()
  window.addEventListener('online', online)

  return {
    pending,
    linkDown,
    async send(event) {
      await outbox.put(tripId, event)
      pending.value += 1
      void flush()
    },
    flush,
    close() {
      clearTimeout(timer)
      window.removeEventListener('online', online)
    },
  }
}
