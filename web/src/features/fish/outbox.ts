// Events on their way to the server: kept in the browser until it has acknowledged them.
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { TripDocument, TripEvent } from './api'

interface Schema extends DBSchema {
  outbox: { key: string; value: { id: string; tripId: string; order: number; event: TripEvent }; indexes: { order: number } }
  trips: { key: string; value: { id: string; trip: TripDocument; events: TripEvent[] } }
}

export interface Outbox {
  put(tripId: string, event: TripEvent): Promise<void>
  waiting(tripId: string): Promise<TripEvent[]>
  remove(ids: string[]): Promise<void>
  keepTrip(trip: TripDocument, events: TripEvent[]): Promise<void>
  keptTrip(tripId: string): Promise<{ trip: TripDocument; events: TripEvent[] } | undefined>
}

let counter = 0

/** Open the outbox of this browser. */
export async function openOutbox(name = 'coldwake'): Promise<Outbox> {
  const db: IDBPDatabase<Schema> = await openDB<Schema>(name, 1, {
    upgrade(fresh) {
      fresh.createObjectStore('outbox', { keyPath: 'id' }).createIndex('order', 'order')
      fresh.createObjectStore('trips', { keyPath: 'id' })
    },
  })
  return {
    async put(tripId, event) {
      // Time, then a counter: two taps within a millisecond keep their order.
      await db.put('outbox', { id: event.id, tripId, order: Date.now() + counter++ / 1e4, event })
    },
    async waiting(tripId) {
      const all = await db.getAllFromIndex('outbox', 'order')
      return all.filter((row) => row.tripId === tripId).map((row) => row.event)
    },
    async remove(ids) {
      const tx = db.transaction('outbox', 'readwrite')
      await Promise.all([...ids.map((id) => tx.store.delete(id)), tx.done])
    },
    async keepTrip(trip, events) {
      await db.put('trips', { id: trip.id, trip, events })
    },
    async keptTrip(tripId) {
      return db.get('trips', tripId)
    },
  }
}
