import * as declared from '../../api/declared'
import type { Brief, CardRule, DemandCase, FittedPump, Surge } from '../../api/model'
import { freshId } from '../../work/naming'
import { change, useWork } from '../../work/store'

export const setBrief = (part: Partial<Brief>) =>
  change((design) => ({ ...design, brief: { ...design.brief, ...part } as Brief }))
const briefOf = (make: (brief: Brief) => Partial<Brief>) =>
  change((design) => ({ ...design, brief: { ...design.brief, ...make(design.brief) } as Brief }))

export const changeCase = (id: string, part: Partial<DemandCase>) =>
  briefOf((brief) => ({ cases: brief.cases.map((item) => (item.id === id ? { ...item, ...part } : item)) }))
export const removeCase = (id: string) => briefOf((brief) => ({ cases: brief.cases.filter((item) => item.id !== id) }))
export const changePump = (id: string, part: Partial<FittedPump>) =>
  briefOf((brief) => ({ pumps: brief.pumps.map((item) => (item.id === id ? { ...item, ...part } : item)) }))
export const removePump = (id: string) => briefOf((brief) => ({ pumps: brief.pumps.filter((item) => item.id !== id) }))
export const changeSurge = (part: Partial<Surge>) =>
  briefOf((brief) => ({ surge: brief.surge ? { ...brief.surge, ...part } : null }))
export const changeRule = (id: string, part: Partial<CardRule>) =>
  briefOf((brief) => ({ card: brief.card.map((item) => (item.id === id ? { ...item, ...part } : item)) }))
export const removeRule = (id: string) => briefOf((brief) => ({ card: brief.card.filter((item) => item.id !== id) }))

/** One more demand case; its id. */
export function addCase(): string {
  const id = freshId('case', useWork.getState().design.brief.cases)
  briefOf((brief) => ({
    cases: [
      ...brief.cases,
      {
        ...declared.DemandCase.defaults,
        id,
        name: ['Now', 'Later'][brief.cases.length] ?? `Case ${brief.cases.length + 1}`,
        engine:
          brief.fuel === 'diesel' || brief.fuel === 'kerosene'
            ? ('diesel' as const)
            : ('petrol, naturally aspirated' as const),
      },
    ],
  }))
  return id
}
