// What this browser keeps of a login's trips: taps on their way, taps that were not taken, copies.
//
// A tap leaves the queue in two ways only: the server has acknowledged it, or it is shown in the
// list of those not taken. Every row belongs to the login that made it.
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { Schemas } from '@/shared/api/client'

export type TripEvent = Schemas['Event']
export type TripDocument = Schemas['Trip']

export interface Waiting {
  /** Order in the queue, given by the database: no clock has a part in it. */
  seq: number
  owner: string
  tripId: string
  event: TripEvent
  /** What was known of the server's clock when it was tapped, s; null for nothing. */
  skewS: number | null
}

export interface NotTaken {
  id: string
  owner: string
  tripId: string
  event: TripEvent
  field: string
  message: string
}

export interface KeptTrip {
  trip: TripDocument
  events: TripEvent[]
  /** The number to ask the server's events from. */
  after: number
}

/** A trip that was begun here without a server: it is told before anything that happened on it. */
export interface Start {
  tripId: string
  owner: string
  body: Schemas['NewTrip']
  /** What was known of the server's clock then, s; null for nothing. */
  skewS: number | null
}

/** What a login carries along to begin a trip from. */
export type Kit = Schemas['Kit']

export interface Outbox {
  /** Whether what is put here outlives the page. */
  lasting: boolean
  put(row: Omit<Waiting, 'seq'>): Promise<void>
  waiting(owner: string): Promise<Waiting[]>
  remove(seqs: number[]): Promise<void>
  retime(rows: Waiting[]): Promise<void>
  refuse(row: Waiting, field: string, message: string): Promise<void>
  notTaken(owner: string): Promise<NotTaken[]>
  drop(id: string): Promise<void>
  /** Put one that was not taken back into the queue, mended or as it was. */
  sendAgain(id: string, event: TripEvent, skewS: number | null): Promise<void>
  keepTrip(owner: string, kept: KeptTrip): Promise<void>
  keptTrip(owner: string, tripId: string): Promise<KeptTrip | undefined>
  begin(start: Start): Promise<void>
  started(owner: string): Promise<Start[]>
  begun(tripId: string): Promise<void>
  carry(owner: string, kit: Kit): Promise<void>
  carried(owner: string): Promise<Kit | undefined>
  /** Logins other than this one that have taps waiting here, with how many. */
  others(owner: string | null): Promise<{ owner: string; count: number }[]>
  close(): void
}

interface Schema extends DBSchema {
  queue: { key: number; value: Omit<Waiting, 'seq'> & { seq?: number }; indexes: { owner: string } }
  refused: { key: string; value: NotTaken; indexes: { owner: string } }
  copies: { key: string; value: KeptTrip & { key: string } }
  starts: { key: string; value: Start; indexes: { owner: string } }
  kits: { key: string; value: { owner: string; kit: Kit } }
}

/** Taps that an earlier version of the app left behind: nobody wrote down whose they were. */
export const UNKNOWN_OWNER = ''

const STRICT = { durability: 'strict' } as const

