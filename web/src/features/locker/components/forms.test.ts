import { flushPromises } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, type Component } from 'vue'
import { show } from '@/app/show.fixture'
import SetupFields from '@/features/trip/components/SetupFields.vue'
import { useDisplayStore } from '@/shared/units/store'

const sent = vi.hoisted(() => ({ body: null as unknown }))
const keep = async (_id: number, ...rest: unknown[]) => ((sent.body = rest.at(-1)), {})
vi.mock('../api', () => ({
  addWater: async (body: unknown) => ((sent.body = body), {}),
  changeBoat: keep,
  changeWater: keep,
  changePiece: keep,
}))
const BoatForm = (await import('./BoatForm.vue')).default
const WaterForm = (await import('./WaterForm.vue')).default
const PieceForm = (await import('./PieceForm.vue')).default

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
  sent.body = null
})
/** Numbers that no unit makes round, the same at every run. */
function numbers(seed: number): () => number {
  let state = seed * 2654435761 + 1
  return () => {
    state = (state * 1664525 + 1013904223) % 4294967296
    return 0.05 + (state / 4294967296) * 9.7
  }
}

const catalogue = { materials: [], plugs: [], places: [], boats: [], sounder: { depth_m: 0.3, ahead_m: 0.3, cone_deg: 20 } }

/** Open, press the units button, save: what is sent is what there was, to the last bit. */
async function saved(component: Component, props: Record<string, unknown>, presses: number): Promise<unknown> {
  const form = show(component, props)
  const display = useDisplayStore()
  for (let press = 0; press < presses; press += 1) {
    if (press % 2) display.toggleNautical()
    else display.toggleUnits()
    await nextTick()
  }
  await form.find('form').trigger('submit')
  await flushPromises()
  return sent.body
}

