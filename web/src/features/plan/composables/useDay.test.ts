import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { tryDay, type DayTried } from '../api'
import { useDay } from './useDay'

vi.mock('../api', () => ({ tryDay: vi.fn(), getWeather: vi.fn(), lastSurface: vi.fn(), readDayFile: vi.fn() }))

const settle = () => new Promise((resolve) => setTimeout(resolve))

describe('useDay', () => {
  beforeEach(() => setActivePinia(createPinia()))

  it('is at rest when the newest day is answered, not when an older one is', async () => {
    const answers: ((day: DayTried) => void)[] = []
    vi.mocked(tryDay).mockImplementation(() => new Promise((resolve) => answers.push(resolve)))
    const planning = useDay()
    planning.wishes.water_id = 1
    planning.compute()
    planning.compute()
    answers[0]!({} as DayTried)
    await settle()
    expect(planning.busy.value).toBe(true)
    answers[1]!({} as DayTried)
    await settle()
    expect(planning.busy.value).toBe(false)
  })
})
