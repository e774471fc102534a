import type { Axis, BoxShell, Corner, ProfileShell, Shell } from '../api/model'
import { SIZE } from '../api/model'

const round = (mm: number) => Math.round(mm * 1000) / 1000

/** A new corner half way along the edge after one; a rolled edge becomes straight there. */
export function split(corners: Corner[], place: number): Corner[] {
  const [from, to] = [corners[place], corners[(place + 1) % corners.length]]
  if (!from || !to) return corners
  const middle: Corner = {
    across_mm: round((from.across_mm + to.across_mm) / 2),
    up_mm: round((from.up_mm + to.up_mm) / 2),
    bow_mm: 0,
    joint: 'bend',
  }
  return corners.flatMap((corner, here) => (here === place ? [{ ...corner, bow_mm: 0 }, middle] : [corner]))
}

export const without = (corners: Corner[], place: number): Corner[] =>
  corners.length > 3 ? corners.filter((_, here) => here !== place) : corners

/** A corner cut off: two corners, each so far along its edges, but never past their middles. */
export function chamfered(corners: Corner[], place: number, mm: number): Corner[] {
  const count = corners.length
  const [before, at, after] = [corners[(place + count - 1) % count], corners[place], corners[(place + 1) % count]]
  if (!before || !at || !after) return corners
  const along = (to: Corner): Corner => {
    const [dx, dy] = [to.across_mm - at.across_mm, to.up_mm - at.up_mm]
    const share = Math.min(0.45, mm / Math.hypot(dx, dy))
    return { ...at, bow_mm: 0, across_mm: round(at.across_mm + dx * share), up_mm: round(at.up_mm + dy * share) }
  }
  return corners.flatMap((corner, here) =>
    here === place ? [along(before), { ...along(after), bow_mm: at.bow_mm }] : [corner],
  )
}

/** Fields for a box or a cylinder that is to have a size along an axis; null where that isn't a size of its own. */
export function resizedTo(shell: Shell, axis: Axis, size: number): Record<string, number> | null {
  if (shell.kind === 'box') return { [SIZE[axis]]: size }
  if (shell.kind === 'cylinder') return shell.axis === axis ? { run_mm: size } : { diameter_mm: size }
  return shell.wrap_axis === axis ? { run_mm: size } : null
}

/** What the design writes for the size along an axis. */
export function writtenSize(shell: Shell, axis: Axis): number {
  if (shell.kind === 'box') return (shell as BoxShell)[SIZE[axis]]
  if (shell.kind === 'cylinder') return shell.axis === axis ? shell.run_mm : shell.diameter_mm
  if (shell.wrap_axis === axis) return shell.run_mm
  const values = shell.corners.map((corner) => (axis === 'z' ? corner.up_mm : corner.across_mm))
  return Math.max(...values) - Math.min(...values)
}

/** A profile's corners stretched so that they span a size; rolled edges keep their share of the chord. */
export function stretched(shell: ProfileShell, axis: Axis, size: number): Corner[] {
  const name = axis === 'z' ? 'up_mm' : 'across_mm'
  const values = shell.corners.map((corner) => corner[name])
  const [low, span] = [Math.min(...values), Math.max(...values) - Math.min(...values)]
  const moved = shell.corners.map((corner) => ({
    ...corner,
    [name]: round(low + ((corner[name] - low) * size) / (span || 1)),
  }))
  const chord = (corners: Corner[], here: number) => {
    const [a, b] = [corners[here], corners[(here + 1) % corners.length]]
    return a && b ? Math.hypot(a.across_mm - b.across_mm, a.up_mm - b.up_mm) : 0
  }
  return moved.map((corner, here) =>
    corner.bow_mm
      ? { ...corner, bow_mm: round((corner.bow_mm * chord(moved, here)) / (chord(shell.corners, here) || 1)) }
      : corner,
  )
}
