import { useEffect } from 'react'
import { create } from 'zustand'
import { queryOptions } from '@tanstack/react-query'
import { api, asked, Failure } from '../../api/client'
import type { Design, RunShown, Slosh, StarvationMap } from '../../api/model'
import { change, useWork } from '../../work/store'

export const setSlosh = (part: Partial<Slosh>) =>
  change((design) => ({ ...design, slosh: { ...design.slosh, ...part } as Slosh }))
export const setManoeuvre = (part: Partial<Slosh['manoeuvre']>) =>
  change((design) => ({
    ...design,
    slosh: { ...design.slosh, manoeuvre: { ...design.slosh.manoeuvre, ...part } } as Slosh,
  }))

export const lapsQuery = queryOptions({ queryKey: ['laps'], queryFn: () => asked(api.GET('/api/laps')) })

interface Running {
  /** The last run, and of which design it is. */
  run: RunShown | null
  of: Design | null
  map: StarvationMap | null
  problem: string
  busy: boolean
  /** The moment shown [s]. */
  at: number
  playing: boolean
  speed: number
}

export const useRun = create<Running>(() => ({
  run: null,
  of: null,
  map: null,
  problem: '',
  busy: false,
  at: 0,
  playing: false,
  speed: 1,
}))
const { setState: set, getState: get } = useRun

const REST_MS = 250
const body = (design: Design) => ({ body: { design: design as unknown as Record<string, unknown> } })

/** Whether two designs run alike. */
const alike = (a: Design | null, b: Design) =>
  a !== null &&
  a.slosh === b.slosh &&
  a.inside === b.inside &&
  a.shell === b.shell &&
  a.ports === b.ports &&
  a.brief === b.brief

async function refresh() {
  const { design, dragging } = useWork.getState()
  if (get().busy || dragging || alike(get().of, design)) return
  const shapeChanged =
    get().of?.shell !== design.shell || get().of?.ports !== design.ports || get().of?.inside !== design.inside
  set({ busy: true })
  try {
    const run = await asked(api.POST('/api/slosh/run', body(design)))
    set({ run, of: design, problem: '', at: Math.min(get().at, run.times_s.at(-1) ?? 0) })
    if (shapeChanged || !get().map) set({ map: await asked(api.POST('/api/slosh/map', body(design))) })
  } catch (error) {
    if (!(error instanceof Failure)) throw error
    set({ problem: error.faults[0]?.message ?? error.message, of: error.status === 422 ? design : null })
  } finally {
    set({ busy: false })
  }
  if (!alike(get().of, useWork.getState().design)) later()
}

let timer: ReturnType<typeof setTimeout> | null = null
function later() {
  if (timer) clearTimeout(timer)
  timer = setTimeout(() => void refresh(), REST_MS)
}

/** Keep the run in step with the design while the station is open. */
export function useRunning() {
  useEffect(() => {
    set({ run: null, of: null, map: null, problem: '', at: 0, playing: false })
    later()
    const stop = useWork.subscribe((now, before) => {
      if (now.design !== before.design || now.dragging !== before.dragging) later()
    })
    return () => {
      stop()
      set({ playing: false })
    }
  }, [])
}

/** Let time pass while it plays. */
export function usePlaying() {
  const playing = useRun((run) => run.playing)
  useEffect(() => {
    if (!playing) return
    let last = performance.now()
    let frame = requestAnimationFrame(function step(now) {
      const { at, speed, run } = get()
      const end = run?.times_s.at(-1) ?? 0
      const next = at + ((now - last) / 1000) * speed
      last = now
      set(next >= end ? { at: end, playing: false } : { at: next })
      frame = requestAnimationFrame(step)
    })
    return () => cancelAnimationFrame(frame)
  }, [playing])
}

export function play() {
  const { playing, at, run } = get()
  const end = run?.times_s.at(-1) ?? 0
  set(playing ? { playing: false } : { playing: true, at: at >= end - 0.01 ? 0 : at })
}

/** The row of the run that is shown. */
export const useMoment = () => useRun((state) => momentOf(state.run, state.at))

function momentOf(run: RunShown | null, at: number): number {
  if (!run) return 0
  const { times_s: times } = run
  const step = (times[1] ?? 1) - (times[0] ?? 0)
  return Math.min(times.length - 1, Math.max(0, Math.round(at / step)))
}
