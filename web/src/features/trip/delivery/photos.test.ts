import { IDBFactory } from 'fake-indexeddb'
import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { LinkDownError, SignedOutError } from '@/shared/api/client'
import { CoreError } from '@/shared/core/protocol'
import { fitted } from '../logic/shrink'
import { deliverPhotos, openPhotoBox, type PhotoBox, type WaitingPhoto } from './photos'

const refusal = new CoreError({
  code: 'invalid_input',
  field: 'photo',
  message: 'no picture',
  reason: '',
  limit: null,
  low: null,
  high: null,
  status: 422,
} as never)
const photo = (id: string, changes: Partial<WaitingPhoto> = {}): WaitingPhoto => ({
  id,
  owner: 'me',
  tripId: 'trip',
  jpeg: new Uint8Array([1, 2, 3]).buffer,
  refused: null,
  ...changes,
})
const known = async (): Promise<boolean> => false
let box: PhotoBox

beforeEach(async () => {
  globalThis.indexedDB = new IDBFactory()
  box = await openPhotoBox()
})

describe('photos on their way', () => {
  it('outlive the page, and go once each to their own trip', async () => {
    await box.put(photo('a'))
    await box.put(photo('b', { tripId: 'other' }))
    box.close()
    box = await openPhotoBox()
    const send = vi.fn().mockResolvedValue(null)
    expect(await deliverPhotos(box, 'me', send, known)).toEqual([])
    expect(send.mock.calls.map(([trip, id]) => [trip, id])).toEqual([
      ['trip', 'a'],
      ['other', 'b'],
    ])
    expect(new Uint8Array(send.mock.calls[0]![2])).toEqual(new Uint8Array([1, 2, 3]))
    await deliverPhotos(box, 'me', send, known)
    expect(send).toHaveBeenCalledTimes(2)
  })

  it.each([new LinkDownError('down'), new SignedOutError()])('wait where nobody can take them: %s', async (error) => {
    await box.put(photo('a'))
    await box.put(photo('b'))
    const send = vi.fn().mockRejectedValue(error)
    const left = await deliverPhotos(box, 'me', send, known)
    expect(left.map((row) => [row.id, row.refused])).toEqual([
      ['a', null],
      ['b', null],
    ])
    expect(send).toHaveBeenCalledTimes(1)
  })

  it('are shown with the reason when they are refused, and hold up no other', async () => {
    await box.put(photo('a'))
    await box.put(photo('b'))
    const send = vi.fn().mockRejectedValueOnce(refusal).mockResolvedValue(null)
    const left = await deliverPhotos(box, 'me', send, known)
    expect(left.map((row) => [row.id, row.refused])).toEqual([['a', 'no picture']])
    await deliverPhotos(box, 'me', send, known)
    expect(send).toHaveBeenCalledTimes(2)
  })

  it('wait for a trip that the server has not heard of, and stay with who took them', async () => {
    await box.put(photo('a', { tripId: 'new' }))
    await box.put(photo('b', { owner: 'other' }))
    const send = vi.fn().mockResolvedValue(null)
    const left = await deliverPhotos(box, 'me', send, async ({ tripId }) => tripId === 'new')
    expect(left.map((row) => row.id)).toEqual(['a'])
    expect(send).not.toHaveBeenCalled()
    expect(await box.all('other')).toHaveLength(1)
  })
})

it('a photo is made no larger than it was, and keeps its shape', () => {
  expect(fitted(4000, 3000, 1600)).toEqual([1600, 1200])
  expect(fitted(3000, 4000, 1600)).toEqual([1200, 1600])
  expect(fitted(200, 100, 1600)).toEqual([200, 100])
  expect(fitted(9000, 1, 1600)).toEqual([1600, 1])
})
