import type { VueWrapper } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { show } from '@/app/show.fixture'
import type { BottomCall, FishView, RodView } from '@/features/trip/api'
import MethodCard from './MethodCard.vue'
import NextMove from './NextMove.vue'
import NumberDialog from './NumberDialog.vue'
import AheadCalls from './AheadCalls.vue'
import KeepOutNote from './KeepOutNote.vue'
import RodSheet from './RodSheet.vue'
import RodTile from './RodTile.vue'
import SpeedRuler from './SpeedRuler.vue'
import { FT, MPH, line, move, rod, view } from './view.fixture'

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
    expect(told.get('[data-test=others]').text()).toContain('change Rod 1 to gold, −0.2 hits (41 %)')
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

  it('says of the last change what can be said, and the numbers behind a tap', async () => {
    const judged: FishView['judged'][number] = {
      moves: [move.answer],
      at_s: 1000,
      rod_id: 'rod-1',
      rods: 1,
      before: { hits: 1, minutes: 60 },
      after: { hits: 2, minutes: 30 },
      control_before: { hits: 5, minutes: 300 },
      control: { hits: 5, minutes: 150 },
      result: { probability: 0.7, alike: 0.8, verdict: 'too_early' },
      more_min: 60,
      lack: '',
      ended: false,
    }
    const wrapper = card({ judged: [judged] })
    expect(get(wrapper, 'judged').text()).toBe('Last change, “Set Rod 1 to 40 ft”: too early to tell; at this rate some 60 min more.')
    expect(wrapper.find('[data-test=judged-numbers]').exists()).toBe(false)
    await wrapper.get('.behind').trigger('click')
    expect(get(wrapper, 'judged-numbers').text()).toContain('the bite itself × 2.0')
  })

  it('tells what was put off and for how long, and takes its reason', async () => {
    const put_off = [
      { answer: move.answer, until_s: 2000 + 25 * 60 },
      { answer: { ...move.answer, key: 'lure:2', title: 'Put Thin spoon on Rod 1', change: {}, why: 'lacking' as const }, until_s: null },
    ] as FishView['put_off']
    const wrapper = card({ put_off })
    expect(get(wrapper, 'put-off-count').text()).toContain('Put off: 2')
    await wrapper.get('.behind').trigger('click')
    expect(get(wrapper, 'put-off').text()).toContain(
      'Put off: Set Rod 1 to 40 ft (25 min more); Put Thin spoon on Rod 1 (not aboard, all day).',
    )
    await wrapper.get('[data-test=why-busy]').setValue(true)
    expect(wrapper.emitted('why')).toEqual([[{ ...move.answer, why: 'busy' }]])
    // A depth is never left ashore; a lure may be.
    expect(wrapper.find('[data-test=why-lacking]').exists()).toBe(false)
    const lure = { ...move.answer, change: { rod_rigged: {} } } as unknown as (typeof move)['answer']
    const other = card({ put_off: [{ answer: lure, until_s: 3000 }] })
    await other.get('.behind').trigger('click')
    expect(other.find('[data-test=why-lacking]').exists()).toBe(true)
  })

  it('lets the schools’ habits advise, and says when they do', async () => {
    const weighed = card({})
    expect(weighed.find('[data-test=by-habit]').exists()).toBe(false)
    await weighed.get('.behind').trigger('click')
    await weighed.get('[data-test=advice-habits]').setValue(true)
    expect(weighed.emitted('advice')).toEqual([['habits']])
    expect(card({ advice_school: 'habits' }).get('[data-test=by-habit]').text()).toContain('not weighed')
  })

  it('calls weak evidence what it is', () => {
    const exposure = { hits: 2, minutes: 60 }
    const comparison = {
      ahead_rod_id: 'rod-1',
      behind_rod_id: 'rod-2',
      ahead: exposure,
      behind: exposure,
      result: { probability: 0.71, verdict: 'too_early' as const },
    }
    expect(get(card({ comparison }), 'evidence').text()).toBe('Rod 1 against rod-2: too early to tell (71 % for Rod 1)')
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
    off_bed_low_m: 0,
    off_bed_high_m: 0,
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

  it('tells a method near the bed from there, and in how much water', () => {
    const river = { ...method, depth_top_m: 5 * FT, depth_base_m: 8 * FT, off_bed_low_m: FT, off_bed_high_m: 0.7 }
    const wrapper = show(MethodCard, { view: { ...view, method: river } })
    expect(get(wrapper, 'method-off-bed').text()).toBe('1–2 ft')
    expect(get(wrapper, 'method-depth').text()).toBe('5–8 ft')
    expect(wrapper.text()).toContain('in water')
    const lake = show(MethodCard, { view: { ...view, method } })
    expect(lake.find('[data-test=method-off-bed]').exists()).toBe(false)
    expect(lake.text()).not.toContain('in water')
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

describe('RodSheet', () => {
  const words = async (metres: number, tapping: boolean) => {
    const sheet = { ...rod, bottom_tap: tapping, pair_mps: { first_mps: 0.6, second_mps: 0.8 } }
    const wrapper = show(RodSheet, {
      modelValue: true,
      view: { ...view, clearance_m: metres },
      rod: sheet,
      speedAtDepth: async () => ({ speed_mps: 0.7, doubt_mps: 0.1 }),
      numbersAt: async () => [],
    })
    await wrapper.vm.$nextTick()
    return [...document.querySelectorAll('[data-test=bottom-tap] + .label')].at(-1)?.textContent ?? ''
  }

  it('says where a rod is called off the bottom, and that it is called at it where no room is kept', async () => {
    expect(await words(4 * FT, false)).toContain('It is called 4 ft off the bottom.')
    expect(await words(0, false)).toContain('It is called when it comes to the bottom.')
    expect(await words(0, true)).toContain('It is called when it loses the bottom.')
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

describe('KeepOutNote', () => {
  const feature = {
    id: 'ring',
    name: 'Creek mouth',
    kind: 'closed_ring' as const,
    corners: [],
    radius_m: 50,
    rule: 'no fishing within 150 ft',
    origin: 'board at the ramp',
    entered_on: '2026-04-01',
  }
  const note = (...keep_out: Partial<FishView['keep_out'][number]>[]) =>
    show(KeepOutNote, {
      view: {
        ...view,
        keep_out: keep_out.map((one) => ({ feature, state: 'ahead', in_s: 80, in_m: 80, beyond_m: 90, place_doubt_m: 10, ...one })),
      },
    })

  it('is not there where nothing is near', () => expect(note().find('button').exists()).toBe(false))

  it('says when to turn, and by whose word, in the units of the reader', () => {
    const text = note({ beyond_m: 100 * FT, place_doubt_m: 30 * FT }).text()
    expect(text).toContain('Creek mouth in 80 s: turn before it')
    expect(text).toContain('closed water, 100 ft off, place within 30 ft')
    expect(text).toContain('“no fishing within 150 ft”, as you read it on 2026-04-01: board at the ramp')
  })

  it('tells being inside from what may be, and a hazard from closed water', () => {
    expect(note({ state: 'inside', in_s: 0, beyond_m: -20 * FT }).text()).toContain('Inside Creek mouth: turn out of it')
    expect(note({ state: 'inside', in_s: 0, beyond_m: -20 * FT }).text()).toContain('20 ft past its edge')
    expect(note({ state: 'may_be_inside', in_s: 0 }).text()).toContain('May be inside Creek mouth: turn away')
    const rock = note({ feature: { ...feature, kind: 'hazard', rule: '' } }, {}).text()
    expect(rock).toContain('keep off,')
    expect(rock).not.toContain('as you read it')
    expect(rock).toContain('And 1 more near')
  })
})
