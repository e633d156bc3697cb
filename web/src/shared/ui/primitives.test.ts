import { mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { describe, expect, it } from 'vitest'
import type { Component } from 'vue'
import { makeVuetify } from '@/app/vuetify'
import ChoiceRow from './ChoiceRow.vue'
import EmptyState from './EmptyState.vue'
import ErrorNote from './ErrorNote.vue'
import NumberStepper from './NumberStepper.vue'
import PickList from './PickList.vue'
import SelectField from './SelectField.vue'
import TextField from './TextField.vue'

const show = (component: Component, props: Record<string, unknown>, attrs: Record<string, unknown> = {}) =>
  mount(component, { props, attrs, global: { plugins: [createPinia(), makeVuetify()] } })

describe('shared parts', () => {
  it('the stepper says to which side it was pressed, and what was typed', async () => {
    const wrapper = show(NumberStepper, { modelValue: '12', label: 'Depth', unit: 'ft' }, { 'data-test': 'depth' })
    await wrapper.get('[aria-label=More]').trigger('click')
    await wrapper.get('[aria-label=Less]').trigger('click')
    expect(wrapper.emitted('step')).toEqual([[1], [-1]])
    await wrapper.get('[data-test=depth]').setValue('15')
    expect(wrapper.emitted('update:modelValue')).toEqual([['15']])
    expect(wrapper.get('input').attributes('aria-label')).toBe('Depth')
  })

  it('a list says which of it was picked, and shows which is', async () => {
    const items = [
      { value: 1, title: 'Skiff', note: '2 rods' },
      { value: 2, title: 'Kayak' },
    ]
    const wrapper = show(PickList, { modelValue: 1, label: 'Boats', items })
    const [skiff, kayak] = wrapper.findAll('button')
    expect(skiff!.attributes('aria-pressed')).toBe('true')
    expect(kayak!.attributes('aria-pressed')).toBe('false')
    await kayak!.trigger('click')
    expect(wrapper.emitted('update:modelValue')).toEqual([[2]])
    expect(skiff!.text()).toContain('2 rods')
  })

  it('one of many is chosen by its name and keeps being a number', async () => {
    const items = [
      { value: 3, title: 'Skiff' },
      { value: 7, title: 'Kayak' },
    ]
    const wrapper = show(SelectField, { modelValue: 3, label: 'boat', items, test: 'boat' })
    const select = wrapper.get<HTMLSelectElement>('[data-test=boat]')
    expect(select.element.selectedOptions[0]!.text).toBe('Skiff')
    expect(wrapper.get('.label').text()).toBe('boat')
    await select.setValue(7)
    expect(wrapper.emitted('update:modelValue')).toEqual([[7]])
    await wrapper.setProps({ silent: true })
    expect(select.attributes('aria-label')).toBe('boat')
    expect(wrapper.find('.label').exists()).toBe(false)
  })

  it('one of a few is chosen as a radio is', async () => {
    const options = [
      { value: 'a', title: 'One' },
      { value: 'b', title: 'Other' },
    ]
    const wrapper = show(ChoiceRow, { modelValue: null, label: 'which', options, test: 'which' })
    await wrapper.get('[data-test=which-b]').setValue()
    expect(wrapper.emitted('update:modelValue')).toEqual([['b']])
    expect(wrapper.get('legend').text()).toBe('which')
  })

  it('an error is said aloud, and none is nothing', () => {
    expect(show(ErrorNote, { text: 'Depth: no number.' }).get('[role=alert]').text()).toBe('Depth: no number.')
    expect(show(ErrorNote, { text: null }).find('[role=alert]').exists()).toBe(false)
  })

  it('an empty place says what to do first and does it', async () => {
    const wrapper = show(EmptyState, { title: 'No trip yet', act: 'Start' })
    await wrapper.get('button').trigger('click')
    expect(wrapper.emitted('act')).toHaveLength(1)
    expect(show(EmptyState, { title: 'Nothing' }).find('button').exists()).toBe(false)
  })

  it('a field hands its own attributes to its input', async () => {
    const wrapper = show(TextField, { modelValue: '', label: 'name', test: 'name' }, { maxlength: '5', type: 'password' })
    expect(wrapper.get('input').attributes()).toMatchObject({ maxlength: '5', type: 'password', 'data-test': 'name' })
    await wrapper.get('input').setValue('ann')
    expect(wrapper.emitted('update:modelValue')).toEqual([['ann']])
  })
})
