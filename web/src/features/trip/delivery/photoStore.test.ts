import { IDBFactory } from 'fake-indexeddb'
import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { api } from '@/shared/api/client'
import { openPhotoBox } from './photos'
import { usePhotoStore } from './photoStore'
import { useDeliveryStore } from './store'

const shrunk = { jpeg: new Uint8Array([1, 2]).buffer, thumb: '' }
const put = vi.fn()
const answer = (status: number, error?: object) => ({
  ...(error ? { error } : { data: {} }),
  response: new Response('{}', { status, headers: { 'X-Coldwake-Version': '1' } }),
})
const inBox = async () => (await openPhotoBox()).all('me')

beforeEach(async () => {
  globalThis.indexedDB = new IDBFactory()
  setActivePinia(createPinia())
  put.mockReset().mockResolvedValue(answer(200))
  vi.spyOn(api, 'PUT').mockImplementation(put as never)
  vi.spyOn(api, 'POST').mockImplementation((async () => answer(200)) as never)
  await useDeliveryStore().belongTo('me')
})
afterEach(async () => {
  await useDeliveryStore().belongTo(null)
  vi.restoreAllMocks()
})

describe('a photo with what is recorded', () => {
  it('is named by the event and sent to its trip', async () => {
    const photos = usePhotoStore()
    const record = vi.fn().mockResolvedValue(true)
    expect(await photos.keepWith('trip', shrunk, record)).toBe(true)
    const [id] = record.mock.calls[0] as [string]
    await vi.waitFor(() => expect(put).toHaveBeenCalledTimes(1))
    expect(put.mock.calls[0]![1]).toMatchObject({ params: { path: { trip_id: 'trip', photo_id: id } } })
    await vi.waitFor(async () => expect(await inBox()).toEqual([]))
  })

  it('is kept before the record names it, and goes with a record that is refused', async () => {
    const photos = usePhotoStore()
    let kept = -1
    const stands = await photos.keepWith('trip', shrunk, async () => {
      kept = (await inBox()).length
      return false
    })
    expect([stands, kept]).toEqual([false, 1])
    expect(await inBox()).toEqual([])
    expect(put).not.toHaveBeenCalled()
  })

  it('is not needed for a record', async () => {
    const record = vi.fn().mockResolvedValue(true)
    expect(await usePhotoStore().keepWith('trip', null, record)).toBe(true)
    expect(record).toHaveBeenCalledWith(null)
  })

  it('that is refused is listed with its reason until it is sent again or dropped', async () => {
    put.mockResolvedValueOnce(answer(422, { code: 'invalid_input', field: 'photo', message: 'no picture' }))
    const photos = usePhotoStore()
    await photos.keepWith('trip', shrunk, async () => true)
    await vi.waitFor(() => expect(photos.refused.map((row) => row.refused)).toEqual(['no picture']))
    await photos.sendAgain(photos.refused[0]!)
    expect(photos.refused).toEqual([])
    expect(await inBox()).toEqual([])
  })
})
