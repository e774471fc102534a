import type { Axis, Bay, Corner, Design, Feature, KeepOut, Port, Shell } from '../api/model'
import { PLACE, SIZE } from '../api/model'
import { change } from '../work/store'
import { chamfered, resizedTo, split, stretched, without } from './outline'

export const setShell = (part: Record<string, unknown>) =>
  change((design) => (design.shell ? ({ ...design, shell: { ...design.shell, ...part } } as Design) : design))
export const setBay = (part: Partial<Bay>) =>
  change((design) => (design.bay ? { ...design, bay: { ...design.bay, ...part } } : design))
export const setBaySize = (axis: Axis, mm: number) => setBay({ [SIZE[axis]]: mm })

export const moveShell = (place: Partial<Record<Axis, number>>) =>
  setShell(Object.fromEntries(Object.entries(place).map(([axis, mm]) => [PLACE[axis as Axis], mm])))

export const changeKeepOut = (id: string, part: Record<string, unknown>) =>
  change((design) =>
    design.bay
      ? {
          ...design,
          bay: {
            ...design.bay,
            keep_outs: design.bay.keep_outs.map((item) => (item.id === id ? ({ ...item, ...part } as KeepOut) : item)),
          },
        }
      : design,
  )

export const changeFeature = (id: string, part: Record<string, unknown>) =>
  change((design) =>
    design.shell
      ? ({
          ...design,
          shell: {
            ...design.shell,
            features: design.shell.features.map((item) => (item.id === id ? ({ ...item, ...part } as Feature) : item)),
          },
        } as Design)
      : design,
  )

export const changePort = (id: string, part: Partial<Port>) =>
  change((design) => ({ ...design, ports: design.ports.map((item) => (item.id === id ? { ...item, ...part } : item)) }))

export const setCorners = (make: (corners: Corner[]) => Corner[]) =>
  change((design) =>
    design.shell?.kind === 'profile'
      ? { ...design, shell: { ...design.shell, corners: make(design.shell.corners) } }
      : design,
  )

export const changeCorner = (place: number, part: Partial<Corner>) =>
  setCorners((corners) => corners.map((corner, here) => (here === place ? { ...corner, ...part } : corner)))

export const splitEdge = (place: number) => setCorners((corners) => split(corners, place))
export const removeCorner = (place: number) => setCorners((corners) => without(corners, place))
export const chamferCorner = (place: number, mm: number) => setCorners((corners) => chamfered(corners, place, mm))

/** Set the size along an axis, however the kind of shell has it. */
export const setShellSize = (axis: Axis, mm: number) =>
  change((design) => {
    const { shell } = design
    if (!shell) return design
    const fields =
      resizedTo(shell, axis, mm) ?? (shell.kind === 'profile' ? { corners: stretched(shell, axis, mm) } : {})
    return { ...design, shell: { ...shell, ...fields } as Shell }
  })
