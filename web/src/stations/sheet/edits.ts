// What the Sheet station changes in the design.
import * as declared from '../../api/declared'
import type { Schemas } from '../../api/client'
import type { SheetScheme } from '../../api/model'
import { change } from '../../work/store'
import { type Size, withSize } from './sizes'

type Question = Schemas['PartQuestion']

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

/** A size as it was built: the design has it so, and keeps what was planned. */
export const typeAsBuilt = (size: Size, mm: number) =>
  change((design) => {
    const log = design.sheet?.as_built ?? []
    const taken = new Set(log.map(({ id }) => id))
    let number = 1
    while (taken.has(`built-${number}`)) number += 1
    const fresh = { id: `built-${number}`, of: size.of, name: size.name, planned_mm: size.mm, note: '' }
    const kept = log.some(({ of }) => of === size.of) ? log : [...log, fresh]
    const changed = withSize(design, size.of, mm)
    return { ...changed, sheet: { ...changed.sheet, as_built: kept } }
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
