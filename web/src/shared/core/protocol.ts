// What passes between the page and the worker that runs the core.

export interface WorkerRequest {
  id: number
  request: string
  /** Only while the core is being worked on: take its sources anew. */
  renew?: boolean
}

export type WorkerResponse =
  { kind: 'ready' } | { kind: 'renewed' } | { kind: 'failed'; message: string } | { kind: 'answer'; id: number; answer: string }

export interface CoreErrorBody {
  code: string
  field: string
  message: string
  /** What kind of wrong it is, for whoever words it anew. */
  reason: string
  /** In SI, where there are such: the nearest that can be had, and the bounds that were missed. */
  limit: number | null
  low: number | null
  high: number | null
  /** Of the server's answer; none from the worker. */
  status?: number
}

/** An error of the core, from the worker or from the server: it names the field and the remedy. */
export class CoreError extends Error {
  readonly code: string
  readonly field: string
  readonly limit: number | null
  readonly low: number | null
  readonly high: number | null
  readonly reason: string
  readonly status: number | null

  constructor(body: CoreErrorBody) {
    super(body.message)
    this.name = 'CoreError'
    this.code = body.code
    this.field = body.field
    this.limit = body.limit
    this.low = body.low
    this.high = body.high
    this.reason = body.reason
    this.status = body.status ?? null
  }
}

/** The answer of one call, or its error thrown. */
export function unwrap<T>(answer: string): T {
  const parsed = JSON.parse(answer) as { ok: true; value: T } | { ok: false; error: CoreErrorBody }
  if (!parsed.ok) throw new CoreError(parsed.error)
  return parsed.value
}
