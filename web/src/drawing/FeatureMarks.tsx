import { shapeOf } from './shape'
import { useTheme } from '@mui/material/styles'
import type { Axis, Design, Evaluation, Feature } from '../api/model'
import { AXES } from '../api/model'
import { select, useWork } from '../work/store'
import { Dimension, type Editing } from './Dimension'
import { changeFeature } from './edits'
import type { Placed } from './layout'
import { MoveBody } from './MoveBody'
import { boxRect, datumOf, type Rect } from './shapes'

/** Which fields of a feature say where it is along each axis, from the body's low corner. */
export function placeFields(feature: Feature): Partial<Record<Axis, string>> {
  if (feature.kind === 'relief') return { x: 'x_mm', y: 'y_mm', z: 'z_mm' }
  if (feature.kind === 'partition' || feature.kind === 'baffle') return { [feature.axis]: 'at_mm' }
  if (feature.kind === 'roof step') return {}
  if (feature.kind === 'pot') return { x: 'a_mm', y: 'b_mm' }
  const along =
    feature.kind === 'sump'
      ? 'z'
      : ({ roof: 'z', floor: 'z', front: 'x', rear: 'x', left: 'y', right: 'y' } as const)[feature.face]
  const [first, second] = AXES.filter((axis) => axis !== along)
  return { [first as Axis]: 'a_mm', [second as Axis]: 'b_mm' }
}

/** A plate is a line on the drawing: this much of it can be taken hold of [px]. */
const LEAST_PX = 24
function withinReach({ x, y, width, height }: Rect): Rect {
  const [wide, high] = [Math.max(width, LEAST_PX), Math.max(height, LEAST_PX)]
  return { x: x - (wide - width) / 2, y: y - (high - height) / 2, width: wide, height: high }
}

const value = (feature: Feature, name: string) => (feature as unknown as Record<string, number>)[name] ?? 0

/** Wells, sumps, reliefs and plates: press one to have it at hand, drag it about; what is at hand is dimensioned to the datum edges. */
export function FeatureMarks({
  view,
  design,
  evaluation,
  kinds,
  onEdit,
}: {
  view: Placed
  design: Design
  evaluation: Evaluation
  kinds: readonly Feature['kind'][]
  onEdit: (editing: Editing) => void
}) {
  const { inks } = useTheme()
  const chosen = useWork((work) => (work.at?.kind === 'feature' ? work.at.id : null))
  const shape = shapeOf(evaluation)
  if (!shape) return null
  const datum = datumOf(shape)
  return (
    <g>
      {design.shell?.features.map((feature) => {
        if (!kinds.includes(feature.kind)) return null
        const block = shape.features.find((item) => item.id === feature.id)?.block
        if (!block) return null
        const rect = boxRect(view, block)
        const fields = placeFields(feature)
        const movable = fields[view.across] ?? fields[view.up]
        const at = feature.id === chosen
        // A plate's dimension keeps off the tank's middle line, where the ports are.
        const beside = feature.kind === 'baffle' || feature.kind === 'partition' ? 0.85 : 0.5
        return (
          <g key={feature.id}>
            <rect
              {...rect}
              fill={at ? inks.handFill : 'none'}
              fillOpacity={0.25}
              stroke={inks.hand}
              strokeWidth={at ? 2 : 1}
              strokeDasharray={at ? undefined : '4 3'}
              pointerEvents="none"
              data-feature={feature.id}
            />
            {movable && (
              <MoveBody
                view={view}
                rect={withinReach(rect)}
                label={feature.name}
                place={{
                  x: value(feature, fields.x ?? ''),
                  y: value(feature, fields.y ?? ''),
                  z: value(feature, fields.z ?? ''),
                }}
                snapsFor={(axis) => [
                  { at: 0, why: 'at the edge' },
                  {
                    at: shape.body.high[axis] - shape.body.low[axis] - (block.high[axis] - block.low[axis]),
                    why: 'at the edge',
                  },
                  {
                    at: (shape.body.high[axis] - shape.body.low[axis] - (block.high[axis] - block.low[axis])) / 2,
                    why: 'in the middle',
                  },
                ]}
                onPick={() => select({ kind: 'feature', id: feature.id })}
                onMove={(place) =>
                  changeFeature(
                    feature.id,
                    Object.fromEntries(
                      Object.entries(place)
                        .filter(([axis]) => fields[axis as Axis])
                        .map(([axis, mm]) => [fields[axis as Axis] ?? '', mm]),
                    ),
                  )
                }
              />
            )}
            {at && fields[view.across] && (
              <Dimension
                label={`${feature.name} from the ${view.across === 'x' ? 'rear' : 'right'}`}
                value={value(feature, fields[view.across] ?? '')}
                from={view.toX(datum[view.across])}
                to={rect.x}
                at={rect.y + rect.height * beside}
                foot={rect.y + rect.height * beside}
                strong
                onEdit={onEdit}
                commit={(mm) => changeFeature(feature.id, { [fields[view.across] ?? '']: mm })}
              />
            )}
            {at && fields[view.up] && (
              <Dimension
                label={`${feature.name} from the ${view.up === 'z' ? 'floor' : 'right'}`}
                value={value(feature, fields[view.up] ?? '')}
                from={view.toY(datum[view.up])}
                to={rect.y + rect.height}
                at={rect.x + rect.width / 2}
                foot={rect.x + rect.width / 2}
                upright
                strong
                onEdit={onEdit}
                commit={(mm) => changeFeature(feature.id, { [fields[view.up] ?? '']: mm })}
              />
            )}
          </g>
        )
      })}
    </g>
  )
}
