import type { Axis, Bay, BoxShell, Corner, Design, Feature, KeepOut, Port, ProfileShell, Shell } from '../api/model'
import { PLACE, SIZE } from '../api/model'
import { change } from '../work/store'

export const setShell = (part: Record<string, unknown>) => change((design) => (design.shell ? ({ ...design, shell: { ...design.shell, ...part } } as Design) : design))
export const setBay = (part: Partial<Bay>) => change((design) => (design.bay ? { ...design, bay: { ...design.bay, ...part } } : design))
export const setBaySize = (axis: Axis, mm: number) => setBay({ [SIZE[axis]]: mm })

export const moveShell = (place: Partial<Record<Axis, number>>) => setShell(Object.fromEntries(Object.entries(place).map(([axis, mm]) => [PLACE[axis as Axis], mm])))

export const changeKeepOut = (id: string, part: Record<string, unknown>) =>
  change((design) => (design.bay ? { ...design, bay: { ...design.bay, keep_outs: design.bay.keep_outs.map((item) => (item.id === id ? ({ ...item, ...part } as KeepOut) : item)) } } : design))

export const changeFeature = (id: string, part: Record<string, unknown>) =>
  change((design) => (design.shell ? ({ ...design, shell: { ...design.shell, features: design.shell.features.map((item) => (item.id === id ? ({ ...item, ...part } as Feature) : item)) } } as Design) : design))

export const changePort = (id: string, part: Partial<Port>) => change((design) => ({ ...design, ports: design.ports.map((item) => (item.id === id ? { ...item, ...part } : item)) }))

export const setCorners = (make: (corners: Corner[]) => Corner[]) =>
  change((design) => (design.shell?.kind === 'profile' ? { ...design, shell: { ...design.shell, corners: make(design.shell.corners) } } : design))



export const changeCorner = (place: number, part: Partial<Corner>) => setCorners((corners) => corners.map((corner, here) => (here === place ? { ...corner, ...part } : corner)))

const round = (mm: number) => Math.round(mm * 1000) / 1000

/** A new corner half way along the edge after one; a rolled edge becomes straight there. */
export const splitEdge = (place: number) =>
  setCorners((corners) => {
    const [from, to] = [corners[place], corners[(place + 1) % corners.length]]
    if (!from || !to) return corners
    const middle: Corner = { across_mm: round((from.across_mm + to.across_mm) / 2), up_mm: round((from.up_mm + to.up_mm) / 2), bow_mm: 0, joint: 'bend' }
    return corners.flatMap((corner, here) => (here === place ? [{ ...corner, bow_mm: 0 }, middle] : [corner]))
  })

export const removeCorner = (place: number) => setCorners((corners) => (corners.length > 3 ? corners.filter((_, here) => here !== place) : corners))

/** A corner cut off: two corners, each so far along its edges. */
export const chamferCorner = (place: number, mm: number) =>
  setCorners((corners) => {
    const count = corners.length
    const [before, at, after] = [corners[(place + count - 1) % count], corners[place], corners[(place + 1) % count]]
    if (!before || !at || !after) return corners
    const along = (to: Corner, reach: number): Corner => {
      const [dx, dy] = [to.across_mm - at.across_mm, to.up_mm - at.up_mm]
      const share = Math.min(0.45, reach / Math.hypot(dx, dy))
      return { ...at, bow_mm: 0, across_mm: round(at.across_mm + dx * share), up_mm: round(at.up_mm + dy * share) }
    }
    return corners.flatMap((corner, here) => (here === place ? [along(before, mm), { ...along(after, mm), bow_mm: at.bow_mm }] : [corner]))
  })

/** Fields for a box or a cylinder whose body is to reach from low to high along an axis; null where that isn't a size of its own. */
export function resizedTo(shell: Shell, axis: Axis, size: number): Record<string, number> | null {
  if (shell.kind === 'box') return { [SIZE[axis]]: size }
  if (shell.kind === 'cylinder') return shell.axis === axis ? { run_mm: size } : { diameter_mm: size }
  return shell.wrap_axis === axis ? { run_mm: size } : null
}

/** What the design writes for the size along an axis. */
export function writtenSize(shell: Shell, axis: Axis): number | null {
  if (shell.kind === 'box') return (shell as BoxShell)[SIZE[axis]]
  if (shell.kind === 'cylinder') return shell.axis === axis ? shell.run_mm : shell.diameter_mm
  if (shell.wrap_axis === axis) return shell.run_mm
  const values = shell.corners.map((corner) => (axis === 'z' ? corner.up_mm : corner.across_mm))
  return Math.max(...values) - Math.min(...values)
}

/** Stretch a profile's corners so that they span a size; rolled edges keep their share of the chord. */
export function stretchProfile(shell: ProfileShell, axis: Axis, size: number): Corner[] {
  const name = axis === 'z' ? 'up_mm' : 'across_mm'
  const values = shell.corners.map((corner) => corner[name])
  const [low, span] = [Math.min(...values), Math.max(...values) - Math.min(...values)]
  const moved = shell.corners.map((corner) => ({ ...corner, [name]: round(low + ((corner[name] - low) * size) / (span || 1)) }))
  const chord = (corners: Corner[], here: number) => {
    const [a, b] = [corners[here], corners[(here + 1) % corners.length]]
    return a && b ? Math.hypot(a.across_mm - b.across_mm, a.up_mm - b.up_mm) : 0
  }
  return moved.map((corner, here) => (corner.bow_mm ? { ...corner, bow_mm: round((corner.bow_mm * chord(moved, here)) / (chord(shell.corners, here) || 1)) } : corner))
}

/** Set the size along an axis, however the kind of shell has it. */
export const setShellSize = (axis: Axis, mm: number) =>
  change((design) => {
    const { shell } = design
    if (!shell) return design
    const fields = resizedTo(shell, axis, mm) ?? (shell.kind === 'profile' ? { corners: stretchProfile(shell, axis, mm) } : {})
    return { ...design, shell: { ...shell, ...fields } as Shell }
  })
