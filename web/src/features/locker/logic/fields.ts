// Which properties each kind of tackle has on the form, and how a typed text becomes one.
// What a property must be is the core's to say; here is only how it is shown and read.
import type { Measure } from '@/shared/units/measures'
import type { PieceKind, Properties } from '../api'

export interface Field {
  path: string
  label: string
  type: 'text' | 'number' | 'flag' | 'choice' | 'material'
  measure?: Measure
  options?: { value: string; title: string }[]
  /** Left empty, the property is left out. */
  optional?: boolean
  cored?: boolean
}

const text = (path: string, label: string, optional = false): Field => ({ path, label, type: 'text', optional })
const number = (path: string, label: string, measure: Measure, optional = false): Field => ({
  path,
  label,
  type: 'number',
  measure,
  optional,
})
const flag = (path: string, label: string): Field => ({ path, label, type: 'flag' })
const choice = (path: string, label: string, options: Record<string, string>): Field => ({
  path,
  label,
  type: 'choice',
  options: Object.entries(options).map(([value, title]) => ({ value, title })),
})
const material = (path: string, label: string, cored = false): Field => ({ path, label, type: 'material', cored, optional: cored })
const body = [number('length_m', 'length', 'short'), number('width_m', 'width', 'short'), number('mass_kg', 'weight', 'weight')]
const works = [number('works.low_mps', 'works from', 'speed'), number('works.high_mps', 'works to', 'speed')]
const look = [
  number('flash', 'flash, 0 to 1', 'share', true),
  number('thump', 'thump, 0 to 1', 'share', true),
  flag('uv', 'UV'),
  flag('glow', 'glows'),
]

export const KIND_TITLES: Record<PieceKind, string> = {
  lure: 'Lures',
  attractor: 'Attractors',
  line: 'Lines',
  leader: 'Leaders',
  weight: 'Weights',
  release: 'Releases',
  snubber: 'Snubbers',
  board: 'Planer boards',
  bait: 'Baits',
  scent: 'Scents',
}

export function fieldsOf(kind: PieceKind, properties: Properties): Field[] {
  const name = text('name', 'name')
  if (kind === 'lure') {
    const plug = properties.kind === 'plug'
    return [
      name,
      text('colour', 'colour', true),
      choice('kind', 'kind', { plug: 'plug', spoon: 'spoon or spinner', soft: 'soft, fly or worm' }),
      ...body,
      ...works,
      flag('own_action', 'moves by itself'),
      ...(plug ? [choice('lip', 'lip', { none: 'none', small: 'small', medium: 'medium', deep: 'deep' })] : []),
      choice('hook', 'hooks', {
        none: 'none',
        single: 'single',
        double_single: 'two singles',
        treble: 'treble',
        two_trebles: 'two trebles',
      }),
      number('hook_from_tail_m', 'hook ahead of the end', 'short', true),
      flag('takes_bait', 'takes bait'),
      number('bait_room_m', 'room for bait', 'short', true),
      flag('is_fly', 'a fly'),
      ...look,
    ]
  }
  if (kind === 'attractor') {
    return [
      name,
      text('finish', 'finish', true),
      choice('style', 'style', {
        dodger: 'dodger',
        tow_points: 'blade with tow points',
        spinning: 'in-line spinning',
        willow_leaf: 'willow leaf',
        blade_string: 'string of blades',
        disc: 'wobble disc',
      }),
      ...body,
      ...works,
      flag('gives_action', 'moves the lure behind it'),
      ...look,
    ]
  }
  if (kind === 'line') {
    const core = properties.kind === 'leadcore'
    return [
      name,
      choice('kind', 'fished as', { flat: 'flat line', leadcore: 'leadcore', downrigger: 'downrigger line' }),
      material('material_id', core ? 'backing' : 'line'),
      number('length_m', core ? 'backing on the reel' : 'on the reel', 'long'),
      ...(core
        ? [
            material('core_material_id', 'leadcore', true),
            number('core_length_m', 'leadcore on the reel', 'long'),
            material('leader_material_id', 'leader'),
            number('leader_length_m', 'leader', 'long'),
            number('colour_mass_kg', 'one colour weighs, dry', 'weight', true),
          ]
        : []),
    ]
  }
  if (kind === 'leader') return [name, material('material_id', 'line'), number('length_m', 'length', 'short')]
  if (kind === 'weight')
    return [
      name,
      choice('style', 'style', {
        in_line: 'in line',
        split_shot: 'split shot',
        dropper: 'sliding, for a dropper',
        ball: 'downrigger ball',
      }),
      number('mass_kg', 'weight', 'weight'),
    ]
  if (kind === 'snubber') return [name, number('length_m', 'length', 'short')]
  if (kind === 'board') return [name, number('lines_most', 'carries lines, at most', 'count')]
  if (kind === 'release') return [name, choice('hold', 'holds', { light: 'light', medium: 'medium', heavy: 'heavy' })]
  if (kind === 'bait') return [name, number('length_m', 'length', 'short'), number('check_after_s', 'looked at every', 'minutes', true)]
  return [name]
}

/** A new piece of a kind: only what has no sensible value of its own is left to type. */
export function blank(kind: PieceKind): Properties {
  if (kind === 'lure') return { name: '', colour: '', kind: 'spoon', own_action: true, hook: 'single', lip: 'none' }
  if (kind === 'attractor') return { name: '', finish: '', style: 'dodger', gives_action: true }
  if (kind === 'line') return { name: '', kind: 'flat', material_id: 'mono-12' }
  if (kind === 'leader') return { name: '', material_id: 'fluoro-10' }
  if (kind === 'weight') return { name: '', style: 'in_line' }
  if (kind === 'release') return { name: '', hold: 'medium' }
  if (kind === 'board') return { name: '', lines_most: 4 }
  return { name: '' }
}

export function get(properties: Properties, path: string): unknown {
  return path.split('.').reduce<unknown>((at, name) => (at as Properties | undefined)?.[name], properties)
}

/** A copy with one property changed; undefined leaves it out. */
export function put(properties: Properties, path: string, value: unknown): Properties {
  const [first, ...rest] = path.split('.') as [string, ...string[]]
  const next = { ...properties }
  const inner = rest.length ? put((next[first] as Properties | undefined) ?? {}, rest.join('.'), value) : value
  if (inner === undefined || (rest.length && Object.keys(inner as Properties).length === 0)) delete next[first]
  else next[first] = inner
  return next
}
