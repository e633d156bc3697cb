// What this browser keeps and delivers, for the login that is at it. One for the whole app.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, take, type Schemas } from '@/shared/api/client'
import { watchServerClock } from './clock'
import { makeDeliverer, type Deliverer, type Progress } from './deliver'
import { isScarce } from './room'
import { memoryOutbox, openOutbox, type Kit, type KeptTrip, type NotTaken, type Outbox, type TripEvent } from './outbox'

export const postEvents = (tripId: string, events: TripEvent[]) =>
  take(api.POST('/api/trips/{trip_id}/events/', { params: { path: { trip_id: tripId } }, body: { events } }))

const startTrip = (body: Schemas['NewTrip']) => take(api.POST('/api/trips/', { body }))

/** Why a tap could not be kept anywhere. */
export class NotKeptError extends Error {
  constructor(reason: string) {
    super(`NOT KEPT: ${reason} Free some space on this device, then tap it again.`)
    this.name = 'NotKeptError'
  }
}

const IDLE: Progress = { state: 'kept', waiting: 0, notTaken: 0, note: null }

export const useDeliveryStore = defineStore('delivery', () => {
  const clock = watchServerClock()
  const progress = ref<Progress>(IDLE)
  const notTaken = shallowRef<NotTaken[]>([])
  const owner = ref<string | null>(null)
  const lasting = ref(true)
  /** Room on this device runs out: said before anything is lost. */
  const scarce = ref(false)
  /** Counts up when what is kept of a trip has changed otherwise than by a tap here. */
  const changes = ref<{ tripId: string; count: number }>({ tripId: '', count: 0 })
  let opening: Promise<Outbox> | null = null
  let deliverer: Deliverer | null = null
  let asked = false

  const linkDown = computed(() => progress.value.state === 'down')

  function outbox(): Promise<Outbox> {
    opening ??= openOutbox().catch(() => {
      lasting.value = false
      return memoryOutbox()
    })
    return opening
  }

  function changed(tripId: string): void {
    changes.value = { tripId, count: changes.value.count + 1 }
  }

  /** Whose taps are kept from now on; null when nobody is logged in. All trips' are sent at once. */
  async function belongTo(name: string | null): Promise<void> {
    if (name === owner.value && deliverer) return
    deliverer?.close()
    deliverer = null
    owner.value = name
    progress.value = IDLE
    notTaken.value = []
    if (name === null) return
    const kept = await outbox()
    if (owner.value !== name) return
    deliverer = makeDeliverer({
      outbox: kept,
      owner: name,
      post: postEvents,
      start: startTrip,
      skewS: clock.skewS,
      changed,
      progress: (now, refused) => {
        if (owner.value !== name) return
        notTaken.value = refused
        progress.value = now
      },
    })
    void deliverer.flush()
    scarce.value = await isScarce()
  }

  function mine(): string {
    if (owner.value === null) throw new Error('Nobody is logged in.')
    return owner.value
  }

  /** Keep a tap until it is delivered. Throws NotKeptError when nothing could keep it. */
  async function keep(tripId: string, event: TripEvent): Promise<void> {
    const kept = await outbox()
    if (!asked) {
      asked = true
      // The only copy there is until it is delivered: ask the browser not to clear it away.
      void navigator.storage?.persist?.().catch(() => false)
    }
    try {
      await kept.put({ owner: mine(), tripId, event, skewS: clock.skewS() })
    } catch (full) {
      try {
        await postEvents(tripId, [event])
        return
      } catch {
        throw new NotKeptError(`this browser's storage takes nothing more (${reasonOf(full)}), and there is no link.`)
      }
    }
    await deliverer?.kept()
  }

  const flush = async (): Promise<void> => deliverer?.flush()

  async function waiting(tripId: string): Promise<TripEvent[]> {
    return (await (await outbox()).waiting(mine())).filter((row) => row.tripId === tripId).map((row) => row.event)
  }

  const keptTrip = async (tripId: string): Promise<KeptTrip | undefined> => (await outbox()).keptTrip(mine(), tripId)

  /** A copy for opening without a link. With no room for it the trip goes on all the same. */
  async function keepTrip(kept: KeptTrip): Promise<void> {
    await (await outbox()).keepTrip(mine(), kept).catch(() => undefined)
  }

  /** Carry along what trips are begun from; with no room for it, one begins with a link. */
  async function carry(kit: Kit): Promise<void> {
    if (owner.value !== null) await (await outbox()).carry(owner.value, kit).catch(() => undefined)
  }

  const carried = async (): Promise<Kit | undefined> => (await outbox()).carried(mine())

  /** Begin a trip here: it is kept with what it was begun from, and told when there is a server. */
  async function begin(kept: KeptTrip, body: Schemas['NewTrip']): Promise<void> {
    const box = await outbox()
    try {
      await box.keepTrip(mine(), kept)
      await box.begin({ tripId: kept.trip.id, owner: mine(), body, skewS: clock.skewS() })
    } catch (full) {
      throw new NotKeptError(`this browser's storage takes nothing more (${reasonOf(full)}).`)
    }
  }

  /** Whether a trip was begun here and the server has not heard of it yet. */
  const isNew = async (tripId: string): Promise<boolean> =>
    (await (await outbox()).started(mine())).some((start) => start.tripId === tripId)

  /** Send one that was not taken once more, as it was or mended. */
  async function sendAgain(row: NotTaken, event: TripEvent): Promise<void> {
    await (await outbox()).sendAgain(row.id, event, clock.skewS())
    changed(row.tripId)
    await deliverer?.flush()
    // Taken while the trip was being read, it is neither waiting nor known: the trip is read once more.
    changed(row.tripId)
  }

  async function drop(row: NotTaken): Promise<void> {
    await (await outbox()).drop(row.id)
    changed(row.tripId)
    await deliverer?.flush()
  }

  const others = async (): Promise<{ owner: string; count: number }[]> => (await outbox()).others(owner.value)

  return {
    progress,
    notTaken,
    owner,
    lasting,
    scarce,
    changes,
    linkDown,
    belongTo,
    keep,
    flush,
    waiting,
    keptTrip,
    keepTrip,
    carry,
    carried,
    begin,
    isNew,
    sendAgain,
    drop,
    others,
    nowS: clock.nowS,
  }
})

function reasonOf(error: unknown): string {
  return error instanceof Error ? error.name : String(error)
}
