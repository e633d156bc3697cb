import { describe, expect, it } from 'vitest'
import type { FishView } from '../api'
import { verdictNumbers, verdictWords } from './judged'

type Judged = FishView['judged'][number]
const move = (verdict: Judged['result']['verdict'], probability: number, changes: Partial<Judged> = {}): Judged =>
  ({ lack: '', ended: false, more_min: null, result: { verdict, probability, alike: 0.94 }, ...changes }) as Judged

describe('what may be said of a change', () => {
  it('is how sure it is, whichever way it went', () => {
    expect(verdictWords(move('better', 0.93))).toContain('it helped (93 %')
    expect(verdictWords(move('worse', 0.04))).toContain('it made it worse (96 %')
    expect(verdictWords(move('no_difference', 0.55))).toContain('no difference seen (94 %')
  })

  it('is nothing where the rods beside it were few, or none', () => {
    expect(verdictWords(move('too_early', 0.5, { lack: 'minutes' }))).toBe('too early to tell, both sides need 20 rod-minutes')
    expect(verdictWords(move('better', 0.99, { lack: 'no_control' }))).toContain('no rod fished on beside it')
  })

  it('says when it can be told, while it goes on', () => {
    expect(verdictWords(move('too_early', 0.7, { more_min: 45 }))).toBe('too early to tell; at this rate some 45 min more')
    expect(verdictWords(move('too_early', 0.7))).toBe('too early to tell; at this rate not within four hours')
    expect(verdictWords(move('too_early', 0.7, { ended: true }))).toBe('too early to tell, and it was changed again')
  })

  it('has its numbers, and what the clock did meanwhile', () => {
    const counted = move('better', 0.93, {
      before: { hits: 1, minutes: 60 },
      after: { hits: 6, minutes: 59.6 },
      control_before: { hits: 5, minutes: 300 },
      control: { hits: 10, minutes: 300 },
    })
    expect(verdictNumbers(counted)).toBe(
      'Changed: 1 hit in 60 rod-min before, 6 hits in 60 rod-min since. ' +
        'Left alone: 5 hits in 300 rod-min before, 10 hits in 300 rod-min since: the bite itself × 2.0.',
    )
    expect(verdictNumbers({ ...counted, control_before: { hits: 0, minutes: 300 } })).not.toContain('×')
    expect(verdictNumbers({ ...counted, control: { hits: 0, minutes: 0 } })).not.toContain('Left alone')
  })
})
