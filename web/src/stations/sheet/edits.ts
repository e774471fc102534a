// What the Sheet station changes in the design.
import * as declared from '../../api/declared'
import type { Schemas } from '../../api/client'
import type { SheetScheme } from '../../api/model'
import { change } from '../../work/store'
import { cornerSizes, type Size, withSize } from './sizes'

type Question = Schemas['PartQuestion']
type AsBuilt = Schemas['AsBuilt']

const SAME_MM = 0.01

export const setScheme = (part: Partial<SheetScheme>) =>
  change((design) => ({ ...design, sheet: { ...design.sheet, ...part } as SheetScheme }))

/** Whether a part's name is on a list of the sheet scheme. */
const listed = (list: 'sent_out' | 'cut', part: string, on: boolean) =>
  change((design) => {
    const others = (design.sheet?.[list] ?? []).filter((name) => name !== part)
    return { ...design, sheet: { ...design.sheet, [list]: on ? [...others, part] : others } }
  })

/** A part that somebody else makes: this shop's machines don't count for it. */
export const sendOut = (part: string, out: boolean) => listed('sent_out', part, out)

/** A part that is cut already: what was built otherwise must not change it. */
export const markCut = (part: string, cut: boolean) => listed('cut', part, cut)

const withQuestions = (made: (questions: Question[]) => Question[]) =>
  change((design) => ({ ...design, sheet: { ...design.sheet, questions: made(design.sheet?.questions ?? []) } }))

/** One more question about a part; its number is the first that is free. */
export const ask = (part: string, title: string) =>
  withQuestions((questions) => {
    const taken = new Set(questions.map(({ id }) => id))
    let number = 1
    while (taken.has(`q-${number}`)) number += 1
    const asked = `Can you bend the ${title.toLowerCase()} as drawn, and at what price?`
    return [...questions, { ...declared.PartQuestion.defaults, id: `q-${number}`, part, asked }]
  })

export const answered = (id: string, part: Partial<Question>) =>
  withQuestions((questions) => questions.map((one) => (one.id === id ? { ...one, ...part } : one)))

export const dropQuestion = (id: string) => withQuestions((questions) => questions.filter((one) => one.id !== id))

/** What was planned, kept once for each size. */
function logged(log: AsBuilt[], size: Size): AsBuilt[] {
  if (log.some(({ of }) => of === size.of)) return log
  const taken = new Set(log.map(({ id }) => id))
  let number = 1
  while (taken.has(`built-${number}`)) number += 1
  return [...log, { id: `built-${number}`, of: size.of, name: size.name, planned_mm: size.mm, note: '' }]
}

/** A size as it was built: the design has it so, and keeps what was planned. */
export const typeAsBuilt = (size: Size, mm: number) =>
  change((design) => {
    const changed = withSize(design, size.of, mm)
    return { ...changed, sheet: { ...changed.sheet, as_built: logged(design.sheet?.as_built ?? [], size) } }
  })

/** A section as it is bent: a box is a profile from here on, and its corners keep where they were planned. */
export const takeAsBent = ({ planned, built }: Schemas['AsBent']) =>
  change((design) => {
    if (!built) return design
    const was = cornerSizes(planned.corners)
    const is = cornerSizes(built.corners)
    const moved = was.filter((size, n) => Math.abs(size.mm - (is[n]?.mm ?? size.mm)) > SAME_MM)
    return {
      ...design,
      shell: built,
      sheet: { ...design.sheet, as_built: moved.reduce(logged, design.sheet?.as_built ?? []) },
    }
  })

/** Back to the size that was planned. */
export const asPlanned = (id: string) =>
  change((design) => {
    const log = design.sheet?.as_built ?? []
    const one = log.find((entry) => entry.id === id)
    if (!one) return design
    const changed = withSize(design, one.of, one.planned_mm)
    return { ...changed, sheet: { ...changed.sheet, as_built: log.filter((entry) => entry.id !== id) } }
  })
