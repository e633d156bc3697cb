// The server's clock, as far as it is known here: a phone's own may be off by minutes or years.
import { ANSWERED, type Answered } from '@/shared/api/client'

/** An answer that took longer says little of the time in between. */
const QUICK_S = 4
/** Less than this is the way there and back, not a wrong clock. */
export const WORTH_S = 1.5

export interface ServerClock {
  /** The server's time less this device's, seconds; null until an answer has come. */
  skewS(): number | null
  /** Seconds since 1970 by the server's clock, or by this device's until it is known. */
  nowS(): number
  close(): void
}

/** Watch the server's answers for its clock. */
export function watchServerClock(): ServerClock {
  let skew: number | null = null

  function hear(event: Event): void {
    const { serverS, askedS, gotS } = (event as CustomEvent<Answered>).detail
    if (!Number.isFinite(serverS) || serverS <= 0 || gotS - askedS > QUICK_S || gotS < askedS) return
    const seen = serverS - (askedS + gotS) / 2
    // A slow answer may have been made at either end of its way.
    const worthS = WORTH_S + (gotS - askedS) / 2
    // Hold on to what was measured first while it still fits: taps must not jump by the milliseconds.
    if (skew === null || Math.abs(seen - skew) > worthS) skew = Math.abs(seen) < worthS ? 0 : seen
  }

  window.addEventListener(ANSWERED, hear)
  return {
    skewS: () => skew,
    nowS: () => Date.now() / 1000 + (skew ?? 0),
    close: () => window.removeEventListener(ANSWERED, hear),
  }
}
