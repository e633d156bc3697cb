// The photos of whoever is logged in: kept here first, sent when there is a link, shown when they were not taken.
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, take } from '@/shared/api/client'
import { newId } from '../logic/events'
import type { Shrunk } from '../logic/shrink'
import { deliverPhotos, openPhotoBox, type PhotoBox, type WaitingPhoto } from './photos'
import { NotKeptError, useDeliveryStore } from './store'

const RETRY_MS = 30_000

export const sendPhoto = (tripId: string, id: string, jpeg: ArrayBuffer) =>
  take(
    api.PUT('/api/trips/{trip_id}/photos/{photo_id}/', {
      params: { path: { trip_id: tripId, photo_id: id } },
      body: jpeg as unknown as string,
      bodySerializer: (body) => body,
      headers: { 'Content-Type': 'image/jpeg' },
    }),
  )

export const usePhotoStore = defineStore('photos', () => {
  const delivery = useDeliveryStore()
  const all = shallowRef<WaitingPhoto[]>([])
  const waiting = computed(() => all.value.filter((photo) => photo.refused === null))
  const refused = computed(() => all.value.filter((photo) => photo.refused !== null))
  const broken = ref(false)
  let opening: Promise<PhotoBox> | null = null
  let running: Promise<void> | null = null
  let again = false
  const unrecorded = new Set<string>()
  let timer: ReturnType<typeof setTimeout> | undefined

  const box = (): Promise<PhotoBox> => (opening ??= openPhotoBox())

  /** Keep a photo until it is delivered. Throws NotKeptError when nothing could keep it. */
  async function keep(tripId: string, id: string, jpeg: ArrayBuffer): Promise<void> {
    const owner = delivery.owner
    if (owner === null) throw new Error('Nobody is logged in.')
    try {
      await (await box()).put({ id, owner, tripId, jpeg, refused: null })
    } catch (full) {
      throw new NotKeptError(`there is no room for the photo (${full instanceof Error ? full.name : String(full)}).`)
    }
  }

  /** Record something with its photo, or without one: both are kept, or neither. */
  async function keepWith(tripId: string, photo: Shrunk | null, record: (photoId: string | null) => Promise<boolean>): Promise<boolean> {
    if (!photo) return record(null)
    const id = newId()
    unrecorded.add(id)
    await keep(tripId, id, photo.jpeg)
    const stands = await record(id)
    if (!stands) await drop(id)
    unrecorded.delete(id)
    void flush()
    return stands
  }

  async function run(): Promise<void> {
    clearTimeout(timer)
    const owner = delivery.owner
    if (owner === null) return
    try {
      const left = await deliverPhotos(
        await box(),
        owner,
        sendPhoto,
        // Not before its record stands, nor to a trip that the server has not heard of.
        async (photo) => unrecorded.has(photo.id) || delivery.isNew(photo.tripId),
      )
      if (owner === delivery.owner) all.value = left
    } catch {
      // A browser that keeps nothing has no photos either.
      broken.value = true
      return
    }
    if (waiting.value.length > 0) timer = setTimeout(() => void flush(), RETRY_MS)
  }

  /** Send what waits, once at a time; what was kept while it was being sent goes right after. */
  async function flush(): Promise<void> {
    again = true
    running ??= (async () => {
      while (again) {
        again = false
        await run()
      }
    })().finally(() => (running = null))
    await running
  }

  async function drop(id: string): Promise<void> {
    await (await box()).remove(id)
    all.value = all.value.filter((photo) => photo.id !== id)
  }

  async function sendAgain(photo: WaitingPhoto): Promise<void> {
    await (await box()).put({ ...photo, refused: null })
    await flush()
  }

  // The record goes first: whenever it has been delivered, its pictures follow.
  watch(
    () => [delivery.owner, delivery.progress.state] as const,
    ([owner, state]) => {
      if (owner === null) all.value = []
      else if (state === 'kept') void flush()
    },
    { immediate: true },
  )

  return { waiting, refused, broken, keepWith, flush, drop, sendAgain }
})
