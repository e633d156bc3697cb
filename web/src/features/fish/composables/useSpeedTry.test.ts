import { describe, expect, it, vi } from 'vitest'
import type { RodLine } from '@/features/trip/api'
import { useSpeedTry } from './useSpeedTry'

const lines = (speed: number) => Promise.resolve([{ rod_id: 'rod-1', depth_m: speed }] as unknown as RodLine[])

describe('a speed that is tried', () => {
  it('stays when an earlier one has been kept meanwhile', async () => {
    const tried = useSpeedTry(lines, vi.fn())
    tried.to(1)
    tried.to(2)
    tried.end(1)
    await vi.waitFor(() => expect(tried.tried.value).toBe(2))
    expect(tried.preview.value?.[0]?.depth_m).toBe(2)
    tried.end(2)
    expect([tried.tried.value, tried.preview.value]).toEqual([null, null])
  })

  it('is let go whatever it is when a finger is taken away', async () => {
    const tried = useSpeedTry(lines, vi.fn())
    tried.to(1)
    await vi.waitFor(() => expect(tried.tried.value).toBe(1))
    tried.end()
    expect(tried.tried.value).toBeNull()
  })
})
