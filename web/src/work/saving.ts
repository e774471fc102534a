import { create } from 'zustand'
import { api, asked, Failure } from '../api/client'
import type { Design } from '../api/model'
import { same } from './patch'
import { isDragging, open, useWork } from './store'

export interface Other {
  number: number
  author: string
  saved: string
  design: Design
}

interface Saving {
  designId: number | null
  revision: number
  saved: Design | null
  state: 'saved' | 'unsaved' | 'saving' | 'invalid' | 'away' | 'conflict' | 'signed out' | 'read only'
  why: string
  other: Other | null
}

/** Where the design stands with the store. */
export const useSaving = create<Saving>(() => ({
  designId: null,
  revision: 0,
  saved: null,
  state: 'saved',
  why: '',
  other: null,
}))

const { setState: set, getState: get } = useSaving
const PAUSE_MS = 600
const RETRY_MS = 2500

interface Draft {
  revision: number
  design: Design
}

const draftKey = (id: number) => `core-keel/draft/${id}`

function readDraft(id: number): Draft | null {
  try {
    return JSON.parse(localStorage.getItem(draftKey(id)) ?? 'null') as Draft | null
  } catch {
    return null
  }
}

/** Keep what isn't saved yet on this device too, so that a reload doesn't lose it. */
function keepDraft() {
  const { designId, revision, saved } = get()
  if (designId === null) return
  const { design } = useWork.getState()
  try {
    if (same(design, saved)) localStorage.removeItem(draftKey(designId))
    else localStorage.setItem(draftKey(designId), JSON.stringify({ revision, design }))
  } catch {
    // No room on the device: the server's copy and the screen remain.
  }
}

let timer: ReturnType<typeof setTimeout> | null = null

function soon(delay: number) {
  if (timer) clearTimeout(timer)
  timer = setTimeout(() => {
    timer = null
    void save()
  }, delay)
}

let running: Promise<boolean> | null = null

/** Save now what isn't saved, after what is being saved already. Resolves when the store has it, or has said why not. */
export async function save(note = ''): Promise<boolean> {
  while (running) await running
  running = put(note)
  try {
    return await running
  } finally {
    running = null
  }
}

async function put(note: string): Promise<boolean> {
  const { designId, revision, saved, state } = get()
  const { design, readOnly } = useWork.getState()
  if (designId === null || readOnly || same(design, saved)) return !readOnly
  if (state === 'conflict') return false
  if (timer) clearTimeout(timer)
  timer = null
  set({ state: 'saving', why: '' })
  try {
    const kept = await asked(
      api.PUT('/api/designs/{design_id}', {
        params: { path: { design_id: designId } },
        body: { base_revision: revision, design: design as unknown as Record<string, unknown>, note },
      }),
    )
    if (get().designId !== designId) return true
    const caughtUp = same(useWork.getState().design, design)
    set({ revision: kept.number, saved: design, state: caughtUp ? 'saved' : 'unsaved' })
    keepDraft()
    if (!caughtUp) soon(PAUSE_MS)
    return true
  } catch (error) {
    if (get().designId === designId) failed(error)
    return false
  }
}

function failed(error: unknown) {
  const failure = error instanceof Failure ? error : new Failure(0, 'fault', String(error))
  if (failure.status === 409) set({ state: 'conflict', why: failure.message, other: failure.body.current as Other })
  else if (failure.status === 422 || failure.status === 413) set({ state: 'invalid', why: failure.message })
  else if (failure.status === 401)
    set({ state: 'signed out', why: 'Sign in again in another tab; this one will then save.' })
  else set({ state: 'away', why: failure.message })
  if (failure.status !== 409 && failure.status !== 422) soon(RETRY_MS)
}

/** Begin on a design as the store has it; a draft left on this device is taken up again. */
export function begin(id: number, revision: number, design: Design, readOnly: boolean) {
  if (timer) clearTimeout(timer)
  timer = null
  const draft = readOnly ? null : readDraft(id)
  set({ designId: id, revision, saved: design, state: readOnly ? 'read only' : 'saved', why: '', other: null })
  open(design, readOnly)
  if (draft && !same(draft.design, design)) {
    set({ revision: draft.revision, state: 'unsaved' })
    useWork.setState({ design: draft.design })
    soon(PAUSE_MS)
  }
}

/** Save whenever the design rests. */
export function watchForSaving(): () => void {
  const stop = useWork.subscribe((state, before) => {
    const rests = state.design !== before.design || state.dragging !== before.dragging
    if (!rests || state.readOnly || get().designId === null || isDragging()) return
    keepDraft()
    if (get().state === 'conflict') return
    if (same(state.design, get().saved)) set({ state: 'saved', why: '' })
    else {
      if (get().state !== 'saving') set({ state: 'unsaved', why: '' })
      soon(PAUSE_MS)
    }
  })
  const leaving = (event: BeforeUnloadEvent) => {
    if (get().designId !== null && !useWork.getState().readOnly && !same(useWork.getState().design, get().saved))
      event.preventDefault()
  }
  const back = () => void save()
  window.addEventListener('beforeunload', leaving)
  window.addEventListener('online', back)
  return () => {
    stop()
    window.removeEventListener('beforeunload', leaving)
    window.removeEventListener('online', back)
    void save()
    set({ designId: null })
  }
}

/** After a conflict: keep mine on top of theirs. Theirs stays in the revisions. */
export async function keepMine() {
  const { other } = get()
  if (!other) return
  set({ revision: other.number, saved: other.design, state: 'unsaved', other: null })
  await save('kept over a conflicting save')
}

/** After a conflict: go on with theirs. Mine is put into the revisions first. */
export async function takeTheirs() {
  const { other } = get()
  if (!other) return
  set({ revision: other.number, saved: other.design, state: 'unsaved', other: null })
  if (await save('set aside after a conflicting save')) {
    useWork.setState({ design: other.design })
    await save(`taken from revision ${other.number}`)
  }
}
