import createClient from 'openapi-fetch'
import type { components, paths } from './types'

export type Schemas = components['schemas']
export type Fault = Schemas['Fault']

/** An answer that isn't a success, or no answer at all (status 0). */
export class Failure extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly faults: Fault[] = [],
    readonly body: Record<string, unknown> = {},
  ) {
    super(message)
  }
}

const cookie = (name: string) =>
  document.cookie
    .split('; ')
    .find((item) => item.startsWith(`${name}=`))
    ?.slice(name.length + 1) ?? ''

const client = createClient<paths>({ baseUrl: '/' })

client.use({
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', cookie('csrftoken'))
    return request
  },
})

type Answer<T> = { data?: T; error?: unknown; response: Response }

/** The data of an answer; a `Failure` when there is none. */
export async function asked<T>(call: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>
  try {
    answer = await call
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    throw new Failure(0, 'offline', 'The workshop’s server can’t be reached.')
  }
  if (answer.response.ok) return answer.data as T
  const body = (typeof answer.error === 'object' && answer.error !== null ? answer.error : {}) as Record<
    string,
    unknown
  >
  throw new Failure(
    answer.response.status,
    String(body.code ?? 'fault'),
    String(body.message ?? 'The server gave no reason.'),
    (body.errors as Fault[] | undefined) ?? [],
    body,
  )
}

export const api = client
