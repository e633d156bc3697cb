// The outlines of what hangs on a line, each from its own measures: tail at (0, 0), the line's end at (length, 0), in
// pixels, `w` its greatest width. Our own drawing throughout.

export interface Outline {
  /** What is filled: with the rod's colour, or white where it is a blade. */
  body: string
  /** Strokes over and beside it. */
  strokes: string
}

const n = (value: number): string => value.toFixed(1)
const at = (x: number, y: number): string => `${n(x)} ${n(y)}`

/** A body pointed at both ends, widest at `belly` of its length from the tail. */
function lens(length: number, w: number, belly: number): string {
  const half = (w / 2) * 1.33
  const [back, fore] = [length * Math.max(belly - 0.3, 0), length * Math.min(belly + 0.3, 1)]
  return `M0 0C${at(back, -half)} ${at(fore, -half)} ${at(length, 0)}C${at(fore, half)} ${at(back, half)} 0 0Z`
}

/** How far a lip reaches ahead of the nose, over the plug's length. */
const LIPS: Record<string, number> = { small: 0.1, medium: 0.2, deep: 0.36 }

function plug(length: number, w: number, lip: string): Outline {
  const long = (LIPS[lip] ?? 0) * length
  const plate = long
    ? `M${at(length * 0.95, w * 0.2)}L${at(length * 0.97 + long, w * 0.3 + long * 0.55)}l${at(-w * 0.2, w * 0.2)}L${at(length * 0.85, w * 0.4)}Z`
    : ''
  const eye = `M${at(length * 0.84, -w * 0.14)}m-1 0a1 1 0 1 0 2 0a1 1 0 1 0 -2 0`
  return { body: lens(length, w, 0.62), strokes: plate + eye }
}

function skirt(length: number, w: number): Outline {
  const head = length * 0.58
  const strands = Array.from({ length: 7 }, (_, i) => {
    const y = ((i - 3) / 3) * w * 0.5
    return `M${at(head, y * 0.7)}C${at(head * 0.66, y)} ${at(head * 0.3, y * 1.5)} ${at(i % 2 ? 0 : head * 0.1, y * 1.2)}`
  })
  const [one, two] = [`${at(length * 0.8, -w * 0.6)} ${at(length, -w * 0.4)}`, `${at(length, w * 0.4)} ${at(length * 0.8, w * 0.6)}`]
  return { body: `M${at(head, -w * 0.4)}C${one} ${at(length, 0)}C${two} ${at(head, w * 0.4)}Z`, strokes: strands.join('') }
}

function worm(length: number, w: number): Outline {
  const h = w / 2
  const step = length / 4
  const back = (sign: number): string =>
    [0, 1, 2, 3].map((i) => `q${at((sign * step) / 2, (i % 2 ? 1 : -1) * h)} ${at(sign * step, 0)}`).join('')
  const rings = [0.3, 0.5, 0.7].map((share) => `M${at(length * share, -h)}v${n(w)}`)
  return { body: `M0 ${n(-h)}${back(1)}v${n(w)}${back(-1)}Z`, strokes: rings.join('') }
}

function fly(length: number, w: number): Outline {
  const wing = [-1, 1].map(
    (side) => `M${at(length * 0.8, 0)}C${at(length * 0.6, side * w * 0.9)} ${at(length * 0.2, side * w * 0.8)} ${at(0, side * w * 0.5)}`,
  )
  return { body: lens(length * 0.9, w * 0.5, 0.7), strokes: `${wing.join('')}M${at(length * 0.35, 0)}L0 0` }
}

const spoon = (length: number, w: number): Outline => ({
  body: lens(length, w, 0.32),
  strokes: `M${at(length * 0.18, -w * 0.12)}Q${at(length * 0.5, -w * 0.34)} ${at(length * 0.8, -w * 0.06)}`,
})

