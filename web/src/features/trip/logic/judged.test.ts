import { describe, expect, it } from 'vitest'
import type { FishView } from '../api'
import { verdictWords } from './judged'

type Judged = FishView['judged'][number]
const move = (verdict: Judged['result']['verdict'], probability: number, lack: Judged['lack'] = ''): Judged =>
  ({ lack, result: { verdict, probability } }) as Judged

describe('what may be said of a change', () => {
  it('is how sure it is, whichever way it went', () => {
    expect(verdictWords(move('better', 0.93))).toContain('it helped (93 %')
    expect(verdictWords(move('worse', 0.04))).toContain('it made it worse (96 %')
  })

  it('is nothing where the rods beside it were few, or none', () => {
    expect(verdictWords(move('too_early', 0.5))).toBe('too early to tell')
    expect(verdictWords(move('too_early', 0.5, 'minutes'))).toContain('20 rod-minutes')
    expect(verdictWords(move('better', 0.99, 'no_control'))).toContain('no rod fished on beside it')
  })
})
