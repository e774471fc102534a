import { temporal } from 'zundo'
import { create, useStore } from 'zustand'
import * as declared from '../api/declared'
import type { Fault } from '../api/client'
import type { Attitude, Design, Evaluation, Figures, Patch, Remedy } from '../api/model'
import { patched, same } from './patch'

/** A remedy that is being tried: shown as a ghost, not yet taken. */
export interface Trial {
  key: string
  remedy: Remedy
  evaluation: Evaluation | null
}

interface Work {
  design: Design
  /** What the core last said, and of which design. */
  evaluation: Evaluation | null
  evaluated: Design | null
  faults: Fault[]
  unreachable: boolean
  /** Figures before the last change: the tally shows how far each moved. */
  before: Figures | null
  pinned: Evaluation | null
  trial: Trial | null
  fill: number | null
  /** How the vehicle stands and moves while the fuel is shown. */
  attitude: Attitude
  /** Where the elevation (y) and the end view (x) are cut; null is the middle. */
  cuts: { x: number | null; y: number | null }
  /** The corner, feature or port at hand: drawn strongly, dimensioned to the datum edges. */
  at: Selected
  /** What the reader marks out by [mm]: sizes that are offered stand on it. */
  mark: number
  /** What the station at hand shows of the evaluation. */
  asks: readonly string[]
  /** Goes up when the vehicle that the tank is for has changed: it isn't part of the design. */
  vehicle: number
  /** Somebody is in the middle of a drag: nothing of it is saved until it ends. */
  dragging: boolean
  readOnly: boolean
}

export type Selected =
  | { kind: 'corner'; place: number }
  | { kind: 'feature' | 'port' | 'sender' | 'mount' | 'line part' | 'run' | 'device' | 'wire'; id: string }
  | null

const EMPTY: Design = declared.Design.defaults
export const AT_REST: Attitude = declared.Attitude.defaults

const START: Work = {
  design: EMPTY,
  evaluation: null,
  evaluated: null,
  faults: [],
  unreachable: false,
  before: null,
  pinned: null,
  trial: null,
  fill: null,
  attitude: AT_REST,
  cuts: { x: null, y: null },
  at: null,
  mark: 1,
  asks: [],
  vehicle: 0,
  dragging: false,
  readOnly: false,
}

const STEPS_KEPT = 500

export const useWork = create<Work>()(
  temporal(() => START, {
    partialize: ({ design }) => ({ design }),
    equality: (a, b) => a.design === b.design,
    limit: STEPS_KEPT,
  }),
)

const { setState: set, getState: get } = useWork

/** Ask the core again: the vehicle is another one now. */
export const vehicleChanged = () => set({ vehicle: get().vehicle + 1 })
const history = () => useWork.temporal.getState()

/** Start on a design: nothing to undo yet. */
export function open(design: Design, readOnly: boolean) {
  history().pause()
  set({ ...START, asks: get().asks, mark: get().mark, design, readOnly })
  history().clear()
  history().resume()
}

let dragStart: Design | null = null

export const isDragging = () => get().dragging

function remember() {
  const { evaluation, evaluated, design, before } = get()
  set({ before: evaluated === design ? (evaluation?.shell?.figures ?? null) : before, trial: null })
}

/** Change the design. One call is one step to undo, but for a drag, which is one step as a whole. */
export function change(make: (design: Design) => Design) {
  if (get().readOnly) return
  const next = make(get().design)
  if (same(next, get().design)) return
  if (!dragStart) remember()
  set({ design: next })
}

export const applyPatch = (patch: Patch) => change((design) => patched(design, patch))

export function startDrag() {
  remember()
  dragStart = get().design
  set({ dragging: true })
  history().pause()
}

export function endDrag(keep: boolean) {
  const start = dragStart
  if (!start) return
  const end = get().design
  dragStart = null
  // The step is put into the history as it is: the design doesn't go back and forth for it.
  if (keep && !same(start, end))
    useWork.temporal.setState({
      pastStates: [...history().pastStates, { design: start }].slice(-STEPS_KEPT),
      futureStates: [],
    })
  set(keep ? { dragging: false } : { design: start, dragging: false })
  history().resume()
}

export function undo() {
  if (get().readOnly || !history().pastStates.length) return
  remember()
  history().undo()
}

export function redo() {
  if (get().readOnly || !history().futureStates.length) return
  remember()
  history().redo()
}

/** How many steps there are to take back and to do again. */
export const useSteps = () =>
  useStore(useWork.temporal, (state) => state.pastStates.length * 10_000 + state.futureStates.length)

export const pin = () => set({ pinned: get().pinned ? null : get().evaluation })
export const setFill = (fill: number | null) => set({ fill })
export const setAttitude = (part: Partial<Attitude>) => set({ attitude: { ...get().attitude, ...part } })
export const setCut = (axis: 'x' | 'y', mm: number | null) => set({ cuts: { ...get().cuts, [axis]: mm } })
export const setMark = (mark: number) => set({ mark })
export const setAsks = (asks: readonly string[]) => set({ asks })
export const select = (at: Selected) => set({ at })
export const stopTrial = () => set({ trial: null })

/** The first complaint about a part, by its path in the design. */
export const useFaultUnder = (path: string) =>
  useWork((state) => state.faults.find((fault) => fault.field === path || fault.field.startsWith(`${path}.`))?.message)

/** The complaint about a field, by its path in the design. */
export const useFault = (path: string) => useWork((state) => state.faults.find((fault) => fault.field === path))
