import { inAWindow, rest, server } from './browserless'
import type { Design, Evaluation } from '../src/api/model'
import { startEvaluating } from '../src/work/evaluate'
import { begin, keepMine, save, takeTheirs, useSaving, watchForSaving } from '../src/work/saving'
import { change, endDrag, open, redo, setAsks, startDrag, undo, useWork } from '../src/work/store'

const drawn = (length_mm: number) => ({ version: 1, shell: { length_mm } }) as unknown as Design
const long = () => (useWork.getState().design.shell as { length_mm: number }).length_mm
const make = (length_mm: number) => change(() => drawn(length_mm))

/** What the store does with changes, drags, undo and a reader. */
export function changes() {
  const seen: number[] = []
  const look = () => seen.push(long())
  open(drawn(100), false)
  make(200)
  make(200)
  look()
  startDrag()
  make(300)
  make(400)
  endDrag(true)
  look()
  undo()
  look()
  undo()
  look()
  undo()
  look()
  redo()
  redo()
  look()
  startDrag()
  make(900)
  endDrag(false)
  look()
  open(drawn(50), true)
  make(60)
  look()
  return seen
}

export type Act = ['make' | 'move', number] | ['begin' | 'keep' | 'leave' | 'undo' | 'redo']

const ACTS: Record<Act[0], (length_mm: number) => void> = {
  make,
  move: make,
  begin: startDrag,
  keep: () => endDrag(true),
  leave: () => endDrag(false),
  undo,
  redo,
}

/** What stands there after each of some acts. */
export function acted(acts: Act[]) {
  open(drawn(0), false)
  return acts.map(([name, length_mm]) => {
    ACTS[name](length_mm ?? 0)
    return long()
  })
}

const answered = (results: Partial<Evaluation>, tried: boolean) => ({
  status: 200,
  body: { findings: [], stations: [], untried: 0, tried, ...results },
})

/** What is asked of the core while a hand drags and rests, and what is kept of an answer. */
async function evaluatingSeen() {
  server.asked = []
  const finding = (remedies: unknown[]) => ({ key: 'k', severity: 'stop', station: 'shell', remedies })
  server.answer = ({ body }) => {
    const showing = body.showing as { remedies: boolean; results: string[] }
    const ports = showing.results.includes('ports') ? { reaches: [1] } : null
    return answered(
      { ports, shell: { figures: { rated_l: 1 } }, findings: [finding(showing.remedies ? ['r'] : [])] } as never,
      showing.remedies,
    )
  }
  open(drawn(100), false)
  setAsks(['ports'])
  const stop = startEvaluating()
  await rest(300)
  startDrag()
  make(110)
  await rest(200)
  const during = useWork.getState().evaluation?.findings[0]?.remedies
  endDrag(true)
  await rest(300)
  setAsks(['brief'])
  await rest(300)
  const { evaluation, evaluated, design } = useWork.getState()
  server.answer = () => ({
    status: 422,
    body: {
      code: 'invalid',
      message: 'no',
      errors: [{ field: 'shell.length_mm', message: 'too long', limit: '', value: 1 }],
    },
  })
  make(99999)
  await rest(300)
  const { faults } = useWork.getState()
  server.answer = () => 'away'
  make(120)
  await rest(200)
  const away = useWork.getState().unreachable
  server.answer = () => answered({}, true)
  await rest(2800)
  stop()
  const asked = server.asked.map(({ body }) => {
    const showing = body.showing as { remedies: boolean; results: string[] }
    return [
      (body.design as { shell: { length_mm: number } }).shell.length_mm,
      showing.remedies,
      showing.results.includes('ports'),
    ]
  })
  return {
    asked,
    during,
    reaches: evaluation?.ports?.reaches,
    upToDate: evaluated === design,
    faults: faults.map((fault) => fault.message),
    away,
    back: !useWork.getState().unreachable,
  }
}

/** Saves, in order: the plain one, one that meets a conflict and is kept, one set aside, one while the server is away. */
async function savingSeen() {
  server.asked = []
  let present = 1
  server.answer = ({ body }) => {
    if (body.base_revision !== present)
      return {
        status: 409,
        body: {
          code: 'conflict',
          message: 'old',
          current: { number: present, author: 'x', saved: '', design: drawn(777) },
        },
      }
    present += 1
    return { status: 200, body: { number: present, saved: '', author: '', note: '' } }
  }
  const states: [string, number, number][] = []
  const look = () => states.push([useSaving.getState().state, useSaving.getState().revision, long()])
  begin(5, 1, drawn(100), false)
  const stop = watchForSaving()
  make(200)
  look()
  await rest(750)
  look()
  startDrag()
  make(250)
  await rest(750)
  look()
  endDrag(true)
  await rest(750)
  look()
  present = 9
  make(300)
  await save()
  look()
  await keepMine()
  look()
  present = 20
  make(400)
  await save()
  await takeTheirs()
  look()
  server.answer = () => 'away'
  make(500)
  await save()
  look()
  const draft = localStorage.getItem('core-keel/draft/5')
  stop()
  server.answer = () => ({ status: 200, body: { number: 99, saved: '', author: '', note: '' } })
  begin(5, 22, drawn(777), false)
  look()
  await save()
  look()
  return {
    states,
    bases: server.asked.filter(({ path }) => path.endsWith('/5')).map(({ body }) => body.base_revision),
    draft: draft !== null,
    after: localStorage.getItem('core-keel/draft/5'),
  }
}

export const evaluating = () => inAWindow(evaluatingSeen)
export const saving = () => inAWindow(savingSeen)
