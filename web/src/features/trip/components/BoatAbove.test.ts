import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import type { VueWrapper } from '@vue/test-utils'
import { show } from '@/app/show.fixture'
import type { DrawnPlace } from './BoatAbove.vue'

vi.mock('@vueuse/core', async (original) => ({
  ...(await original<object>()),
  useElementSize: () => ({ width: ref(400), height: ref(420) }),
}))
const BoatAbove = (await import('./BoatAbove.vue')).default
const FT = 0.3048

const holder: DrawnPlace = { id: 'port', name: 'port quarter', kind: 'holder', side_m: -5 * FT, aft_m: 0 }
const board: DrawnPlace = { id: 'board', name: 'port board', kind: 'board', side_m: -65 * FT, aft_m: 0 }
const boat = (places = [holder, board]): VueWrapper => show(BoatAbove, { lengthM: 18 * FT, places, movable: true })
const spot = (wrapper: VueWrapper, id: string): number =>
  Number(wrapper.get(`[data-test=above-${id}] circle[fill=transparent]`).attributes('cx'))

type Moved = [string, number, number]
async function drag(wrapper: VueWrapper, id: string, toX: number): Promise<Moved> {
  const place = wrapper.get(`[data-test=above-${id}]`)
  await place.trigger('pointerdown')
  place.element.dispatchEvent(new MouseEvent('pointermove', { clientX: toX, clientY: 300 }))
  await place.trigger('pointerup')
  return wrapper.emitted<Moved>('move')!.at(-1)!
}

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
  Element.prototype.setPointerCapture = () => undefined
})

describe('BoatAbove', () => {
  it('draws a farther board farther out, and every board outside the rods', () => {
    const [near, far] = [20, 120].map((feet) => spot(boat([holder, { ...board, side_m: -feet * FT }]), 'board'))
    expect(far).toBeLessThan(near!)
    expect(near).toBeLessThan(spot(boat(), 'port'))
  })

  it('takes a board to where it is dragged, to five feet, and on the side where it is let go', async () => {
    const wrapper = boat()
    const from = spot(wrapper, 'board')
    const [id, side] = await drag(wrapper, 'board', from - 8)
    expect(id).toBe('board')
    expect(side).toBeLessThan(board.side_m)
    expect((side / FT) % 5).toBeCloseTo(0, 9)
    // Drawn again where it was let go, within half a step.
    expect(Math.abs(spot(boat([holder, { ...board, side_m: side }]), 'board') - (from - 8))).toBeLessThan(2)
    const [, other] = await drag(wrapper, 'board', 400 - from)
    expect(other / FT).toBeCloseTo(65, 9)
  })

  it('keeps a rod to a quarter of a foot', async () => {
    const [, side] = await drag(boat(), 'port', 123)
    expect(side).toBeLessThan(0)
    expect((side / FT) * 4).toBeCloseTo(Math.round((side / FT) * 4), 9)
  })

  it('moves a board by keys too', async () => {
    const wrapper = boat()
    await wrapper.get('[data-test=above-board]').trigger('keydown', { key: 'ArrowLeft' })
    expect(wrapper.emitted<Moved>('move')!.at(-1)![1] / FT).toBeCloseTo(-70, 9)
  })
})
