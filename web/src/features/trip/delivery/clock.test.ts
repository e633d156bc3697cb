import { afterEach, describe, expect, it } from 'vitest'
import { ANSWERED, type Answered } from '@/shared/api/client'
import { watchServerClock, type ServerClock } from './clock'

let clock: ServerClock
afterEach(() => clock.close())

const answer = (askedS: number, tookS: number, serverS: number) =>
  window.dispatchEvent(new CustomEvent<Answered>(ANSWERED, { detail: { version: '1', serverS, askedS, gotS: askedS + tookS } }))

describe('the clock of the server', () => {
  it('is this device’s own until an answer says otherwise', () => {
    clock = watchServerClock()
    expect(clock.skewS()).toBeNull()
    answer(91000, 0.1, 91600)
    expect(clock.skewS()).toBeCloseTo(599.95, 3)
  })

  it('does not take the delay of a slow answer for a wrong clock', () => {
    clock = watchServerClock()
    // Made at the very beginning of its way, then at the very end: both clocks are right.
    answer(91000, 3.8, 91000)
    expect(clock.skewS()).toBe(0)
    answer(91010, 3.8, 91013.8)
    expect(clock.skewS()).toBe(0)
  })

  it('follows a clock that was set anew, and nothing that took too long to tell', () => {
    clock = watchServerClock()
    answer(91000, 0.1, 91000.05)
    answer(91010, 9, 91300)
    expect(clock.skewS()).toBe(0)
    answer(91020, 0.2, 91020.1 - 7200)
    expect(clock.skewS()).toBeCloseTo(-7200, 3)
  })
})
