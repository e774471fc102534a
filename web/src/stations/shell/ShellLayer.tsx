import { type Axis, PLACE, SIZE } from '../../api/model'
import { moveShell } from '../../drawing/edits'
import { shellFaces } from '../../drawing/faces'
import { FeatureMarks } from '../../drawing/FeatureMarks'
import { FaceHandles } from '../../drawing/Handles'
import { MoveBody } from '../../drawing/MoveBody'
import { ProfileHandles } from '../../drawing/ProfileHandles'
import { shapeOf } from '../../drawing/shape'
import { boxRect } from '../../drawing/shapes'
import { shellSnaps } from '../../drawing/snaps'
import { select } from '../../work/store'
import type { LayerProps } from '../station'

const SHAPING = ['well', 'sump', 'relief', 'roof step', 'partition'] as const

/** What is taken hold of of the shell: the whole tank, its faces, corners and features. */
export function ShellLayer({ view, design, evaluation, onEdit }: LayerProps) {
  const { bay, shell } = design
  const shape = shapeOf(evaluation)
  if (!shape || !shell || !evaluation || !onEdit) return null
  const outside = (axis: Axis) => shape.body.high[axis] - shape.body.low[axis]
  const off = (axis: Axis) => shell[PLACE[axis]] - shape.body.low[axis]
  const profileHere = shell.kind === 'profile' && view.up === 'z' && view.across !== shell.wrap_axis
  return (
    <g>
      <MoveBody
        view={view}
        rect={boxRect(view, shape.body)}
        label="tank"
        place={{ x: shell.x_mm, y: shell.y_mm, z: shell.z_mm }}
        snapsFor={(axis) =>
          [
            ...shellSnaps(bay, evaluation, axis, false),
            ...shellSnaps(bay, evaluation, axis, true).map((snap) => ({ ...snap, at: snap.at - outside(axis) })),
            ...(bay ? [{ at: (bay[SIZE[axis]] - outside(axis)) / 2, why: 'in the middle' }] : []),
          ].map((snap) => ({ ...snap, at: snap.at + off(axis) }))
        }
        onMove={moveShell}
        onPick={() => select(null)}
      />
      <FaceHandles view={view} rect={boxRect(view, shape.body)} faces={shellFaces(design, evaluation)} />
      <FeatureMarks view={view} design={design} evaluation={evaluation} kinds={SHAPING} onEdit={onEdit} />
      {profileHere && <ProfileHandles view={view} shell={shell} onEdit={onEdit} />}
    </g>
  )
}
