import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { readIn, shownIn, settled, type Measure, type Typed } from '@/shared/units/measures'
import { useDisplayStore } from '@/shared/units/store'
import NumberField from './NumberField.vue'

const MEASURES: Measure[] = ['short', 'long', 'weight', 'ball', 'speed', 'temperature', 'minutes', 'hours', 'degrees', 'share', 'count']

function field(value: Typed, measure: Measure = 'long') {
  const wrapper = mount(NumberField, {
    props: { label: 'depth', measure, modelValue: value, 'onUpdate:modelValue': (now: Typed) => wrapper.setProps({ modelValue: now }) },
  })
  const input = wrapper.get('input')
  return { wrapper, input, text: () => (input.element as HTMLInputElement).value, value: () => wrapper.props('modelValue') as Typed }
}

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
})

describe('NumberField', () => {
  it.each(MEASURES)('changes nothing when the units are changed and nobody types: %s', async (measure) => {
    const display = useDisplayStore()
    for (let round = 0; round < 60; round += 1) {
      // Any SI value, seeded: it comes back to the last bit.
      const si = ((round * 7919 + 13) % 1000) / 7.3 + 0.001
      const { value, text, wrapper } = field(si, measure)
      display.toggleUnits()
      if (round % 3 === 0) display.toggleNautical()
      await nextTick()
      expect(text()).toBe(shownIn(si, measure, display.units))
      expect(value()).toBe(si)
      expect(wrapper.emitted('update:modelValue')).toBeUndefined()
      wrapper.unmount()
    }
  })

  it('reads what is typed in the units that are shown', async () => {
    const display = useDisplayStore()
    const { input, value, text, wrapper } = field(18.9)
    expect(text()).toBe('62.01')
    await input.setValue('50')
    expect(value()).toBeCloseTo(50 * 0.3048, 12)
    display.toggleUnits()
    await nextTick()
    expect(value()).toBeCloseTo(15.24, 12)
    expect(text()).toBe('15.24')
    expect(wrapper.text()).toContain('depth, m')
  })

  it('leaves the text alone under the fingers', async () => {
    const { input, text, value } = field(null)
    await input.setValue('7.')
    expect(text()).toBe('7.')
    await input.trigger('blur')
    expect(text()).toBe('7')
    expect(value()).toBeCloseTo(7 * 0.3048, 12)
  })

  it('keeps what is no number as it was typed, and says so when it is needed', async () => {
    const { input, value, text } = field(18.9)
    await input.setValue('deep')
    await input.trigger('blur')
    expect([value(), text()]).toEqual(['deep', 'deep'])
    expect(() => settled(value(), 'Deepest')).toThrow('Deepest: “deep” is no number.')
    await input.setValue(' ')
    expect(value()).toBeNull()
    expect(() => settled(value(), 'Deepest')).toThrow('Deepest is needed.')
  })
})

describe('measures', () => {
  it('know water by two temperatures and a ball by its pounds', () => {
    const us = { length: 'ft', temperature: '°F', speed: 'mph' } as const
    // Water freezes at 32 °F and boils at 212; a pound is 0.45359237 kg by definition.
    expect(shownIn(0, 'temperature', us)).toBe('32')
    expect(readIn('212', 'temperature', us)).toBeCloseTo(100, 9)
    expect(readIn('10', 'ball', us)).toBeCloseTo(4.5359237, 9)
    expect(readIn('-7', 'hours', us)).toBe(-420)
  })
})
