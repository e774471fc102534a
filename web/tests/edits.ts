import './browserless'
import type { Bay, Design, Evaluation, Feature, Port } from '../src/api/model'
import { boxOf, slopePolygon } from '../src/drawing/keepOuts'
import { bayFaces, shellFaces } from '../src/drawing/faces'
import { freshKeepOut } from '../src/stations/bay/freshKeepOut'
import type { Placed } from '../src/drawing/layout'
import { addPort } from '../src/stations/ports/edits'
import { addFeature } from '../src/stations/shell/freshFeature'
import { nearest, type SeamFace } from '../src/stations/sheet/seam'
import { open, useWork } from '../src/work/store'

function opened(design: Design, evaluation: Evaluation) {
  open(design, false)
  useWork.setState({ evaluation, evaluated: design })
}
const shown = () => useWork.getState().design

/** The design with one more feature of a kind. */
export function withFeature(design: Design, evaluation: Evaluation, kind: Feature['kind']) {
  opened(design, evaluation)
  addFeature(kind)
  return shown()
}

/** The design with one more port of each role in turn. */
export function withPorts(design: Design, evaluation: Evaluation, roles: Port['role'][]) {
  opened(design, evaluation)
  roles.forEach(addPort)
  return shown()
}

/** A bay with one more keep-out of each kind, twice. */
export function withKeepOuts(bay: Bay) {
  const kinds = ['box', 'cylinder', 'slope', 'box', 'cylinder', 'slope'] as const
  return kinds.reduce<Bay>((so, kind) => ({ ...so, keep_outs: [...so.keep_outs, freshKeepOut(kind, so)] }), bay)
}

/** Boxes round a bay's keep-outs, and slopes seen from the side that they fall in. */
export function drawnKeepOuts(bay: Bay) {
  return bay.keep_outs.map((one) => (one.kind === 'slope' ? slopePolygon(one, bay, one.along, 'z') : boxOf(one)))
}

/** The design with one face of the tank dragged so far outward, and where the face was said to be. */
export function withFaceMoved(design: Design, evaluation: Evaluation, place: number, mm: number) {
  opened(design, evaluation)
  const face = shellFaces(design, evaluation)[place]
  if (!face) return null
  const to = Math.min(Math.max(face.at + (face.high ? mm : -mm), face.limits[0]), face.limits[1])
  face.begin()(to)
  face.end(true)
  return { design: shown(), axis: face.axis, high: face.high, to, steps: useWork.temporal.getState().pastStates.length }
}

/** The design with the far faces of its bay dragged so far outward. */
export function withBayMoved(design: Design, evaluation: Evaluation, mm: number) {
  opened(design, evaluation)
  for (const face of bayFaces(design.bay as Bay)) {
    face.begin()(face.at + mm)
    face.end(true)
  }
  return shown()
}

/** Where a seam goes that is let go of at places of a page on which a millimetre is a pixel. */
export function seamsAt(faces: SeamFace[], spots: [number, number][], snaps: boolean) {
  const view = { across: 'y', up: 'z', toX: (mm: number) => mm, toY: (mm: number) => -mm } as unknown as Placed
  return spots.map(([x, z]) => nearest(view, faces, [x, -z], snaps))
}
