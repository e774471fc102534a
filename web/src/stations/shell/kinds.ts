import * as declared from '../../api/declared'
import type { Corner, Evaluation, ProfileShell, Shell } from '../../api/model'

export type Kind = 'box' | ProfileShell['shape'] | 'cylinder standing' | 'cylinder lying'

export const KINDS: { value: Kind; label: string }[] = [
  { value: 'box', label: 'Box' },
  { value: 'wedge', label: 'Wedge, sloping lid' },
  { value: 'step', label: 'Step (L)' },
  { value: 'saddle', label: 'Saddle over a tunnel' },
  { value: 'D', label: 'D, one side rolled' },
  { value: 'free', label: 'Free profile' },
  { value: 'cylinder standing', label: 'Cylinder, standing' },
  { value: 'cylinder lying', label: 'Cylinder, lying' },
]

export function kindOf(shell: Shell): Kind {
  if (shell.kind === 'box') return 'box'
  if (shell.kind === 'profile') return shell.shape
  return shell.axis === 'z' ? 'cylinder standing' : 'cylinder lying'
}

const at = (across: number, up: number, more: Partial<Corner> = {}): Corner => ({
  across_mm: Math.round(across),
  up_mm: Math.round(up),
  bow_mm: 0,
  joint: 'bend',
  ...more,
})

/** The corners a kind of profile starts with, filling a width and a height. */
export function firstCorners(kind: ProfileShell['shape'], w: number, h: number): Corner[] {
  switch (kind) {
    case 'wedge':
      return [at(0, 0), at(w, 0), at(w, h * 0.55), at(0, h)]
    case 'step':
      return [at(0, 0), at(w * 0.55, 0), at(w * 0.55, h * 0.4), at(w, h * 0.4), at(w, h), at(0, h)]
    case 'saddle':
      return [
        at(0, 0),
        at(w * 0.37, 0),
        at(w * 0.37, h * 0.5),
        at(w * 0.63, h * 0.5),
        at(w * 0.63, 0),
        at(w, 0),
        at(w, h),
        at(0, h),
      ]
    case 'D': {
      const r = Math.min(h / 2, w)
      return [
        at(0, 0),
        at(w - r, 0, { bow_mm: Math.round(h / 2) === h / 2 ? Math.min(r, h / 2) : Math.min(r, Math.round(h) / 2) }),
        at(w - r, h),
        at(0, h),
      ]
    }
    case 'free':
      return [at(0, 0), at(w, 0), at(w, h * 0.7), at(w * 0.7, h), at(0, h)]
  }
}

export const FIRST: Shell = {
  ...declared.BoxShell.defaults,
  kind: 'box',
  length_mm: 600,
  width_mm: 400,
  height_mm: 300,
}

/** A shell of another kind in the place of the present one: same bounds, metal and features. */
export function turnedInto(kind: Kind, shell: Shell, evaluation: Evaluation | null): Shell {
  const body = evaluation?.shell?.geometry?.body
  const low = body?.low ?? { x: shell.x_mm, y: shell.y_mm, z: shell.z_mm }
  const size = body
    ? { x: body.high.x - low.x, y: body.high.y - low.y, z: body.high.z - low.z }
    : { x: 600, y: 400, z: 300 }
  const radius = shell.kind === 'cylinder' ? 1.5 * shell.thickness_mm : shell.bend_radius_mm
  const kept = {
    x_mm: low.x,
    y_mm: low.y,
    z_mm: low.z,
    metal: shell.metal,
    thickness_mm: shell.thickness_mm,
    ends_thickness_mm: shell.ends_thickness_mm ?? null,
    features_thickness_mm: shell.features_thickness_mm ?? null,
    features: shell.features,
    swages: [],
    edges: [],
  }
  if (kind === 'box')
    return {
      ...kept,
      kind: 'box',
      measured: 'outside',
      length_mm: size.x,
      width_mm: size.y,
      height_mm: size.z,
      bend_radius_mm: radius,
      wrap_axis: 'x',
    }
  if (kind === 'cylinder standing')
    return { ...kept, kind: 'cylinder', axis: 'z', diameter_mm: Math.min(size.x, size.y), run_mm: size.z, dish_mm: 0 }
  if (kind === 'cylinder lying')
    return { ...kept, kind: 'cylinder', axis: 'x', diameter_mm: Math.min(size.y, size.z), run_mm: size.x, dish_mm: 0 }
  const axis = kind === 'saddle' ? 'x' : 'y'
  const [across, run] = axis === 'x' ? [size.y, size.x] : [size.x, size.y]
  return {
    ...kept,
    kind: 'profile',
    shape: kind,
    corners: firstCorners(kind, across, size.z),
    run_mm: run,
    wrap_axis: axis,
    bend_radius_mm: radius,
  }
}