/** Open what this browser keeps. */
export async function openOutbox(name = 'coldwake'): Promise<Outbox> {
  const db: IDBPDatabase<Schema> = await openDB<Schema>(name, 3, {
    async upgrade(fresh, from, _to, tx) {
      fresh.createObjectStore('starts', { keyPath: 'tripId' }).createIndex('owner', 'owner')
      fresh.createObjectStore('kits', { keyPath: 'owner' })
      if (from === 2) return
      fresh.createObjectStore('queue', { keyPath: 'seq', autoIncrement: true }).createIndex('owner', 'owner')
      fresh.createObjectStore('refused', { keyPath: 'id' }).createIndex('owner', 'owner')
      fresh.createObjectStore('copies', { keyPath: 'key' })
      if (from === 1) {
        const old = tx.db as unknown as IDBPDatabase
        const rows = (await (tx as unknown as { objectStore(n: string): { index(i: string): { getAll(): Promise<unknown[]> } } })
          .objectStore('outbox')
          .index('order')
          .getAll()) as { tripId: string; event: TripEvent }[]
        for (const { tripId, event } of rows) {
          await tx.objectStore('queue').add({ owner: UNKNOWN_OWNER, tripId, event, skewS: null })
        }
        old.deleteObjectStore('outbox')
        old.deleteObjectStore('trips')
      }
    },
    // Another tab waits for a newer layout: let go, its own page takes over.
    blocking: (_from, _to, event) => (event.target as IDBDatabase).close(),
  })
  const key = (owner: string, tripId: string): string => JSON.stringify([owner, tripId])
  return {
    lasting: true,
    async put(row) {
      const tx = db.transaction('queue', 'readwrite', STRICT)
      await Promise.all([tx.store.add(row), tx.done])
    },
    async waiting(owner) {
      const mine = await db.getAllFromIndex('queue', 'owner', owner)
      const left = owner === UNKNOWN_OWNER ? [] : await db.getAllFromIndex('queue', 'owner', UNKNOWN_OWNER)
      return ([...left, ...mine] as Waiting[]).sort((a, b) => a.seq - b.seq)
    },
    async remove(seqs) {
      const tx = db.transaction('queue', 'readwrite', STRICT)
      await Promise.all([...seqs.map((seq) => tx.store.delete(seq)), tx.done])
    },
    async retime(rows) {
      const tx = db.transaction('queue', 'readwrite', STRICT)
      await Promise.all([...rows.map((row) => tx.store.put(row)), tx.done])
    },
    async refuse(row, field, message) {
      // Both or neither: it is never in no list.
      const tx = db.transaction(['queue', 'refused'], 'readwrite', STRICT)
      const { owner, tripId, event } = row
      await Promise.all([
        tx.objectStore('refused').put({ id: event.id, owner, tripId, event, field, message }),
        tx.objectStore('queue').delete(row.seq),
        tx.done,
      ])
    },
    notTaken: (owner) => db.getAllFromIndex('refused', 'owner', owner),
    async drop(id) {
      const tx = db.transaction('refused', 'readwrite', STRICT)
      await Promise.all([tx.store.delete(id), tx.done])
    },
    async sendAgain(id, event, skewS) {
      const tx = db.transaction(['queue', 'refused'], 'readwrite', STRICT)
      const row = await tx.objectStore('refused').get(id)
      if (row) {
        await Promise.all([
          tx.objectStore('queue').add({ owner: row.owner, tripId: row.tripId, event, skewS }),
          tx.objectStore('refused').delete(id),
        ])
      }
      await tx.done
    },
    async keepTrip(owner, kept) {
      await db.put('copies', { ...kept, key: key(owner, kept.trip.id) })
    },
    keptTrip: (owner, tripId) => db.get('copies', key(owner, tripId)),
    async begin(start) {
      const tx = db.transaction('starts', 'readwrite', STRICT)
      await Promise.all([tx.store.put(start), tx.done])
    },
    started: (owner) => db.getAllFromIndex('starts', 'owner', owner),
    begun: (tripId) => db.delete('starts', tripId),
    async carry(owner, kit) {
      await db.put('kits', { owner, kit })
    },
    carried: async (owner) => (await db.get('kits', owner))?.kit,
    async others(owner) {
      const counts = new Map<string, number>()
      for (const row of await db.getAll('queue')) {
        if (row.owner !== owner && row.owner !== UNKNOWN_OWNER) counts.set(row.owner, (counts.get(row.owner) ?? 0) + 1)
      }
      return [...counts].map(([name, count]) => ({ owner: name, count }))
    },
    close: () => db.close(),
  }
}

/** Where the browser keeps nothing (a private window, a policy): as long as the page is open. */
export function memoryOutbox(): Outbox {
  let queue: Waiting[] = []
  let refused: NotTaken[] = []
  const copies = new Map<string, KeptTrip>()
  const starts = new Map<string, Start>()
  const kits = new Map<string, Kit>()
  let last = 0
  return {
    lasting: false,
    put: async (row) => void queue.push({ ...row, seq: ++last }),
    waiting: async (owner) => queue.filter((row) => row.owner === owner),
    remove: async (seqs) => void (queue = queue.filter((row) => !seqs.includes(row.seq))),
    retime: async (rows) => void (queue = queue.map((row) => rows.find((mended) => mended.seq === row.seq) ?? row)),
    async refuse(row, field, message) {
      const { owner, tripId, event } = row
      refused.push({ id: event.id, owner, tripId, event, field, message })
      queue = queue.filter((other) => other.seq !== row.seq)
    },
    notTaken: async (owner) => refused.filter((row) => row.owner === owner),
    drop: async (id) => void (refused = refused.filter((row) => row.id !== id)),
    async sendAgain(id, event, skewS) {
      const row = refused.find((other) => other.id === id)
      if (!row) return
      refused = refused.filter((other) => other.id !== id)
      queue.push({ owner: row.owner, tripId: row.tripId, event, skewS, seq: ++last })
    },
    keepTrip: async (owner, kept) => void copies.set(`${owner} ${kept.trip.id}`, kept),
    keptTrip: async (owner, tripId) => copies.get(`${owner} ${tripId}`),
    begin: async (start) => void starts.set(start.tripId, start),
    started: async (owner) => [...starts.values()].filter((start) => start.owner === owner),
    begun: async (tripId) => void starts.delete(tripId),
    carry: async (owner, kit) => void kits.set(owner, kit),
    carried: async (owner) => kits.get(owner),
    others: async () => [],
    close: () => undefined,
  }
}
