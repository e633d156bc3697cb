// The API, typed from its schema; errors come out as what can be done about them.
import createClient from 'openapi-fetch'
import { CoreError, type CoreErrorBody } from '@/shared/core/protocol'
import type { components, paths } from './schema'

declare const __APP_VERSION__: string

export type Schemas = components['schemas']

function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

/** How long an answer is waited for, ms. A link of one bar takes a request and never answers: what is kept
 * here must not wait for it. Until something has answered, and after nothing did, little is waited for. */
export const PATIENCE_MS = { first: 4000, read: 30_000, write: 60_000 }
let answering = false

async function fetchInTime(request: Request): Promise<Response> {
  const reads = request.method === 'GET'
  const limitMs = !reads ? PATIENCE_MS.write : answering ? PATIENCE_MS.read : PATIENCE_MS.first
  try {
    // Take fetch at each call: the client would otherwise keep the one of its first import.
    const response = await globalThis.fetch(request, { signal: AbortSignal.timeout(limitMs) })
    answering = true
    return response
  } catch (error) {
    answering = false
    throw error
  }
}

export const api = createClient<paths>({ baseUrl: '/', fetch: fetchInTime })

const askedAt = new WeakMap<Request, number>()

api.use({
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken())
    request.headers.set('X-Coldwake-Client', __APP_VERSION__)
    askedAt.set(request, Date.now())
    return request
  },
  onResponse({ request, response }) {
    const version = response.headers.get('X-Coldwake-Version')
    const now = Number(response.headers.get('X-Coldwake-Now'))
    const asked = askedAt.get(request)
    if (version && asked !== undefined) {
      window.dispatchEvent(
        new CustomEvent<Answered>(ANSWERED, { detail: { version, serverS: now, askedS: asked / 1000, gotS: Date.now() / 1000 } }),
      )
    }
  },
})

/** Said on the window at each answer of the server: its version, and its clock against ours. */
export const ANSWERED = 'coldwake-answered'

export interface Answered {
  version: string
  serverS: number
  askedS: number
  gotS: number
}

/** Nothing of ours answered: the link is down, something in between spoke up, or the server is busy. */
export class LinkDownError extends Error {
  constructor(
    message: string,
    /** How long the server asks to be left alone, ms. */
    readonly retryAfterMs: number | null = null,
  ) {
    super(message)
    this.name = 'LinkDownError'
  }
}

/** The login has ended: what is kept here waits for it. */
export class SignedOutError extends Error {
  constructor() {
    super('Your login has ended. What you tap is kept here: log in again to send it.')
    this.name = 'SignedOutError'
  }
}

interface Answer<T> {
  data?: T
  error?: unknown
  response: Response
}

const TRY_AGAIN = [408, 425, 429]

function retryAfterMs(response: Response): number | null {
  const given = response.headers.get('Retry-After')
  if (given === null) return null
  const seconds = /^\d+$/.test(given) ? Number(given) : (Date.parse(given) - Date.now()) / 1000
  return Number.isFinite(seconds) ? Math.min(Math.max(seconds, 0), 3600) * 1000 : null
}

/** The data of an answer, or its error thrown. */
export async function take<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>
  try {
    answer = await asked
  } catch {
    throw new LinkDownError('The link to the server is down.')
  }
  const { response } = answer
  const body = answer.error as Partial<CoreErrorBody> | undefined
  if (!response.headers.has('X-Coldwake-Version')) {
    // A portal's page or a proxy's error may carry any status: it says nothing of our request.
    throw new LinkDownError(`Something other than Cold Wake answered (${response.status}).`, retryAfterMs(response))
  }
  if (response.ok) return answer.data as T
  if (response.status === 401) throw new SignedOutError()
  if (response.status >= 500 || TRY_AGAIN.includes(response.status)) {
    throw new LinkDownError(body?.message ?? `The server failed (${response.status}).`, retryAfterMs(response))
  }
  throw new CoreError({
    code: body?.code ?? String(response.status),
    field: body?.field ?? '',
    message: body?.message ?? `The server refused (${response.status}).`,
    reason: body?.reason ?? '',
    limit: body?.limit ?? null,
    low: body?.low ?? null,
    high: body?.high ?? null,
    status: response.status,
  })
}
