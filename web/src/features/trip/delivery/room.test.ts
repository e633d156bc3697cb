import { describe, expect, it } from 'vitest'
import { ENOUGH, isScarce } from './room'

const told = (answer: StorageEstimate) => ({ estimate: () => Promise.resolve(answer) })

describe('room for what waits here', () => {
  it('is scarce when less is left than a day takes', async () => {
    expect(await isScarce(told({ quota: 2 * ENOUGH, usage: ENOUGH + 1 }))).toBe(true)
    expect(await isScarce(told({ quota: 2 * ENOUGH, usage: ENOUGH - 1 }))).toBe(false)
  })

  it('is not called scarce where the browser does not say', async () => {
    expect(await isScarce(told({}))).toBe(false)
    expect(await isScarce(undefined)).toBe(false)
    expect(await isScarce({ estimate: () => Promise.reject(new Error('no')) })).toBe(false)
  })
})