/** A blade with a waist: wide and round at both ends. */
function dodger(length: number, w: number): string {
  const [end, waist] = [w / 2, w * 0.34]
  const half = (side: number, forward: boolean): string => {
    const x = (share: number): number => length * (forward ? share : 1 - share)
    return (
      `C${at(x(0), side * end * 1.25)} ${at(x(0.22), side * end * 1.1)} ${at(x(0.5), side * waist)}` +
      `C${at(x(0.78), side * end * 1.1)} ${at(x(1), side * end * 1.25)} ${at(x(1), 0)}`
    )
  }
  return `M0 0${half(-1, true)}${half(1, false)}Z`
}
const holes = (length: number, w: number): string =>
  [-0.3, -0.1, 0.1].map((off) => `M${at(length * 0.93, w * off)}m-1.6 0a1.6 1.6 0 1 0 3.2 0a1.6 1.6 0 1 0 -3.2 0`).join('')

/** A leaf that hangs from its fore end and turns about the line. */
const leaf = (from: number, length: number, w: number): string =>
  `M${at(from, w * 0.3)}Q${at(from + length * 0.4, w * 0.85)} ${at(from + length, 0)}Q${at(from + length * 0.5, -w * 0.3)} ${at(from, w * 0.3)}Z`

function blades(length: number, w: number): Outline {
  const count = 4
  const each = length / count
  const all = Array.from({ length: count }, (_, i) => leaf(i * each + each * 0.12, each * 0.82, w * (0.8 + 0.07 * i)))
  return { body: all.join(''), strokes: `M0 0H${n(length)}` }
}

/** What a part is drawn as; `length` and `w` in pixels. */
export function outlineOf(kind: string, length: number, w: number, lip = ''): Outline {
  switch (kind) {
    case 'plug':
      return plug(length, w, lip)
    case 'skirt':
      return skirt(length, w)
    case 'worm':
      return worm(length, w)
    case 'fly':
      return fly(length, w)
    case 'dodger':
      return { body: dodger(length, w), strokes: `M${at(length * 0.14, 0)}H${n(length * 0.86)}` }
    case 'tow_points':
      return { body: dodger(length, w), strokes: holes(length, w) }
    case 'willow_leaf':
      return { body: leaf(0, length, w * 1.3), strokes: `M0 0H${n(length)}` }
    case 'blade_string':
      return blades(length, w)
    case 'disc': {
      const half = `a${at(length / 2, w / 2)} 0 0 1`
      return { body: `M0 0${half} ${at(length, 0)}${half} ${at(-length, 0)}Z`, strokes: '' }
    }
    case 'spinning':
      return { body: lens(length, w, 0.5), strokes: `M0 0C${at(length * 0.3, -w / 2)} ${at(length * 0.7, w / 2)} ${at(length, 0)}` }
    default:
      return spoon(length, w)
  }
}

/** To which side each bend goes; the second half of them hangs farther ahead. */
const BENDS: Record<string, number[]> = { single: [1], double_single: [1, 1], treble: [1, -1], two_trebles: [1, -1, 1, -1] }

/** Hooks with their last bend `fromTail` pixels ahead of the lure's end. */
export function hooksOf(hook: string, fromTail: number, length: number): string {
  const sides = BENDS[hook] ?? []
  const size = Math.max(Math.min(length * 0.16, 13), 6)
  const apart = hook === 'two_trebles' ? length * 0.45 : size * 2.2
  const ahead = (i: number): number => (hook.startsWith('two') || hook.startsWith('double') ? (i < sides.length / 2 ? 0 : apart) : 0)
  return sides
    .map((side, i) => {
      const x = fromTail + ahead(i)
      return `M${at(x + size * 1.6, side * size * 0.2)}H${n(x + size * 0.3)}c${at(-size * 0.7, 0)} ${at(-size * 0.7, side * size)} ${at(0, side * size)}h${n(size * 0.5)}`
    })
    .join('')
}
