import { describe, expect, it } from 'vitest'
import { METRIC_UNITS, US_UNITS } from '@/shared/units/units'
import type { Move } from '../api'
import { answerWords, doneWords } from './moves'

const answer = (kind: string, title: string, change: object): Move['answer'] =>
  ({ key: 'k', kind, title, rod_id: 'rod-1', change }) as unknown as Move['answer']

const set = answer('depth', 'Set 9 ft rod to 20 ft', { line_set: { rod_id: 'rod-1', setting_m: 9, wanted_depth_m: 6.096 } })
const out = answer('setback', 'Let Outer left out to 115 ft', { line_set: { rod_id: 'rod-1', setting_m: 35, wanted_depth_m: null } })

describe('a move in words', () => {
  it('has the trade’s numbers for who reads feet', () => {
    expect(answerWords(set, US_UNITS)).toBe('Set 9 ft rod to 20 ft')
    expect(answerWords(out, US_UNITS)).toBe('Let Outer left out to 115 ft')
  })

  it('has metres for who reads metres, and leaves the name of a rod alone', () => {
    expect(answerWords(set, METRIC_UNITS)).toBe('Set 9 ft rod to 6 m')
    expect(answerWords(out, METRIC_UNITS)).toBe('Let Outer left out to 35 m')
    const leader = answer('leader', 'Shorten the leader of Port to 10 in', { rod_rigged: { leader_m: 0.254, setback_m: 12.192 } })
    expect(answerWords(leader, METRIC_UNITS)).toBe('Shorten the leader of Port to 25 cm')
    const clip = answer('setback', 'Clip Port 40 ft back', { rod_rigged: { leader_m: 0.254, setback_m: 12.192 } })
    expect(answerWords(clip, METRIC_UNITS)).toBe('Clip Port 12 m back')
  })

  it('says how fast, and the rest as it came', () => {
    const speed = answer('speed', 'Slow down', { speed_changed: { speed_mps: 0.62586 } })
    expect(answerWords(speed, US_UNITS)).toBe('Slow down to 1.4 mph')
    const colour = answer('colour', 'Change Port to gold', { rod_rigged: { leader_m: 0.254, setback_m: 12.192 } })
    expect(answerWords(colour, METRIC_UNITS)).toBe('Change Port to gold')
    expect(doneWords([colour, clipless], METRIC_UNITS)).toBe('Change Port to gold; S-turn, to port and back')
  })
})

const clipless = answer('s_turn', 'S-turn, to port and back', { turn_begun: { toward: 'port' } })
