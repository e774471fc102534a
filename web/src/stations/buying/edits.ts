import * as declared from '../../api/declared'
import type { Buying, BuyingLine, OwnItem } from '../../api/model'
import { freshId } from '../../work/naming'
import { change, useWork } from '../../work/store'

const setBuying = (part: Partial<Buying>) => change((design) => ({ ...design, buying: { ...design.buying, ...part } }))

/** What is said of lines of the list; a line that says nothing any more is left out. */
export function sayOf(said: readonly (Partial<BuyingLine> & { name: string })[]) {
  const known = new Map(useWork.getState().design.buying.lines.map((line) => [line.name, line]))
  for (const { name, ...part } of said) {
    const line = { ...declared.BuyingLine.defaults, ...known.get(name), ...part, name }
    if (line.supplier || line.price !== null || line.on_shelf !== null || line.ordered) known.set(name, line)
    else known.delete(name)
  }
  setBuying({ lines: [...known.values()] })
}

export function addOwn(name: string) {
  const { own } = useWork.getState().design.buying
  setBuying({ own: [...own, { ...declared.OwnItem.defaults, id: freshId('item', own), name }] })
}

export const changeOwn = (id: string, part: Partial<OwnItem>) =>
  setBuying({
    own: useWork.getState().design.buying.own.map((one) => (one.id === id ? { ...one, ...part } : one)),
  })

export const removeOwn = (id: string) =>
  setBuying({ own: useWork.getState().design.buying.own.filter((one) => one.id !== id) })
