import { AXES, type Axis, type Bay, type Design, type Evaluation, type KeepOut, PLACE, type Shell, SIZE } from '../api/model'
import { change, endDrag, startDrag, useWork } from '../work/store'
import type { Face } from './Handles'
import { shellSnaps } from './snaps'

const LEAST_MM = 1

const SHELL_FACE: Record<Axis, [string, string]> = {
  x: ['rear plate of the tank', 'front plate of the tank'],
  y: ['right plate of the tank', 'left plate of the tank'],
  z: ['floor of the tank', 'lid of the tank'],
}
const BAY_FACE: Record<Axis, string> = { x: 'front of the bay', y: 'left side of the bay', z: 'roof of the bay' }

const withShell = (make: (shell: Shell) => Partial<Shell>) =>
  change((design) => (design.shell ? { ...design, shell: { ...design.shell, ...make(design.shell) } } : design))

const withBay = (make: (bay: Bay) => Partial<Bay>) =>
  change((design) => (design.bay ? { ...design, bay: { ...design.bay, ...make(design.bay) } } : design))

/** Move one face of the shell to a place; the opposite one stays. */
export function moveShellFace(start: Shell, axis: Axis, high: boolean, from: number, to: number) {
  const delta = to - from
  withShell(() =>
    high
      ? { [SIZE[axis]]: start[SIZE[axis]] + delta }
      : { [SIZE[axis]]: start[SIZE[axis]] - delta, [PLACE[axis]]: (start[PLACE[axis]] ?? 0) + delta },
  )
}

export const setShellSize = (axis: Axis, mm: number) => withShell(() => ({ [SIZE[axis]]: mm }))
export const setBaySize = (axis: Axis, mm: number) => withBay(() => ({ [SIZE[axis]]: mm }))

export const moveShell = (place: Partial<Record<Axis, number>>) =>
  withShell(() => Object.fromEntries(Object.entries(place).map(([axis, mm]) => [PLACE[axis as Axis], mm])))

export const changeKeepOut = (id: string, part: Partial<KeepOut>) =>
  withBay((bay) => ({ keep_outs: (bay.keep_outs ?? []).map((item) => (item.id === id ? { ...item, ...part } : item)) }))

/** The faces of the shell as things to drag. */
export function shellFaces(design: Design, evaluation: Evaluation | null): Face[] {
  const shape = evaluation?.geometry
  const { shell } = design
  if (!shape || !shell) return []
  return AXES.flatMap((axis) =>
    [false, true].map((high): Face => {
      const at = (high ? shape.body.high : shape.body.low)[axis]
      const opposite = (high ? shape.body.low : shape.body.high)[axis]
      const least = 2 * (shape.thickness_mm + shape.bend_radius_mm) + LEAST_MM
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
