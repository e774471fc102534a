import { shapeOf } from './shape'
import { AXES, type Axis, type Bay, type Design, type Evaluation, PLACE, type Shell, SIZE } from '../api/model'
import { change, endDrag, startDrag, useWork } from '../work/store'
import { setBaySize } from './edits'
import type { Face } from './Handles'
import { resizedTo, stretched, writtenSize } from './outline'
import { shellSnaps } from './snaps'

const LEAST_MM = 1

const SHELL_FACE: Record<Axis, [string, string]> = {
  x: ['rear plate of the tank', 'front plate of the tank'],
  y: ['right plate of the tank', 'left plate of the tank'],
  z: ['floor of the tank', 'lid of the tank'],
}
const BAY_FACE: Record<Axis, string> = { x: 'front of the bay', y: 'left side of the bay', z: 'roof of the bay' }

/** Move one face of the shell to a place; the opposite one stays. A cylinder widens about that side. */
export function moveShellFace(start: Shell, axis: Axis, high: boolean, from: number, to: number) {
  const delta = (to - from) * (high ? 1 : -1)
  const size = writtenSize(start, axis) + delta
  const fields: Record<string, unknown> =
    resizedTo(start, axis, size) ?? (start.kind === 'profile' ? { corners: stretched(start, axis, size) } : {})
  if (!high) fields[PLACE[axis]] = start[PLACE[axis]] - delta
  change((design) => (design.shell ? { ...design, shell: { ...start, ...fields } as Shell } : design))
}

/** The faces of the shell as things to drag. */
export function shellFaces(design: Design, evaluation: Evaluation | null): Face[] {
  const shape = shapeOf(evaluation)
  const { shell } = design
  if (!shape || !shell) return []
  return AXES.flatMap((axis) =>
    [false, true].map((high): Face => {
      const at = (high ? shape.body.high : shape.body.low)[axis]
      const opposite = (high ? shape.body.low : shape.body.high)[axis]
      const radius = shell.kind === 'cylinder' ? 0 : shell.bend_radius_mm
      const least = 2 * (shape.thickness_mm + radius) + LEAST_MM
      return {
        axis,
        high,
        at,
        label: `Move the ${SHELL_FACE[axis][high ? 1 : 0]}`,
        snaps: shellSnaps(design.bay, evaluation, axis, high),
        limits: high ? [opposite + least, opposite + 20_000] : [opposite - 20_000, opposite - least],
        begin: () => {
          startDrag()
          const from = useWork.getState().design.shell ?? shell
          return (to) => moveShellFace(from, axis, high, at, to)
        },
        end: endDrag,
      }
    }),
  )
}

/** The far faces of the bay; the near ones are the datum. */
export function bayFaces(bay: Bay): Face[] {
  return AXES.map((axis): Face => ({
    axis,
    high: true,
    at: bay[SIZE[axis]],
    label: `Move the ${BAY_FACE[axis]}`,
    snaps: [],
    limits: [LEAST_MM, 20_000],
    begin: () => {
      startDrag()
      return (to) => setBaySize(axis, to)
    },
    end: endDrag,
  }))
}
