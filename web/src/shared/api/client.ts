// The API, typed from its schema; errors come out as CoreError whatever their road.
import createClient from 'openapi-fetch'
import { CoreError, type CoreErrorBody } from '@/shared/core/protocol'
import type { components, paths } from './schema'

export type Schemas = components['schemas']

function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

// Take fetch at each call: the client would otherwise keep the one of its first import.
export const api = createClient<paths>({ baseUrl: '/', fetch: (request) => globalThis.fetch(request) })
api.use({
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken())
    return request
  },
})

/** The link is down: nothing was answered at all. */
export class LinkDownError extends Error {}

interface Answer<T> {
  data?: T
  error?: unknown
  response: Response
}

/** The data of an answer, or its error thrown. */
export async function take<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>
  try {
    answer = await asked
  } catch {
    throw new LinkDownError('The link to the server is down.')
  }
  if (answer.response.ok) return answer.data as T
  const body = answer.error as Partial<CoreErrorBody> | undefined
  if (answer.response.status >= 500) throw new LinkDownError(`The server failed (${answer.response.status}).`)
  throw new CoreError({
    code: body?.code ?? String(answer.response.status),
    field: body?.field ?? '',
    message: body?.message ?? `The server refused (${answer.response.status}).`,
    limit: body?.limit ?? null,
    low: body?.low ?? null,
    high: body?.high ?? null,
  })
}
