import { AXES, type Axis, type Block, type Design, type Evaluation } from '../api/model'
import { boxOf } from './keepOuts'

/** A shop-drawing view: which axes run across and up. Third-angle: the plan stands over the elevation. */
export interface ViewSpec {
  id: 'plan' | 'elevation' | 'end'
  title: string
  across: Axis
  up: Axis
}

export const VIEWS: ViewSpec[] = [
  { id: 'plan', title: 'Plan, from above', across: 'x', up: 'y' },
  { id: 'elevation', title: 'Elevation, cut A', across: 'x', up: 'z' },
  { id: 'end', title: 'End, cut B', across: 'y', up: 'z' },
]

/** A view on the page: turns millimetres into pixels and back. */
export interface Placed extends ViewSpec {
  scale: number
  x0: number
  y0: number
  width: number
  height: number
  toX: (mm: number) => number
  toY: (mm: number) => number
}

export type Bounds = Record<Axis, [number, number]>

const MARGIN = { left: 74, right: 30, top: 40, bottom: 62 }
const GAP = { across: 92, down: 84 }

const grow = (bounds: Bounds | null, low: Record<Axis, number>, high: Record<Axis, number>): Bounds =>
  Object.fromEntries(
    AXES.map((axis) => [
      axis,
      [Math.min(bounds?.[axis][0] ?? Infinity, low[axis]), Math.max(bounds?.[axis][1] ?? -Infinity, high[axis])],
    ]),
  ) as Bounds

/** The space that everything to be drawn takes up; null when there is nothing yet. */
export function boundsOf(
  design: Design,
  evaluations: (Evaluation | null | undefined)[],
  reach: readonly Record<Axis, number>[] = [],
): Bounds | null {
  let bounds: Bounds | null = null
  const { bay } = design
  if (bay) {
    bounds = grow(bounds, { x: 0, y: 0, z: 0 }, { x: bay.length_mm, y: bay.width_mm, z: bay.height_mm })
    for (const k of bay.keep_outs) {
      const box = boxOf(k)
      if (box) bounds = grow(bounds, box.low, box.high)
    }
  }
  for (const place of [...heldAt(design), ...reach]) bounds = grow(bounds, place, place)
  for (const evaluation of evaluations) {
    const block: Block | undefined = evaluation?.shell?.geometry?.overall
    if (block) bounds = grow(bounds, block.low, block.high)
  }
  return bounds
}

/** Where the tank is bolted to the vehicle. */
function heldAt({ mount: { straps, feet, stops, filler } }: Design): Record<Axis, number>[] {
  const ends = straps.flatMap((strap) =>
    [strap.low, strap.high].map((end) =>
      strap.across === 'y'
        ? { x: strap.at_mm, y: end.out_mm, z: end.z_mm }
        : { x: end.out_mm, y: strap.at_mm, z: end.z_mm },
    ),
  )
  const single = [...feet, ...stops, ...(filler ? [filler] : [])]
  return [...ends, ...single.map((held) => ({ x: held.x_mm, y: held.y_mm, z: held.z_mm }))]
}

/** Lay the three views out on a page of so many pixels, all at one scale. */
export function layOut(
  bounds: Bounds,
  width: number,
  height: number,
): { views: Placed[]; free: { x: number; y: number; width: number; height: number } } {
  const size = (axis: Axis) => Math.max(1, bounds[axis][1] - bounds[axis][0])
  const roomAcross = width - MARGIN.left - MARGIN.right - GAP.across
  const roomDown = height - MARGIN.top - MARGIN.bottom - GAP.down
  const scale = Math.max(0.01, Math.min(roomAcross / (size('x') + size('y')), roomDown / (size('y') + size('z'))))
  const slackX = (roomAcross - scale * (size('x') + size('y'))) / 2
  const slackY = (roomDown - scale * (size('y') + size('z'))) / 2
  const left = MARGIN.left + slackX
  const right = left + scale * size('x') + GAP.across
  const planFoot = MARGIN.top + slackY + scale * size('y')
  const foot = planFoot + GAP.down + scale * size('z')
  const place = (spec: ViewSpec, x0: number, y0: number): Placed => ({
    ...spec,
    scale,
    x0,
    y0,
    width: scale * size(spec.across),
    height: scale * size(spec.up),
    toX: (mm) => x0 + (mm - bounds[spec.across][0]) * scale,
    toY: (mm) => y0 - (mm - bounds[spec.up][0]) * scale,
  })
  const [plan, elevation, end] = VIEWS as [ViewSpec, ViewSpec, ViewSpec]
  return {
    views: [place(plan, left, planFoot), place(elevation, left, foot), place(end, right, foot)],
    free: { x: right - 24, y: 8, width: Math.max(0, width - right + 16), height: Math.max(0, planFoot + 20) },
  }
}
