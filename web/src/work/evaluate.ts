import { useEffect } from 'react'
import { api, asked, Failure } from '../api/client'
import type { Attitude, Design, Evaluation, Remedy } from '../api/model'
import { patched } from './patch'
import { isDragging, useWork } from './store'

const { setState: set, getState: get } = useWork
const REST_MS = 120

interface Question {
  design: Design
  fill: number | null
  attitude: Attitude
  cuts: { x: number | null; y: number | null }
  asks: readonly string[]
  mark: number
  vehicle: number
  remedies: boolean
}

/** What the drawing and the tally show at every station. */
const ALWAYS = ['shell', 'bay.gaps', 'mount.vehicle']

const ask = ({ design, fill, attitude, cuts, asks, mark, remedies }: Question) =>
  asked(
    api.POST('/api/evaluate', {
      body: {
        design: design as unknown as Record<string, unknown>,
        showing: {
          fill_fraction: fill,
          attitude,
          cut_x_mm: cuts.x,
          cut_y_mm: cuts.y,
          results: [...ALWAYS, ...asks],
          mark_mm: mark,
          remedies,
        },
      },
    }),
  ) as Promise<Evaluation>

const ASKED_ABOUT = ['design', 'fill', 'attitude', 'cuts', 'asks', 'mark', 'vehicle', 'dragging'] as const

let busy = false
let asleep: ReturnType<typeof setTimeout> | null = null
let last: Question | null = null

const sameQuestion = (a: Question | null, b: Question) =>
  a !== null &&
  a.design === b.design &&
  a.fill === b.fill &&
  a.attitude === b.attitude &&
  a.cuts === b.cuts &&
  a.asks === b.asks &&
  a.mark === b.mark &&
  a.vehicle === b.vehicle

/** The question that is open now: first the figures, then, once the hand rests, the remedies too. */
function nextQuestion(): Question | null {
  const { design, fill, attitude, cuts, asks, mark, vehicle } = get()
  const now = { design, fill, attitude, cuts, asks, mark, vehicle, remedies: false }
  if (!sameQuestion(last, now)) return now
  return last?.remedies || isDragging() ? null : { ...now, remedies: true }
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** A later answer's results over an earlier one's: what wasn't asked for this time stays. */
function over(before: unknown, later: unknown): unknown {
  if (later === null || later === undefined) return before
  if (!isRecord(before) || !isRecord(later)) return later
  return {
    ...before,
    ...Object.fromEntries(Object.entries(later).map(([name, value]) => [name, value ?? before[name]])),
  }
}

/** An answer about the same design as the one before, with the results that it wasn't asked for. */
function completed(answer: Evaluation, before: Evaluation): Evaluation {
  const parts = Object.entries(answer).map(([name, value]) => [name, over(before[name as keyof Evaluation], value)])
  return Object.fromEntries(parts) as unknown as Evaluation
}

/** An answer without remedies keeps those that were there for the same finding, until the new ones come. */
function kept(answer: Evaluation, design: Design): Evaluation {
  const { evaluation: before, evaluated } = get()
  if (!before) return answer
  const whole = evaluated === design ? completed(answer, before) : answer
  if (answer.tried) return whole
  const remedies = new Map(before.findings?.map((finding) => [finding.key, finding.remedies]))
  return {
    ...whole,
    findings: whole.findings?.map((finding) => ({ ...finding, remedies: remedies.get(finding.key) ?? [] })),
  }
}

/** Ask the core about the present design. One question at a time; the newest design always gets its answer. */
async function refresh() {
  if (busy) return
  busy = true
  try {
    for (let question = nextQuestion(); question; question = nextQuestion()) {
      if (question.remedies) {
        await new Promise((resolve) => setTimeout(resolve, REST_MS))
        const still = nextQuestion()
        if (!still?.remedies) continue
      }
      last = question
      try {
        const answer = await ask(question)
        if (get().design === question.design || get().evaluated !== get().design)
          set({ evaluation: kept(answer, question.design), evaluated: question.design, faults: [], unreachable: false })
      } catch (error) {
        if (!(error instanceof Failure)) throw error
        if (error.status === 422) {
          last = { ...question, remedies: true }
          set({ faults: error.faults, unreachable: false })
        } else {
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

/** Keep the evaluation in step with the design and what of it is shown, until told to stop. */
export function startEvaluating(): () => void {
  last = null
  void refresh()
  return useWork.subscribe((state, before) => {
    if (ASKED_ABOUT.some((part) => state[part] !== before[part])) void refresh()
  })
}

export const useEvaluating = () => useEffect(startEvaluating, [])

/** Show what a remedy would do, without taking it. */
export async function tryRemedy(key: string, remedy: Remedy) {
  if (get().trial?.key === key) {
    set({ trial: null })
    return
  }
  set({ trial: { key, remedy, evaluation: null } })
  const { design, fill, attitude, cuts, asks, mark, vehicle } = get()
  const evaluation = await ask({
    design: patched(design, remedy.patch),
    fill,
    attitude,
    cuts,
    asks,
    mark,
    vehicle,
    remedies: false,
  }).catch(() => null)
  if (get().trial?.key === key) set({ trial: { key, remedy, evaluation } })
}
