// Photos that wait here until the server has them: each is named by an event that goes its own way.
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { LinkDownError, SignedOutError } from '@/shared/api/client'
import { CoreError } from '@/shared/core/protocol'

export interface WaitingPhoto {
  /** The id that the record names it by. */
  id: string
  owner: string
  tripId: string
  jpeg: ArrayBuffer
  /** Why the server has not taken it; it stays until it is dropped or sent again. */
  refused: string | null
}

interface Schema extends DBSchema {
  photos: { key: string; value: WaitingPhoto; indexes: { owner: string } }
}

export interface PhotoBox {
  put(photo: WaitingPhoto): Promise<void>
  all(owner: string): Promise<WaitingPhoto[]>
  remove(id: string): Promise<void>
  close(): void
}

export async function openPhotoBox(name = 'coldwake-photos'): Promise<PhotoBox> {
  const db: IDBPDatabase<Schema> = await openDB<Schema>(name, 1, {
    upgrade: (fresh) => void fresh.createObjectStore('photos', { keyPath: 'id' }).createIndex('owner', 'owner'),
    blocking: (_from, _to, event) => (event.target as IDBDatabase).close(),
  })
  return {
    async put(photo) {
      const tx = db.transaction('photos', 'readwrite', { durability: 'strict' })
      await Promise.all([tx.store.put(photo), tx.done])
    },
    all: (owner) => db.getAllFromIndex('photos', 'owner', owner),
    remove: (id) => db.delete('photos', id),
    close: () => db.close(),
  }
}

/** Send what waits, one after the other; says what is left. What has nowhere to go yet `waits`. */
export async function deliverPhotos(
  box: PhotoBox,
  owner: string,
  send: (tripId: string, id: string, jpeg: ArrayBuffer) => Promise<unknown>,
  waits: (photo: WaitingPhoto) => Promise<boolean>,
): Promise<WaitingPhoto[]> {
  for (const photo of await box.all(owner)) {
    if (photo.refused !== null || (await waits(photo))) continue
    try {
      await send(photo.tripId, photo.id, photo.jpeg)
      await box.remove(photo.id)
    } catch (error) {
      if (error instanceof CoreError) await box.put({ ...photo, refused: error.message })
      else if (error instanceof LinkDownError || error instanceof SignedOutError) break
      else throw error
    }
  }
  return box.all(owner)
}