describe('open, press the units button, save', () => {
  it.each([1, 2, 3, 4, 5, 6])('changes nothing of a boat, its rods and places: %i', async (seed) => {
    const any = numbers(seed)
    const boat = {
      boat_name: 'Skiff',
      boat_length_m: any(),
      rods: [{ id: 'rod-1', name: 'Rod 1', shape: 'circle' }],
      places: [
        { id: 'a', name: 'port', kind: 'holder', side_m: -any(), tip_height_m: any(), aft_m: any() },
        {
          id: 'b',
          name: 'rigger',
          kind: 'downrigger',
          side_m: any(),
          tip_height_m: any(),
          aft_m: -any(),
          cable_material_id: 'cable-steel-150',
          cable_length_m: 10 * any(),
          ball_kg: any(),
          ball_shape: 'round',
        },
      ],
      sounder: { depth_m: any() / 10, ahead_m: -any(), cone_deg: any() * 5 },
    }
    expect(await saved(BoatForm, { boat: { id: 1, boat }, catalogue }, seed)).toEqual(boat)
  })

  it.each([1, 2, 3, 4, 5, 6])('changes nothing of a water: %i', async (seed) => {
    const any = numbers(seed)
    const rules = {
      entered_on: '2026-04-01',
      origin: 'the printed rules',
      hooks: 'single',
      bait: false,
      rods_most: 3,
      bag_most: 5,
      possession_most: 10,
      bait_counts: true,
      least_m: 12 * 0.0254,
      longest_m: null,
      slot_low_m: 0.4,
      slot_high_m: 0.5,
      season_from: '04-15',
      season_to: '10-31',
      by_species: [
        {
          species: 'kokanee',
          bag_most: 10,
          possession_most: null,
          bait_counts: true,
          least_m: 9 * 0.0254,
          longest_m: null,
          slot_low_m: null,
          slot_high_m: null,
          season_from: '',
          season_to: '',
        },
      ],
    }
    const water = {
      name: 'Tarn',
      deepest_m: any() * 10,
      latitude_deg: any() * 8,
      longitude_deg: -any() * 17,
      utc_offset_min: -420,
      timezone: '',
      rules: seed % 2 ? rules : null,
    }
    expect(await saved(WaterForm, { water: { id: 1, has_chart: false, ...water } }, seed)).toEqual(water)
  })

  it.each([1, 2, 3, 4, 5, 6])('changes nothing of a piece with printed depths or tow points: %i', async (seed) => {
    const any = numbers(seed)
    const works = { low_mps: any() / 10, high_mps: any() }
    const plug = {
      name: 'Minnow',
      colour: 'silver',
      kind: 'plug',
      length_m: any() / 50,
      width_m: any() / 500,
      mass_kg: any() / 300,
      works,
      own_action: true,
      lip: 'small',
      points: [{ out_m: any() * 5, depth_m: any(), speed_mps: any() / 4, material_id: 'mono-12' }],
    }
    const blade = {
      name: 'Blade',
      finish: 'gold',
      style: 'tow_points',
      length_m: any() / 50,
      width_m: any() / 100,
      mass_kg: any() / 300,
      works,
      tow_points: [{ name: 'tight', works: { low_mps: any() / 10, high_mps: any() } }],
    }
    const [kind, properties] = seed % 2 ? ['lure', plug] : ['attractor', blade]
    expect(await saved(PieceForm, { piece: { id: 1, name: 'x', kind, properties }, kind, catalogue }, seed)).toEqual(properties)
  })

  it.each([1, 2, 3, 4])('emits nothing of a rod on the bench: %i', async (seed) => {
    const any = numbers(seed)
    const outfit = {
      places: [],
      lines: [{ id: 'l', name: 'l', kind: seed % 2 ? 'flat' : 'downrigger' }],
      lures: [],
      attractors: [{ id: 'd', name: 'd' }],
      leaders: [],
      releases: [],
      baits: [],
      scents: [],
    }
    const setup = {
      rod_id: 'r',
      place_id: 'p',
      line_id: 'l',
      lure_id: 'x',
      attractor_id: 'd',
      leader_m: any(),
      setback_m: any(),
      weight_kg: any(),
      weight_ahead_m: any(),
      drop_m: any(),
      above_ball_m: any(),
      slider_kg: any(),
    }
    const fields = show(SetupFields, { setup, outfit })
    const display = useDisplayStore()
    for (let press = 0; press < seed; press += 1) {
      display.toggleUnits()
      await nextTick()
    }
    fields.findAll('input').forEach((input) => void input.trigger('blur'))
    await nextTick()
    expect(fields.emitted('change')).toBeUndefined()
  })

  it('adds what is said of one species, and names it where it is no number', async () => {
    const form = show(WaterForm, { water: null })
    for (const [field, value] of Object.entries({ name: 'Tarn', deepest: '60', latitude: '44', longitude: '-115', origin: 'a board' })) {
      if (field === 'origin') await form.get('[data-test=rules-on]').setValue(true)
      await form.get(`[data-test=${field === 'origin' ? 'rules' : 'water'}-${field}]`).setValue(value)
    }
    await form.get('[data-test=add-rules-striper]').trigger('click')
    expect(form.find('[data-test=add-rules-striper]').exists()).toBe(false)
    await form.get('[data-test=rules-striper-bag]').setValue('two')
    await form.find('form').trigger('submit')
    expect(form.get('[data-test=water-error]').text()).toContain('Striped bass: most fish: “two” is no number.')
    await form.get('[data-test=rules-striper-bag]').setValue('2')
    await form.find('form').trigger('submit')
    await flushPromises()
    expect(sent.body).toMatchObject({ rules: { bag_most: null, by_species: [{ species: 'striper', bag_most: 2 }] } })
  })

  it('names the field that is no number, and sends nothing', async () => {
    const water = {
      id: 1,
      has_chart: false,
      name: 'Tarn',
      deepest_m: 18.9,
      latitude_deg: 44,
      longitude_deg: -115,
      utc_offset_min: 0,
      timezone: '',
      rules: null,
    }
    const form = show(WaterForm, { water })
    await form.get('[data-test=water-deepest]').setValue('deep')
    useDisplayStore().toggleUnits()
    await nextTick()
    await form.find('form').trigger('submit')
    await flushPromises()
    expect(sent.body).toBeNull()
    expect(form.get('[data-test=water-error]').text()).toContain('Deepest: “deep” is no number.')
    expect((form.get('[data-test=water-deepest]').element as HTMLInputElement).value).toBe('deep')
  })
})
