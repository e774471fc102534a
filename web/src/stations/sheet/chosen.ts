// Which flat part is at hand on the bench, and which pieces in the tank are of it.
import type { FlatPart } from '../../api/model'

/** Whether a piece that lies in the tank is one of a flat part. */
export const isOf = (piece: { part: string }, chosen: string) => piece.part === chosen

/** The part that was chosen, if it is still there. */
export const partOf = (parts: FlatPart[], chosen: string | null) => parts.find((part) => part.name === chosen) ?? null

/** A part's outline and holes as one path in a box so wide and high, the flat's up upward. */
export function pathIn(part: FlatPart, wide: number, high: number): string {
  const scale = Math.min(wide / part.length_mm, high / part.width_mm)
  const [left, top] = [(wide - part.length_mm * scale) / 2, (high - part.width_mm * scale) / 2]
  return [part.outline, ...part.holes]
    .map((ring) => {
      const spots = ring.map(
        ([u, v]) => `${left + (u as number) * scale},${top + (part.width_mm - (v as number)) * scale}`,
      )
      return `M${spots.join('L')}z`
    })
    .join('')
}
