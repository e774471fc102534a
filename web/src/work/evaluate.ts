import { useEffect } from 'react'
import { api, asked, Failure } from '../api/client'
import type { Attitude, Design, Evaluation, Remedy } from '../api/model'
import { patched } from './patch'
import { useWork } from './store'

const { setState: set, getState: get } = useWork

const ask = (design: Design, fill: number | null, attitude: Attitude) =>
  asked(api.POST('/api/evaluate', { body: { design: design as unknown as Record<string, unknown>, fill_fraction: fill, attitude } })) as Promise<Evaluation>

let busy = false
let asleep: ReturnType<typeof setTimeout> | null = null
let last: { design: Design; fill: number | null; attitude: Attitude } | null = null

/** Ask the core about the present design. One question at a time; the newest design always gets its answer. */
async function refresh() {
  if (busy) return
  busy = true
  try {
    for (;;) {
      const { design, fill, attitude } = get()
      if (last?.design === design && last.fill === fill && last.attitude === attitude) return
      last = { design, fill, attitude }
      try {
        const evaluation = await ask(design, fill, attitude)
        if (get().design === design || get().evaluated !== get().design) set({ evaluation, evaluated: design, faults: [], unreachable: false })
      } catch (error) {
        if (!(error instanceof Failure)) throw error
        if (error.status === 422) set({ faults: error.faults, unreachable: false })
        else {
          set({ unreachable: true })
          last = null
          asleep ??= setTimeout(() => {
            asleep = null
            void refresh()
          }, 2500)
          return
        }
      }
    }
  } finally {
    busy = false
  }
}

/** Keep the evaluation in step with the design and the chosen fill. */
export function useEvaluating() {
  useEffect(() => {
    last = null
    void refresh()
    return useWork.subscribe((state, before) => {
      if (state.design !== before.design || state.fill !== before.fill || state.attitude !== before.attitude) void refresh()
    })
  }, [])
}

/** Show what a remedy would do, without taking it. */
export async function tryRemedy(key: string, remedy: Remedy) {
  if (get().trial?.key === key) {
    set({ trial: null })
    return
  }
  set({ trial: { key, remedy, evaluation: null } })
  const evaluation = await ask(patched(get().design, remedy.patch), get().fill, get().attitude).catch(() => null)
  if (get().trial?.key === key) set({ trial: { key, remedy, evaluation } })
}
