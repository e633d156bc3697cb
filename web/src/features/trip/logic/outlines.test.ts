import { describe, expect, it } from 'vitest'
import { hooksOf, outlineOf } from './outlines'

/** All numbers of a path that are far out: an outline keeps to its measures. */
const reach = (path: string): number => Math.max(...(path.match(/-?\d+\.\d/g) ?? []).map((text) => Math.abs(Number(text))))

describe('outlines', () => {
  it.each(['plug', 'spoon', 'skirt', 'worm', 'fly', 'dodger', 'tow_points', 'willow_leaf', 'blade_string', 'disc', 'spinning'])(
    'draws a %s no longer than it is',
    (kind) => {
      const { body } = outlineOf(kind, 80, 20)
      expect(body).toMatch(/^M/)
      expect(body).not.toContain('NaN')
      expect(reach(body)).toBeLessThanOrEqual(80.1)
    },
  )

  it('gives only a plug a lip, the deeper the farther ahead', () => {
    const ahead = (lip: string): number => reach(outlineOf('plug', 80, 20, lip).strokes)
    expect(ahead('none')).toBeLessThan(80)
    expect(ahead('small')).toBeGreaterThan(80)
    expect(ahead('medium')).toBeGreaterThan(ahead('small'))
    expect(ahead('deep')).toBeGreaterThan(ahead('medium'))
  })

  it('draws as many bends as a hook has sides, and none without hooks', () => {
    const bends = (hook: string): number => hooksOf(hook, 4, 80).match(/M/g)?.length ?? 0
    expect([bends('none'), bends('single'), bends('double_single'), bends('treble'), bends('two_trebles')]).toEqual([0, 1, 2, 2, 4])
  })
})
