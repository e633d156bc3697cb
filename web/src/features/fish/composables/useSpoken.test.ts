import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, shallowRef } from 'vue'
import type { FishView } from '@/features/trip/api'
import { useDisplayStore } from '@/shared/units/store'
import { METRIC_UNITS, US_UNITS } from '@/shared/units/units'
import { FT, rod, view } from '../components/view.fixture'
import { spokenNumber, useSpoken } from './useSpoken'

const number = { kind: 'counter' as const, setting_m: 30 * FT, colours: 0, rest_m: 0, backing_m: 0 }

describe('spokenNumber', () => {
  it('says what is set on a counter, a reel, and leadcore', () => {
    expect(spokenNumber('Rod 2', number, US_UNITS)).toBe('Rod 2: counter at 30 feet')
    expect(spokenNumber('Rod 2', { ...number, kind: 'line_out', setting_m: 30 }, METRIC_UNITS)).toBe('Rod 2: 30 metres out')
    const lead = { ...number, kind: 'colours' as const, colours: 3 }
    expect(spokenNumber('Rod 5', lead, US_UNITS)).toBe('Rod 5: 3 colours')
    expect(spokenNumber('Rod 5', { ...lead, rest_m: 8 * FT }, US_UNITS)).toBe('Rod 5: 3 colours and 8 feet')
    expect(spokenNumber('Rod 5', { ...lead, colours: 1, backing_m: 20 * FT }, US_UNITS)).toBe('Rod 5: 1 colour and 20 feet of backing')
  })
})

describe('useSpoken', () => {
  const heard: string[] = []
  const scope = effectScope()
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
    heard.length = 0
    vi.stubGlobal(
      'SpeechSynthesisUtterance',
      class {
        constructor(public text: string) {}
      },
    )
    vi.stubGlobal('speechSynthesis', { cancel: () => undefined, speak: (one: { text: string }) => heard.push(one.text) })
  })
  afterEach(() => {
    vi.unstubAllGlobals()
  })
  const at = (setting_m: number | null, status: 'fishing' | 'in' = 'fishing'): FishView => ({
    ...view,
    rods: [{ ...rod, status, last_setting_m: setting_m, line: { ...rod.line!, number: { ...number, setting_m: setting_m ?? 0 } } }],
  })

  it('speaks a number that is set anew, once it is wished, and nothing else', async () => {
    const now = shallowRef<FishView | null>(null)
    scope.run(() => useSpoken(() => now.value))
    const display = useDisplayStore()
    const show = async (next: FishView) => {
      now.value = next
      await nextTick()
    }
    await show(at(44 * FT))
    await show(at(40 * FT))
    expect(heard).toEqual([])
    display.spoken = true
    await show(at(36 * FT))
    expect(heard).toEqual(['Rod 1: counter at 36 feet'])
    await show(at(36 * FT))
    await show(at(36 * FT, 'in'))
    expect(heard).toHaveLength(1)
    await show(at(36 * FT))
    expect(heard).toHaveLength(2)
    scope.stop()
  })
})
