import { useTheme } from '@mui/material/styles'
import type { Axis, Design, Evaluation, Feature, Port } from '../api/model'
import { AXES } from '../api/model'
import { select, useWork } from '../work/store'
import { Dimension, type Editing } from './Dimension'
import { changeFeature, changePort } from './edits'
import type { Placed } from './layout'
import { MoveBody } from './MoveBody'
import { boxRect, datumOf } from './shapes'

/** Which fields of a feature say where it is along each axis, from the body's low corner. */
export function placeFields(feature: Feature): Partial<Record<Axis, string>> {
  if (feature.kind === 'relief') return { x: 'x_mm', y: 'y_mm', z: 'z_mm' }
  if (feature.kind === 'partition' || feature.kind === 'baffle') return { [feature.axis]: 'at_mm' }
  if (feature.kind === 'roof step') return {}
  const along = feature.kind === 'sump' ? 'z' : ({ roof: 'z', floor: 'z', front: 'x', rear: 'x', left: 'y', right: 'y' } as const)[feature.face]
  const [first, second] = AXES.filter((axis) => axis !== along)
  return { [first as Axis]: 'a_mm', [second as Axis]: 'b_mm' }
}

const value = (feature: Feature, name: string) => (feature as unknown as Record<string, number>)[name] ?? 0

/** Wells, sumps, reliefs and plates: press one to have it at hand, drag it about; what is at hand is dimensioned to the datum edges. */
export function FeatureMarks({ view, design, evaluation, onEdit }: { view: Placed; design: Design; evaluation: Evaluation; onEdit: (editing: Editing) => void }) {
  const { inks } = useTheme()
  const chosen = useWork((work) => (work.at?.kind === 'feature' ? work.at.id : null))
  const shape = evaluation.geometry
  if (!shape) return null
  const datum = datumOf(shape)
  return (
    <g>
      {design.shell?.features.map((feature) => {
        const block = shape.features.find((item) => item.id === feature.id)?.block
        if (!block) return null
        const rect = boxRect(view, block)
        const fields = placeFields(feature)
        const movable = fields[view.across] ?? fields[view.up]
        const at = feature.id === chosen
        return (
          <g key={feature.id}>
            <rect {...rect} fill={at ? inks.handFill : 'none'} fillOpacity={0.25} stroke={inks.hand} strokeWidth={at ? 2 : 1} strokeDasharray={at ? undefined : '4 3'} pointerEvents="none" data-feature={feature.id} />
            {movable && (
              <MoveBody
                view={view}
                rect={rect}
                label={feature.name}
                place={{ x: value(feature, fields.x ?? ''), y: value(feature, fields.y ?? ''), z: value(feature, fields.z ?? '') }}
                snapsFor={(axis) => [
                  { at: 0, why: 'at the edge' },
                  { at: shape.body.high[axis] - shape.body.low[axis] - (block.high[axis] - block.low[axis]), why: 'at the edge' },
                  { at: (shape.body.high[axis] - shape.body.low[axis] - (block.high[axis] - block.low[axis])) / 2, why: 'in the middle' },
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
              <Dimension label={`${feature.name} from the ${view.across === 'x' ? 'rear' : 'right'}`} value={value(feature, fields[view.across] ?? '')} from={view.toX(datum[view.across])} to={rect.x} at={rect.y + rect.height / 2} foot={rect.y + rect.height / 2} strong onEdit={onEdit} commit={(mm) => changeFeature(feature.id, { [fields[view.across] ?? '']: mm })} />
            )}
            {at && fields[view.up] && (
              <Dimension label={`${feature.name} from the ${view.up === 'z' ? 'floor' : 'right'}`} value={value(feature, fields[view.up] ?? '')} from={view.toY(datum[view.up])} to={rect.y + rect.height} at={rect.x + rect.width / 2} foot={rect.x + rect.width / 2} upright strong onEdit={onEdit} commit={(mm) => changeFeature(feature.id, { [fields[view.up] ?? '']: mm })} />
            )}
          </g>
        )
      })}
    </g>
  )
}

const GLYPH: Record<Port['role'], string> = { pickup: 'M-5 -5h10l-5 9z', vent: 'M-5 5h10l-5 -9z', filler: 'M-5 -5h10v10h-10z', fitting: 'M-5 0a5 5 0 1 0 10 0a5 5 0 1 0 -10 0z' }

/** Pickups, vents, fillers and fittings where they open, and what stands up over them. */
export function PortMarks({ view, design, evaluation, live }: { view: Placed; design: Design; evaluation: Evaluation; live: boolean }) {
  const { inks } = useTheme()
  const chosen = useWork((work) => (work.at?.kind === 'port' ? work.at.id : null))
  const shape = evaluation.geometry
  if (!shape) return null
  const datum = datumOf(shape)
  return (
    <g>
      {design.ports.map((port) => {
        const found = shape.ports.find((item) => item.id === port.id)
        if (!found) return null
        const { place } = found
        const [x, y] = [view.toX(place[view.across]), view.toY(place[view.up])]
        const leftward = place[view.across] > (shape.body.low[view.across] + shape.body.high[view.across]) / 2 + 1
        const colour = port.id === chosen ? inks.hand : inks.ink
        const half = (port.across_mm / 2) * view.scale
        const lid = view.up === 'z' ? view.toY(found.lid_mm) : 0
        return (
          <g key={port.id} data-port={port.id}>
            {port.stands_mm > 0 && view.up === 'z' && <rect x={x - half} y={lid - port.stands_mm * view.scale} width={2 * half} height={port.stands_mm * view.scale} fill={inks.metalFill} stroke={inks.metal} strokeWidth={1} opacity={0.9} />}
            {port.stands_mm > 0 && view.up === 'y' && <circle cx={x} cy={y} r={half} fill="none" stroke={inks.metal} strokeWidth={1} />}
            <path d={GLYPH[port.role]} transform={`translate(${x} ${y})`} fill={inks.sheet} stroke={colour} strokeWidth={1.8} />
            <text x={x + (leftward ? -9 : 9)} y={y + 4} textAnchor={leftward ? 'end' : 'start'} fontSize={11} fontWeight={600} fill={colour} stroke={inks.sheet} strokeWidth={3} paintOrder="stroke" pointerEvents="none">
              {port.name}
            </text>
            {live && (
              <MoveBody
                view={view}
                rect={{ x: x - 14, y: y - 14, width: 28, height: 28 }}
                label={port.name}
                place={{ x: port.x_mm, y: port.y_mm, z: place.z - datum.z }}
                snapsFor={() => []}
                onPick={() => select({ kind: 'port', id: port.id })}
                onMove={(moved) => changePort(port.id, Object.fromEntries(Object.entries(moved).flatMap(([axis, mm]) => (axis === 'z' && port.z_mm === null ? [] : [[`${axis}_mm`, mm]]))))}
              />
            )}
          </g>
        )
      })}
    </g>
  )
}
