import type { Axis, Bay, KeepOut } from '../api/model'
import { AXES, PLACE, SIZE } from '../api/model'

export interface Box {
  low: Record<Axis, number>
  high: Record<Axis, number>
}

const AXIS_OF: Record<string, Axis> = { rear: 'x', front: 'x', right: 'y', left: 'y', floor: 'z', roof: 'z' }

export const isHighSide = (side: string) => side === 'front' || side === 'left' || side === 'roof'
export const axisOf = (side: string): Axis => AXIS_OF[side] ?? 'z'

/** The box round a keep-out; a slope has none of its own, a scan's comes with its picture. */
export function boxOf(k: KeepOut): Box | null {
  if (k.kind === 'box') {
    const low = { x: k.x_mm, y: k.y_mm, z: k.z_mm }
    return { low, high: { x: k.x_mm + k.length_mm, y: k.y_mm + k.width_mm, z: k.z_mm + k.height_mm } }
  }
  if (k.kind === 'cylinder') {
    const [low, high] = [
      { x: 0, y: 0, z: 0 },
      { x: 0, y: 0, z: 0 },
    ]
    for (const axis of AXES) {
      const at = k[PLACE[axis]]
      low[axis] = axis === k.axis ? at : at - k.diameter_mm / 2
      high[axis] = axis === k.axis ? at + k.run_mm : at + k.diameter_mm / 2
    }
    return { low, high }
  }
  return null
}

/** The part of the bay beyond a slope, seen across two axes, as corners [mm]; null where the view looks along the slope's fall. */
export function slopePolygon(
  k: Extract<KeepOut, { kind: 'slope' }>,
  bay: Bay,
  across: Axis,
  up: Axis,
): [number, number][] | null {
  const axis = axisOf(k.blocked)
  const run = bay[SIZE[k.along]]
  const edge = isHighSide(k.blocked) ? bay[SIZE[axis]] : 0
  if (axis === up && k.along === across) {
    return [
      [0, k.start_mm],
      [run, k.end_mm],
      [run, edge],
      [0, edge],
    ]
  }
  if (axis === across && k.along === up) {
    return [
      [k.start_mm, 0],
      [k.end_mm, run],
      [edge, run],
      [edge, 0],
    ]
  }
  return null
}
