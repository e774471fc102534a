import { openDB, type IDBPDatabase } from 'idb'
import { create } from 'zustand'
import { api, asked, Failure, type Schemas } from '../api/client'
import { sendFile } from '../api/sendFile'
import type { Entry } from '../api/model'

/** What has been written on this device and hasn't reached the workshop yet: entries and photos, in their order. */
export interface Waiting {
  place: number
  job: number
  id: string
  entry?: Entry
  photo?: Blob
  /** Why the workshop refused it: it stays here until somebody decides. */
  refused?: string
}

type Put = Omit<Waiting, 'place'>

interface Outbox {
  waiting: Waiting[]
  /** The last try met nobody. */
  away: boolean
  /** Somebody has to sign in before it goes on. */
  signedOut: boolean
  /** Counts up whenever something arrived. */
  arrived: number
}

export const useOutbox = create<Outbox>()(() => ({ waiting: [], away: false, signedOut: false, arrived: 0 }))

const STORE = 'waiting'
const AT_ONCE = 100
const AGAIN_MS = 4000
const OLD_LETTERS = 12

/** A name of its own for an entry or a photo; where the page isn't secure there is no `randomUUID`. */
export const newId = () =>
  [...crypto.getRandomValues(new Uint8Array(OLD_LETTERS))].map((byte) => byte.toString(16).padStart(2, '0')).join('')

let database: Promise<IDBPDatabase> | null = null
let places = 0
/** By their own names: two pages of one device never write over each other's. */
const kept = () =>
  (database ??= openDB('keel-bench', 1, {
    upgrade: (made) => void made.createObjectStore(STORE, { keyPath: 'id' }),
  }))
/** Without a store of its own the device still keeps it while the page is open. */
const hasStore = () => typeof indexedDB !== 'undefined'

let opened: Promise<void> | null = null

/** Take up what was left waiting when the page was closed, before anything else is written. */
export const openOutbox = () => (opened ??= takeUp())

async function takeUp() {
  if (!hasStore()) return
  const left = ((await (await kept()).getAll(STORE)) as Waiting[]).sort((a, b) => a.place - b.place)
  places = left.at(-1)?.place ?? 0
  if (left.length) useOutbox.setState({ waiting: left })
  void flush()
}

async function put(one: Put) {
  await openOutbox()
  places = Math.max(places + 1, Date.now())
  const waiting = { ...one, place: places }
  useOutbox.setState((outbox) => ({ waiting: [...outbox.waiting, waiting] }))
  if (hasStore()) await (await kept()).put(STORE, waiting)
}

/** At once, unless nobody answered last: then it is tried again by the clock. */
function sendSoon() {
  if (!useOutbox.getState().away) void flush()
}

/** Write an entry: it is kept here first, then sent. */
export async function write(job: number, entry: Entry) {
  await put({ job, id: entry.id, entry })
  sendSoon()
}

/** Keep a photo and give the name that entries call it by. */
export async function addPhoto(job: number, photo: Blob): Promise<string> {
  const id = newId()
  await put({ job, id, photo })
  sendSoon()
  return id
}

async function remove(ones: Waiting[]) {
  const gone = new Set(ones.map((one) => one.place))
  useOutbox.setState((outbox) => ({ waiting: outbox.waiting.filter((one) => !gone.has(one.place)) }))
  if (!hasStore()) return
  const work = (await kept()).transaction(STORE, 'readwrite')
  await Promise.all([...ones.map((one) => work.store.delete(one.id)), work.done])
}

async function refuse(one: Waiting, refused: string) {
  const said = { ...one, refused }
  useOutbox.setState((outbox) => ({ waiting: outbox.waiting.map((it) => (it.place === one.place ? said : it)) }))
  if (hasStore()) await (await kept()).put(STORE, said)
}

/** Somebody has read why it was refused, and it goes. */
export const discard = (one: Waiting) => remove([one])

let sending = false
let again: ReturnType<typeof setTimeout> | null = null

/** Send what waits, in its order, until nothing is left or nobody answers. */
export async function flush() {
  if (sending) return
  sending = true
  if (again) clearTimeout(again)
  try {
    let next = batch()
    while (next.length) {
      await send(next)
      useOutbox.setState((outbox) => ({ away: false, signedOut: false, arrived: outbox.arrived + 1 }))
      next = batch()
    }
  } catch (error) {
    const status = error instanceof Failure ? error.status : 0
    useOutbox.setState({ away: status === 0 || status >= 500, signedOut: status === 401 })
    again = setTimeout(() => void flush(), AGAIN_MS)
  } finally {
    sending = false
  }
}

/** What goes next: one photo, or the entries of one job that follow each other. */
function batch(): Waiting[] {
  const [first, ...rest] = useOutbox.getState().waiting.filter((one) => !one.refused)
  if (!first) return []
  if (first.photo) return [first]
  const end = rest.findIndex((one) => one.photo || one.job !== first.job)
  return [first, ...rest.slice(0, end < 0 ? undefined : end)].slice(0, AT_ONCE)
}

async function send(ones: Waiting[]) {
  const [first] = ones
  if (!first) return
  try {
    if (first.photo) {
      await sendFile(`/api/photos?job=${first.job}&id=${first.id}`, first.photo)
      await remove([first])
    } else await sendEntries(first.job, ones)
  } catch (error) {
    const ours = error instanceof Failure && error.status >= 400 && error.status < 500 && error.status !== 401
    if (!ours) throw error
    if (ones.length > 1) for (const one of ones) await send([one])
    else await refuse(first, error.message)
  }
}

async function sendEntries(job: number, ones: Waiting[]) {
  const rows: Schemas['Written'][] = await asked(
    api.POST('/api/jobs/numbered/{number}/log', {
      params: { path: { number: job } },
      body: { entries: ones.map((one) => one.entry as Entry), sent: new Date().toISOString() },
    }),
  )
  const refused = new Map(rows.filter((row) => row.refused).map((row) => [row.id, row.refused as string]))
  await remove(ones.filter((one) => !refused.has(one.id)))
  for (const one of ones) if (refused.has(one.id)) await refuse(one, refused.get(one.id) ?? '')
}

if (typeof window !== 'undefined') window.addEventListener('online', () => void flush())
