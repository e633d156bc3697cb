// While a finger drags: one call in flight and one slot that is overwritten. The latest wins.

export interface LatestCaller<A> {
  (args: A): void
  /** Forget what waits, and drop the answer of what is in flight. */
  cancel(): void
}

/** Call `act` with the latest arguments only; `done` and `failed` never see a stale answer. */
export function latestOnly<A, R>(
  act: (args: A) => Promise<R>,
  done: (result: R, args: A) => void,
  failed: (error: unknown, args: A) => void,
): LatestCaller<A> {
  let busy = false
  let slot: { args: A } | null = null
  let generation = 0

  async function run(args: A): Promise<void> {
    busy = true
    const mine = generation
    try {
      const result = await act(args)
      if (mine === generation) done(result, args)
    } catch (error) {
      if (mine === generation) failed(error, args)
    }
    busy = false
    const next = slot
    slot = null
    if (next) void run(next.args)
  }

  const caller = (args: A): void => {
    if (busy) slot = { args }
    else void run(args)
  }
  caller.cancel = (): void => {
    generation += 1
    slot = null
  }
  return caller
}
