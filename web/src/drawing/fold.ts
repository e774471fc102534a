// A flat part folding up: where each of its panels lies when so much of every turn is made.
import type { Schemas } from '../api/client'

export type FoldPiece = Schemas['FoldPiece']
type FoldPanel = Schemas['FoldPanel']
/** Sixteen figures, row by row. */
export type Matrix = number[]

const at = (matrix: Matrix, row: number, column: number) => matrix[4 * row + column] ?? 0

export const times = (a: Matrix, b: Matrix): Matrix =>
  Array.from({ length: 16 }, (_, place) => {
    const [row, column] = [Math.floor(place / 4), place % 4]
    return [0, 1, 2, 3].reduce((sum, n) => sum + at(a, row, n) * at(b, n, column), 0)
  })

/** What a turn does to the panel left of its line: back over its zone, then round the axis that lies over or under it. */
export function turned(panel: FoldPanel, share: number): Matrix {
  const angle = (panel.angle_deg * share * Math.PI) / 180
  const whole = Math.abs((panel.angle_deg * Math.PI) / 180)
  const [x0, y0] = panel.start as [number, number]
  const [x1, y1] = panel.end as [number, number]
  const long = Math.hypot(x1 - x0, y1 - y0)
  if (Math.abs(angle) < 1e-9 || !long) return [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]
  const [a, b] = [(x1 - x0) / long, (y1 - y0) / long]
  const [left, up] = [[-b, a] as const, panel.angle_deg > 0 ? 1 : -1]
  // The neutral line keeps its length: on the way its radius is as much larger as the angle is smaller.
  const neutral = panel.zone_mm / whole
  const far = neutral / share + panel.far_mm - neutral
  const edge = [x0 - (left[0] * panel.zone_mm) / 2, y0 - (left[1] * panel.zone_mm) / 2] as const
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  // Along the line nothing changes; across it and up it turns.
  const m = [
    [a * a + cos * left[0] * left[0], a * b + cos * left[0] * left[1], -sin * left[0]],
    [a * b + cos * left[0] * left[1], b * b + cos * left[1] * left[1], -sin * left[1]],
    [sin * left[0], sin * left[1], cos],
  ] as const
  const axis = [edge[0], edge[1], up * far] as const
  const from = [axis[0] + left[0] * panel.zone_mm, axis[1] + left[1] * panel.zone_mm, axis[2]] as const
  return [
    ...m.flatMap((row, n) => [...row, (axis[n] ?? 0) - row[0] * from[0] - row[1] * from[1] - row[2] * from[2]]),
    ...[0, 0, 0, 1],
  ]
}

/** Where every panel of a piece lies in the tank; on its way in its base stands so far outside. */
export function folded(piece: FoldPiece, share: number, outside = 0): Matrix[] {
  const found: Matrix[] = []
  const base = [...piece.matrix]
  for (const row of [0, 1, 2]) base[4 * row + 3] = at(base, row, 3) - at(base, row, 2) * outside
  for (const panel of piece.panels) {
    const parent = panel.parent === null ? null : found[panel.parent]
    found.push(parent ? times(parent, turned(panel, share)) : base)
  }
  return found
}

export type Place = [number, number, number]

/** Where a spot of a flat lies, on the face that is the tank's outside. */
export const placeOf = (matrix: Matrix, u: number, v: number): Place =>
  [0, 1, 2].map((row) => at(matrix, row, 0) * u + at(matrix, row, 1) * v + at(matrix, row, 3)) as Place

const foldedUp = (piece: FoldPiece) => folded(piece, 1)

/** Low and high corner of the box round all pieces, folded up or as they lie. */
export function boxRound(pieces: FoldPiece[], placed = foldedUp): { low: Place; high: Place } | null {
  const low: Place = [Infinity, Infinity, Infinity]
  const high: Place = [-Infinity, -Infinity, -Infinity]
  for (const piece of pieces)
    placed(piece).forEach((matrix, n) => {
      for (const [u, v] of piece.panels[n]?.rings.flat(2) ?? [])
        placeOf(matrix, u as number, v as number).forEach((value, axis) => {
          low[axis] = Math.min(low[axis] as number, value)
          high[axis] = Math.max(high[axis] as number, value)
        })
    })
  return Number.isFinite(low[0]) ? { low, high } : null
}
