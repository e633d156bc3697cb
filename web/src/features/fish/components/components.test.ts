import { mount, type VueWrapper } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { h, type Component } from 'vue'
import { VApp } from 'vuetify/components'
import { makeVuetify } from '@/app/vuetify'
import type { BottomCall, FishView, Move, RodLine, RodView } from '@/features/trip/api'
import MethodCard from './MethodCard.vue'
import NextMove from './NextMove.vue'
import NumberDialog from './NumberDialog.vue'
import AheadCalls from './AheadCalls.vue'
import RodTile from './RodTile.vue'
import SpeedRuler from './SpeedRuler.vue'

const FT = 0.3048
const MPH = 0.44704

const line: RodLine = {
  rod_id: 'rod-1',
  number: { kind: 'counter', setting_m: 44 * FT, colours: 0, rest_m: 0, backing_m: 0 },
  depth_m: 44 * FT,
  doubt_m: 2 * FT,
  shallow_m: 42 * FT,
  deep_m: 46 * FT,
  trail_m: 9,
  at_surface: false,
  verdict: 'works',
  clearance_m: 5,
  paths: [],
  ball_depth_m: 13.4,
}

const rod: RodView = {
  id: 'rod-1',
  name: 'Rod 1',
  shape: 'circle',
  kind: 'downrigger',
  place_name: 'port rigger',
  side_m: -1,
  tip_height_m: 0.8,
  recipe: 'thin spoon, copper',
  status: 'fishing',
  works: { low_mps: 0.6, high_mps: 1.2 },
  verdict: 'works',
  soak_since_s: 1000,
  bait_since_s: null,
  tally: { hits: 2, hooked: 1, landed: 1, kept: 0, lost: 0 },
  setup: { rod_id: 'rod-1', place_id: 'p', line_id: 'l', lure_id: 'u', attractor_id: null, leader_m: 0, setback_m: 6 },
  line,
  last_setting_m: 44 * FT,
  wanted_depth_m: null,
  readings: [],
}

const move: Move = {
  answer: {
    key: 'depth:1',
    kind: 'depth',
    title: 'Set a rod to this depth',
    rod_id: 'rod-1',
    change: { line_set: { rod_id: 'rod-1', setting_m: 13, wanted_depth_m: 40 * FT }, speed_changed: null, rod_rigged: null },
  },
  reason: 'Fish were marked.',
  basis: 'marks',
  source: 'Marks of the last 40 minutes',
  cost_min: 1,
  judge_after_min: 30,
  probability: null,
}

const view: FishView = {
  now_s: 2000,
  speed_mps: 1.6 * MPH,
  bottom_m: 20,
  above_mark_m: 0.6,
  marks_school: 'above',
  bites: [],
  passing: null,
  funnel: null,
  earlier: null,
  others: [{ title: 'Change Rod 1 to gold', gain_hits: -0.24, probability: 0.41 }],
  rods: [rod],
  current: null,
  passes: null,
  wind: null,
  window: null,
  surface_degc: 10,
  surface_age_s: 600,
  surface_old: false,
  unread: [],
  profile: [],
  comfort: { low_degc: 10, high_degc: 15, layers: [] },
  marks: [],
  method: null,
  move,
  comparison: null,
  judged: [],
  temperatures: [],
  ribbon: [],
  undo_event_id: null,
  undo_event_type: null,
  ended: false,
  ahead: null,
  clearance_m: 4 * FT,
}

let mounted: VueWrapper | null = null
afterEach(() => {
  mounted?.unmount()
  mounted = null
})

function show(component: Component, props: Record<string, unknown>): VueWrapper {
  const app = mount(VApp, { global: { plugins: [makeVuetify()] }, slots: { default: () => h(component, props) } })
  mounted = app as unknown as VueWrapper
  return app.findComponent(component) as VueWrapper
}
const get = (wrapper: VueWrapper, name: string) => wrapper.get(`[data-test=${name}]`)

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
})

