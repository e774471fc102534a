import type { Axis, Bay, Evaluation } from '../api/model'
import { SIZE } from '../api/model'
import { boxOf } from './keepOuts'

export interface Snap {
  at: number
  why: string
}

const SIDE_OF: Record<Axis, [string, string]> = { x: ['rear', 'front'], y: ['right', 'left'], z: ['floor', 'roof'] }

/** Places along an axis that the face of a shell likes to go to. The core says how far to stay away. */
export function shellSnaps(
  bay: Bay | null | undefined,
  evaluation: Evaluation | null,
  axis: Axis,
  high: boolean,
): Snap[] {
  if (!bay || !evaluation?.shell?.geometry) return []
  const lip = evaluation.shell?.geometry.axis === axis ? evaluation.shell?.geometry.lip_mm : 0
  const out = high ? -1 : 1
  const needed = (key: string) => evaluation.bay?.gaps?.find((gap) => gap.key === key)?.needed_mm ?? 0
  const side = SIDE_OF[axis][high ? 1 : 0]
  const edge = high ? bay[SIZE[axis]] : 0
  const snaps: Snap[] = [{ at: edge + out * (needed(side) + lip), why: `clears the ${side}` }]
  for (const k of bay.keep_outs ?? []) {
    const box = boxOf(k)
    if (!box) continue
    const face = high ? box.low[axis] : box.high[axis]
    snaps.push({ at: face + out * (needed(k.id) + lip), why: `clears the ${k.name}` })
  }
  return snaps
}

/** The nearest snap within reach, else the nearest round number within reach, else the place itself. */
export function snapped(at: number, snaps: Snap[], round: number, reach: number): Snap {
  const near = snaps
    .filter((snap) => Math.abs(snap.at - at) <= reach)
    .sort((a, b) => Math.abs(a.at - at) - Math.abs(b.at - at))[0]
  if (near) return near
  const even = Math.round(at / round) * round
  return Math.abs(even - at) <= Math.max(reach, round / 2) ? { at: even, why: '' } : { at, why: '' }
}
