import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { useInstrumentsStore, type Instruments } from '../store'
import { useWheelRuns } from './useWheelRuns'

const value = (quantity: string, number: number, source_id = 'gps', state = 'used') => ({ quantity, source_id, value: number, state })
let at_s = 0

async function hear(...values: ReturnType<typeof value>[]): Promise<void> {
  at_s += 1
  useInstrumentsStore().told = { sources: { sources: [] }, heard: { at_s, values } } as unknown as Instruments
  await nextTick()
}

describe('runs there and back', () => {
  beforeEach(() => setActivePinia(createPinia()))

  it('hear GPS and this wheel while they are sailed, and nothing in the turn between', async () => {
    const asked = vi.spyOn(useInstrumentsStore(), 'wheelByRuns').mockResolvedValue(1.2)
    const runs = useWheelRuns(
      () => 'wheel',
      () => 1.1,
    )
    const both = [value('ground_speed', 0.8), value('course', 10), value('water_speed', 0.5, 'wheel', 'other')]
    await hear(...both)
    expect(await runs.go()).toBeNull()
    await hear(...both)
    await hear(value('ground_speed', 0.8), value('course', 10))
    await hear(...both, value('water_speed', 9, 'another'))
    expect(runs.count.value).toBe(2)
    await runs.go()
    await hear(...both)
    await runs.go()
    await hear(value('ground_speed', 0.4), value('course', 190), value('water_speed', 0.5, 'wheel'))
    expect(await runs.go()).toBe(1.2)
    const there = { ground_mps: 0.8, wheel_mps: 0.5, course_deg: 10 }
    expect(asked).toHaveBeenCalledWith({
      there: [there, there],
      back: [{ ground_mps: 0.4, wheel_mps: 0.5, course_deg: 190 }],
      present: 1.1,
    })
  })

  it('tell of nothing while the wheel or the GPS is silent', async () => {
    const runs = useWheelRuns(
      () => 'wheel',
      () => 1,
    )
    await hear(value('ground_speed', 0.8), value('course', 10), value('water_speed', 0.5, 'wheel', 'stale'))
    expect(runs.now.value).toBeNull()
  })
})