describe('RodTile', () => {
  const tile = (changes: Partial<RodView> = {}) =>
    show(RodTile, { rod: { ...rod, ...changes }, index: 0, nowS: 1000 + 65 * 60, selected: false, ended: false })

  it('shows the number to set, the depth with its doubt, the soak clock and the tally', () => {
    const wrapper = tile()
    expect(get(wrapper, 'number-rod-1').text()).toBe('44 ft cable')
    expect(get(wrapper, 'depth-rod-1').text()).toBe('44 ft ± 2')
    expect(get(wrapper, 'soak-rod-1').text()).toBe('soak 1 h 05')
    expect(get(wrapper, 'tally-rod-1').text()).toBe('2 hits · 1 on · 1 in')
  })

  it('offers what can happen next and nothing else', () => {
    expect(tile().find('[data-test=hit-rod-1]').exists()).toBe(true)
    expect(tile().find('[data-test=landed-rod-1]').exists()).toBe(false)
    const playing = tile({ status: 'fish_on', line: null })
    expect(get(playing, 'number-rod-1').text()).toBe('fish on')
    expect(playing.find('[data-test=landed-rod-1]').exists()).toBe(true)
    const inside = tile({ status: 'in', line: null })
    expect(get(inside, 'reset-rod-1').text()).toBe('Reset to its number')
    expect(get(tile({ status: 'in', line: null, last_setting_m: null }), 'reset-rod-1').text()).toBe('Set its depth')
  })

  it('shows a rod that cannot be solved as a fault of that rod, and asks about a long fight', () => {
    expect(get(tile({ line: null, fault: 'setting_m (120) must be <= 40.0 m' }), 'fault-rod-1').text()).toContain('<= 40.0 m')
    expect(get(tile({ status: 'fish_on', line: null, long_fight_s: 1380 }), 'long-fight-rod-1').text()).toContain('23 min')
    expect(tile().find('[data-test=fault-rod-1]').exists()).toBe(false)
  })

  it('tells its acts to the page', async () => {
    const wrapper = tile()
    await get(wrapper, 'hit-rod-1').trigger('click')
    await get(wrapper, 'hooked-rod-1').trigger('click')
    expect(wrapper.emitted('act')).toEqual([['hit'], ['hooked']])
  })

  it('says in words when the lure does not work or is in the bottom', () => {
    expect(get(tile({ verdict: 'too_fast' }), 'verdict-rod-1').text()).toBe('too fast')
    expect(tile({ line: { ...line, clearance_m: -1 } }).text()).toContain('in the bottom')
    expect(tile({ line: { ...line, at_surface: true, depth_m: 0 } }).text()).toContain('at the surface')
  })
})

describe('NextMove', () => {
  const card = (changes: Partial<FishView> = {}) => show(NextMove, { view: { ...view, ...changes }, rodIndex: () => 0, busy: false })

  it('shows the one change with its reason, source, cost and when to judge it', () => {
    const wrapper = card()
    expect(get(wrapper, 'move-what').text()).toBe('Set Rod 1 to 40 ft')
    expect(get(wrapper, 'move-why').text()).toBe('Fish were marked.')
    expect(wrapper.text()).toMatch(/Marks of the last 40 minutes.*takes 1 min.*judge after 30 min/s)
  })

  it('hands the move over whole when it is taken or put off', async () => {
    const wrapper = card()
    await get(wrapper, 'do-it').trigger('click')
    await get(wrapper, 'not-now').trigger('click')
    expect(wrapper.emitted('take')).toEqual([[move]])
    expect(wrapper.emitted('refuse')).toEqual([[move]])
  })

  it('says to keep fishing when nothing speaks for a change', () => {
    const wrapper = card({ move: null })
    expect(get(wrapper, 'move-what').text()).toBe('Keep fishing')
    expect(wrapper.find('[data-test=do-it]').exists()).toBe(false)
    expect(get(card({ move: null, rods: [{ ...rod, line: null }] }), 'move-why').text()).toContain('first line')
  })

  it('says what a move is worth, and what else was weighed', () => {
    const told = card({ move: { ...move, gain_hits: 1.26, lasts_min: 120 } })
    expect(told.text()).toContain('worth +1.3 hits')
    expect(told.get('[data-test=others]').text()).toContain('change rod 1 to gold, −0.2 hits (41 %)')
    expect(card({ others: [] }).find('[data-test=others]').exists()).toBe(false)
  })

  it('names the cures of a funnel, and counts earlier days as it is told', async () => {
    const cures = ['Ease the drag.', 'A net.']
    const funnel = {
      hits: 9,
      hooked: 9,
      landed: 2,
      lost: 7,
      verdict: 'few_landed',
      probability: 0.95,
      words: '7 of 9 came off.',
      cures,
    } as const
    const wrapper = card({ funnel: { ...funnel, cures: [...cures] }, earlier: { days: ['Last week'], like: 0.9, share: 'half' } })
    expect(wrapper.find('[data-test=cures]').exists()).toBe(false)
    expect(wrapper.get('[data-test=funnel]').text()).toContain('7 of 9')
    await wrapper.get('.behind').trigger('click')
    expect(wrapper.findAll('[data-test=cures] li').map((item) => item.text())).toEqual(cures)
    await wrapper.get('[data-test=earlier-none]').setValue(true)
    expect(wrapper.emitted('earlier')).toEqual([['none']])
  })

  it('calls weak evidence what it is', () => {
    const exposure = { hits: 2, minutes: 60 }
    const comparison = {
      ahead_rod_id: 'rod-1',
      behind_rod_id: 'rod-1',
      ahead: exposure,
      behind: exposure,
      result: { probability: 0.71, verdict: 'too_early' as const },
    }
    expect(get(card({ comparison }), 'evidence').text()).toContain('too early to tell (71 %)')
  })
})

