import { describe, expect, it } from 'vitest'
import { US_UNITS } from '@/shared/units/units'
import { changedWords, sidePaths, worth, type Decision } from './decision'

const side = { rod_id: 'rod-3', depth_m: 3.048, speed_mps: 0.67056, setback_m: 6.096, leader_m: null, colour: 'pink', lure: 'thin spoon' }
const decision = (after: Partial<Decision['after'][number]>): Decision =>
  ({
    minute: 30,
    minutes: 20,
    before: [side],
    after: [{ ...side, ...after }],
    stayed: [0, 0.5, 1],
    changed: [0, 1, 2],
    hits: 1,
  }) as Decision

describe('a decision', () => {
  it('says each dial that reads otherwise, and no other', () => {
    expect(changedWords(decision({ depth_m: 6.096, colour: 'copper' }), US_UNITS)).toBe('10 ft down to 20 ft down, pink to copper')
    expect(changedWords(decision({ speed_mps: 0.8 }), US_UNITS)).toBe('1.5 mph to 1.8 mph')
    expect(changedWords(decision({ leader_m: 0.6 }), US_UNITS)).toMatch(/^no leader to a leader of 2[34]/)
    expect(changedWords(decision({}), US_UNITS)).toBe('a little')
  })

  it('is worth what it gained over leaving all as it was, drawn to one scale', () => {
    expect(worth(decision({}))).toBe(1)
    expect(sidePaths(decision({}), 100, 50)).toEqual({ stayed: '0.0,50.0 50.0,37.5 100.0,25.0', changed: '0.0,50.0 50.0,25.0 100.0,0.0' })
  })
})
