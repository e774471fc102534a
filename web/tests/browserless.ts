/** What the page has of a browser and Node hasn't: as much as the modules under test touch. */
const kept = new Map<string, string>()

globalThis.localStorage = {
  get length() {
    return kept.size
  },
  clear: () => kept.clear(),
  getItem: (key) => kept.get(key) ?? null,
  key: (place) => [...kept.keys()][place] ?? null,
  removeItem: (key) => void kept.delete(key),
  setItem: (key, value) => void kept.set(key, value),
}

/** Runs something with as much of a window and a document as saving and the client touch. */
export async function inAWindow<T>(run: () => T | Promise<T>): Promise<T> {
  Object.assign(globalThis, { window: new EventTarget(), document: { cookie: 'csrftoken=t' } })
  try {
    return await run()
  } finally {
    for (const name of ['window', 'document']) Reflect.deleteProperty(globalThis, name)
  }
}

/** A request to the page's own server. */
globalThis.Request = class extends Request {
  constructor(input: RequestInfo | URL, init?: RequestInit) {
    super(typeof input === 'string' ? new URL(input, 'http://bench.test').href : input, init)
  }
}

export interface Asked {
  method: string
  path: string
  body: Record<string, unknown>
}

type Answer = { status: number; body: unknown } | 'away'

/** The server: what it was asked, and how it answers. */
export const server = {
  asked: [] as Asked[],
  answer: ((): Answer => 'away') as (asked: Asked) => Answer | Promise<Answer>,
}

globalThis.fetch = async (input) => {
  const request = input as Request
  const one = {
    method: request.method,
    path: new URL(request.url).pathname,
    body: (await request.json().catch(() => ({}))) as Record<string, unknown>,
  }
  server.asked.push(one)
  const answer = await server.answer(one)
  if (answer === 'away') throw new TypeError('fetch failed')
  return new Response(JSON.stringify(answer.body), {
    status: answer.status,
    headers: { 'Content-Type': 'application/json' },
  })
}

export const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