describe('MethodCard', () => {
  const method = {
    id: 'cover_water',
    name: 'Cover water',
    school: 'Cover water',
    reason: 'Few are active.',
    speed_low_mps: 2.7 * MPH,
    speed_high_mps: 3.5 * MPH,
    depth_top_m: 0,
    depth_base_m: 10 * FT,
    setback_low_m: 100 * FT,
    setback_high_m: 200 * FT,
    gear: 'spoons',
    caution: '',
    alternatives: ['cover_water', 'stay_slow'],
    topic: 'cold_morning',
  }

  it('shows the bands, names the school and lets the other be chosen', async () => {
    const wrapper = show(MethodCard, { view: { ...view, method } })
    expect(get(wrapper, 'method-speed').text()).toBe('2.7–3.5 mph')
    expect(get(wrapper, 'method-school').text()).toBe('Cover water')
    await get(wrapper, 'school-stay_slow').trigger('click')
    expect(wrapper.emitted('school')).toEqual([['stay_slow']])
  })

  it('shows a caution and defers to local rules', () => {
    const wrapper = show(MethodCard, { view: { ...view, method: { ...method, caution: 'Too warm.' } } })
    expect(wrapper.get('[role=alert]').text()).toBe('Too warm. Local rules come first.')
  })

  it('asks for the temperature first', () => {
    expect(show(MethodCard, { view: { ...view, surface_degc: null } }).text()).toContain('Take the surface temperature')
  })
})

describe('NumberDialog', () => {
  function dialog(submit: (value: number) => Promise<string | null>) {
    const wrapper = show(NumberDialog, { modelValue: true, title: 'Mark at depth', unit: 'ft', digits: 0, step: 1, initial: 14, submit })
    const field = document.querySelector<HTMLInputElement>('[data-test=number-field]')!
    const save = async (typed: string) => {
      field.value = typed
      field.dispatchEvent(new Event('input'))
      await wrapper.vm.$nextTick()
      document.querySelector<HTMLElement>('[data-test=number-save]')!.click()
      await new Promise((resolve) => setTimeout(resolve))
    }
    return { wrapper, save, error: () => document.querySelector('[data-test=number-error]')?.textContent ?? null }
  }

  it('hands over the number and closes', async () => {
    const given: number[] = []
    const { wrapper, save } = dialog(async (value) => (given.push(value), null))
    await save('22,5')
    expect(given).toEqual([22.5])
    expect(wrapper.emitted('update:modelValue')?.at(-1)).toEqual([false])
  })

  it('keeps what was typed and says what is wrong', async () => {
    const { wrapper, save, error } = dialog(async () => 'Depth: at most 62 ft, the bottom.')
    await save('deep')
    expect(error()).toContain('“deep” is no number')
    await save('99')
    expect(error()).toBe('Depth: at most 62 ft, the bottom.')
    expect(wrapper.emitted('update:modelValue')).toBeUndefined()
  })
})

describe('AheadCalls', () => {
  const call: BottomCall = {
    rod_id: 'rod-1',
    part: 'ball',
    act: 'raise',
    in_s: 75,
    in_m: 60,
    by_m: 1.7,
    bottom_m: 8,
    number: { kind: 'counter', setting_m: 38 * FT },
    chance: 0.9,
    sure: 'meets',
    urgency: 'soon',
  }
  const calls = (changes: Partial<BottomCall>) =>
    show(AheadCalls, {
      view: {
        ...view,
        ahead: {
          source: 'chart',
          age_s: 120,
          ground_mps: 0.8,
          level_m: -1.5,
          profile: [],
          calls: [{ ...call, ...changes }],
          known: true,
          place_doubt_m: 30,
        },
      },
      rodIndex: () => 0,
    })

  it('rounds up what has to be raised, and says when and over what', () => {
    // 1.7 m is 5.6 ft: five would be too little.
    const text = calls({}).text()
    expect(text).toContain('Raise Rod 1 by 6 ft, or turn')
    expect(calls({ sure: 'may' }).text()).toContain('may touch')
    expect(text).toContain('within 98 ft')
    expect(text).toContain('in 75 s, 197 ft on: meets bottom, 26 ft')
    expect(text).toContain('water 5 ft below it')
  })

  it('offers the number that clears it, and none where there is none', async () => {
    const wrapper = calls({})
    await get(wrapper, 'set-call-rod-1').trigger('click')
    expect(wrapper.emitted('set')).toHaveLength(1)
    const stuck = calls({ act: 'bring_in', number: null })
    expect(stuck.text()).toContain('Bring Rod 1 in, or turn')
    expect(stuck.find('[data-test=set-call-rod-1]').exists()).toBe(false)
  })

  it('keeps quiet about what is more than five minutes away', () => {
    expect(calls({ in_s: 400, urgency: 'later' }).find('[data-test=ahead]').exists()).toBe(false)
  })
})

describe('SpeedRuler', () => {
  it('lets go of a speed that was only tried when the system takes the finger away', async () => {
    Element.prototype.setPointerCapture = () => undefined
    const wrapper = show(SpeedRuler, { view, tried: null, preview: null, rodIndex: () => 0 })
    const slider = get(wrapper, 'speed-slider')
    await slider.trigger('pointerdown')
    expect(wrapper.emitted('try')).toHaveLength(1)
    await slider.trigger('pointercancel')
    expect(wrapper.emitted('letGo')).toHaveLength(1)
    // And a mere hover afterwards goes on with nothing.
    await slider.trigger('pointermove')
    await slider.trigger('pointerup')
    expect(wrapper.emitted('try')).toHaveLength(1)
    expect(wrapper.emitted('set')).toBeUndefined()
  })
})
