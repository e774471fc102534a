import { PLACE, SIZE } from '../../api/model'
import { changeKeepOut } from '../../drawing/edits'
import { bayFaces } from '../../drawing/faces'
import { FaceHandles } from '../../drawing/Handles'
import { boxOf } from '../../drawing/keepOuts'
import { MoveBody } from '../../drawing/MoveBody'
import { boxRect } from '../../drawing/shapes'
import type { LayerProps } from '../station'

/** What is taken hold of in the bay: its sides and what stands in it. */
export function BayLayer({ view, design: { bay }, onEdit }: LayerProps) {
  if (!bay || !onEdit) return null
  const rect = {
    x: view.toX(0),
    y: view.toY(bay[SIZE[view.up]]),
    width: bay[SIZE[view.across]] * view.scale,
    height: bay[SIZE[view.up]] * view.scale,
  }
  return (
    <g>
      <FaceHandles view={view} rect={rect} faces={bayFaces(bay)} />
      {bay.keep_outs.map((k) => {
        const box = boxOf(k)
        if (!box || k.kind === 'slope') return null
        return (
          <MoveBody
            key={k.id}
            view={view}
            rect={boxRect(view, box)}
            label={k.name}
            place={{ x: k.x_mm, y: k.y_mm, z: k.z_mm }}
            snapsFor={(axis) => {
              const off = k[PLACE[axis]] - box.low[axis]
              return [
                { at: off, why: '' },
                { at: bay[SIZE[axis]] - (box.high[axis] - box.low[axis]) + off, why: '' },
              ]
            }}
            onMove={(place) =>
              changeKeepOut(
                k.id,
                Object.fromEntries(Object.entries(place).map(([axis, mm]) => [PLACE[axis as 'x'], mm])),
              )
            }
          />
        )
      })}
    </g>
  )
}
