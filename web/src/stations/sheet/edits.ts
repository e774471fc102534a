// What the Sheet station changes in the design.
import * as declared from '../../api/declared'
import type { Schemas } from '../../api/client'
import type { SheetScheme } from '../../api/model'
import { change } from '../../work/store'

type Question = Schemas['PartQuestion']

export const setScheme = (part: Partial<SheetScheme>) =>
  change((design) => ({ ...design, sheet: { ...design.sheet, ...part } as SheetScheme }))

/** A part that somebody else makes: this shop's machines don't count for it. */
export const sendOut = (part: string, out: boolean) =>
  change((design) => {
    const others = (design.sheet?.sent_out ?? []).filter((name) => name !== part)
    return { ...design, sheet: { ...design.sheet, sent_out: out ? [...others, part] : others } }
  })

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
