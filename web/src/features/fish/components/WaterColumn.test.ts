import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, ref } from 'vue'
import type { VueWrapper } from '@vue/test-utils'
import { show } from '@/app/show.fixture'
import type { RodLine, RodView } from '@/features/trip/api'
import { useDisplayStore } from '@/shared/units/store'
import { FT, line, rod, view } from './view.fixture'

// jsdom lays nothing out: the frame is given a size.
vi.mock('@vueuse/core', async (original) => ({
  ...(await original<object>()),
  useElementSize: () => ({ width: ref(900), height: ref(420) }),
}))
const WaterColumn = (await import('./WaterColumn.vue')).default

const at = (id: string, depthFt: number, trail_m = 12): RodLine => ({
  ...line,
  rod_id: id,
  depth_m: depthFt * FT,
  shallow_m: (depthFt - 2) * FT,
  deep_m: (depthFt + 2) * FT,
  trail_m,
  paths: [
    [
      [0, -1],
      [trail_m / 2, depthFt * FT * 0.6],
      [trail_m, depthFt * FT],
    ],
  ],
})
const rodAt = (id: string, depthFt: number): RodView => ({ ...rod, id, name: id, line: at(id, depthFt) })

const asked: [string, number][] = []
const column = (changes: object = {}, rods = [rodAt('rod-1', 44), rodAt('rod-2', 20)]): VueWrapper =>
  show(WaterColumn, {
    view: { ...view, rods },
    preview: null,
    rodIndex: (id: string) => Number(id.at(-1)) - 1,
    boatLengthM: 4.9,
    selected: null,
    numberFor: async (id: string, depthM: number) => (asked.push([id, depthM]), at(id, depthM / FT)),
    setDepth: async () => true,
    ...changes,
  })
const shape = (wrapper: VueWrapper, id: string): [number, number] => {
  const moved = wrapper.get(`[data-test=lure-${id}] .shape`).attributes('transform')!
  return moved
    .match(/translate\(([-\d.]+) ([-\d.]+)\)/)!
    .slice(1)
    .map(Number) as [number, number]
}

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
  asked.length = 0
})

describe('WaterColumn', () => {
  it('draws each lure at the end of its own line, the deeper one lower, all above the bottom', () => {
    const wrapper = column()
    const [deep, shallow] = [shape(wrapper, 'rod-1'), shape(wrapper, 'rod-2')]
    expect(deep[1]).toBeGreaterThan(shallow[1])
    const ends = wrapper.findAll('path.line').map((path) => path.attributes('d')!.split('L').at(-1)!.split(' ').map(Number))
    expect(ends[0]![0]).toBeCloseTo(deep[0], 0)
    expect(ends[0]![1]).toBeCloseTo(deep[1], 0)
    expect(ends[1]![1]).toBeCloseTo(shallow[1], 0)
    // Depth is to scale: 44 ft lies 44/20 as far under the surface as 20 ft.
    const surface = Number(wrapper.get('line.surface').attributes('y1'))
    expect((deep[1] - surface) / (shallow[1] - surface)).toBeCloseTo(44 / 20, 2)
    expect(deep[1]).toBeLessThan(420)
  })

  it('shows the line that is tried in the place of the one that is out', () => {
    const wrapper = column({ preview: [at('rod-2', 50)] })
    expect(wrapper.get('[data-test=lure-rod-2]').attributes('data-depth')).toBe(String(50 * FT))
    expect(shape(wrapper, 'rod-2')[1]).toBeGreaterThan(shape(wrapper, 'rod-1')[1])
  })

  it('has room for a line that is tried farther back than all that are out, and moves nothing for a nearer one', () => {
    const near = column({ preview: [at('rod-2', 8, 10)] })
    expect(shape(near, 'rod-1')).toEqual(shape(column(), 'rod-1'))
    const far = column({ preview: [at('rod-2', 8, 90)] })
    const [behind] = shape(far, 'rod-2')
    expect(behind).toBeGreaterThan(60)
    expect(behind).toBeLessThan(shape(far, 'rod-1')[0])
  })

  it('says depth and doubt beside the lure, and that it is in the bottom', () => {
    const wrapper = column({}, [{ ...rodAt('rod-1', 44), line: { ...at('rod-1', 44), clearance_m: -0.4 } }])
    expect(wrapper.get('.tag text').text().replace(/\s+/g, ' ')).toBe('44 ft ± 2 in the bottom')
  })

  it('asks for the number of the depth that an arrow says, a whole foot at a time, and never under the bottom', async () => {
    const wrapper = column()
    const lure = wrapper.get('[data-test=lure-rod-1]')
    await lure.trigger('keydown', { key: 'ArrowUp' })
    expect(asked.at(-1)![0]).toBe('rod-1')
    expect(asked.at(-1)![1] / FT).toBeCloseTo(43)
    for (let press = 0; press < 8; press += 1) {
      await lure.trigger('keydown', { key: 'PageDown' })
      await nextTick()
    }
    expect(asked.at(-1)![1]).toBe(view.bottom_m)
  })

  it.each([
    [1, 'below'],
    [30, 'above'],
  ])('names a comfort band down to %i ft %s its lower edge, clear of the surface', (baseFt, side) => {
    const comfort = { low_degc: 10, high_degc: 15, layers: [{ top_m: 0, base_m: baseFt * FT }] }
    const wrapper = show(WaterColumn, {
      view: { ...view, comfort, rods: [rodAt('rod-1', 44)] },
      preview: null,
      rodIndex: () => 0,
      boatLengthM: 4.9,
      selected: null,
      numberFor: async (id: string, depthM: number) => at(id, depthM / FT),
      setDepth: async () => true,
    })
    const words = Number(wrapper.get('[data-test=comfort] text').attributes('y'))
    const edge = Number(wrapper.get('[data-test=comfort] line').attributes('y1'))
    const surface = Number(wrapper.get('line.surface').attributes('y1'))
    expect(words > edge).toBe(side === 'below')
    // Letters of 12 px stand on their y.
    expect(words - 12).toBeGreaterThan(surface)
  })

  it('says what to do first where no line is out', () => {
    const bare = column({}, [{ ...rod, line: null }])
    expect(bare.text()).toContain('Set a rod below')
    expect(bare.findAll('path.line')).toHaveLength(0)
  })

  it('is read in the other units too', async () => {
    const wrapper = column()
    expect(wrapper.get('[data-test=lure-rod-1]').attributes('aria-valuetext')).toContain('44 ft')
    useDisplayStore().toggleUnits()
    await nextTick()
    expect(wrapper.get('[data-test=lure-rod-1]').attributes('aria-valuetext')).toContain('13.5 m')
  })
})
