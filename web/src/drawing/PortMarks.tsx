import { shapeOf } from './shape'
import type { Schemas } from '../api/client'
import { useTheme } from '@mui/material/styles'
import type { Design, Evaluation, Port } from '../api/model'
import { isNumber } from '../units/number'
import { select, useWork } from '../work/store'
import { changePort } from './edits'
import type { Placed } from './layout'
import { MoveBody } from './MoveBody'
import { datumOf, ringPath } from './shapes'
import { TurnGrips } from './TurnGrips'
import { Label } from './Label'

const GLYPH: Record<Port['role'], string> = {
  pickup: 'M-5 -5h10l-5 9z',
  vent: 'M-5 5h10l-5 -9z',
  overflow: 'M-5 1h10l-5 -7zM-5 3h10v2h-10z',
  filler: 'M-5 -5h10v10h-10z',
  drain: 'M-5 -3h10v2l-5 6l-5 -6z',
  return: 'M-2 -6h4v6h4l-6 7l-6 -7h4z',
  transfer: 'M-6 -2h6v-4l7 6l-7 6v-4h-6z',
  spare: 'M-5 0l5 -5l5 5l-5 5z',
  fitting: 'M-5 0a5 5 0 1 0 10 0a5 5 0 1 0 -10 0z',
}

type Found = Schemas['PortPlace']
interface MarkProps {
  view: Placed
  port: Port
  found: Found
  thickness: number
}

/** Every port where it opens, with what stands up over it, what hangs from it, and its seat as it is clocked. */
export function PortMarks({
  view,
  design,
  evaluation,
  live,
  named,
}: {
  view: Placed
  design: Design
  evaluation: Evaluation
  live: boolean
  named: boolean
}) {
  const { inks } = useTheme()
  const chosen = useWork((work) => (work.at?.kind === 'port' ? work.at.id : null))
  const shape = shapeOf(evaluation)
  if (!shape) return null
  const datum = datumOf(shape)
  return (
    <g pointerEvents={live ? undefined : 'none'}>
      {design.ports.map((port) => {
        const found = shape.ports.find((item) => item.id === port.id)
        if (!found) return null
        const { place } = found
        const [x, y] = [view.toX(place[view.across]), view.toY(place[view.up])]
        const leftward = place[view.across] > (shape.body.low[view.across] + shape.body.high[view.across]) / 2 + 1
        const colour = port.id === chosen ? inks.hand : inks.ink
        const label = named ? labelAt(view, port, x, y, leftward) : null
        return (
          <g key={port.id} data-port={port.id}>
            <Standing view={view} port={port} found={found} thickness={shape.thickness_mm} />
            <Hanging view={view} port={port} found={found} thickness={shape.thickness_mm} />
            <path
              data-mark
              d={GLYPH[port.role]}
              transform={`translate(${x} ${y})`}
              fill={port.capped ? colour : inks.sheet}
              stroke={colour}
              strokeWidth={1.8}
            />
            {label && (
              <Label rank={4} of={[x, y]} {...label} colour={colour} pointerEvents="none">
                {port.name}
              </Label>
            )}
            {live && (
              <MoveBody
                view={view}
                rect={{ x: x - 14, y: y - 14, width: 28, height: 28 }}
                label={port.name}
                place={{ x: port.x_mm, y: port.y_mm, z: place.z - datum.z }}
                snapsFor={() => []}
                onPick={() => select({ kind: 'port', id: port.id })}
                onMove={(moved) =>
                  changePort(
                    port.id,
                    Object.fromEntries(
                      Object.entries(moved).flatMap(([axis, mm]) =>
                        axis === 'z' && port.z_mm === null ? [] : [[`${axis}_mm`, mm]],
                      ),
                    ),
                  )
                }
              />
            )}
            {view.id === 'plan' && (
              <SeatMark
                view={view}
                port={port}
                found={found}
                thickness={shape.thickness_mm}
                grips={live && port.id === chosen}
              />
            )}
          </g>
        )
      })}
    </g>
  )
}

const STOP_PX = 10

/** Beside the glyph; over a ring that would hide it, in the plan. */
function labelAt(view: Placed, port: Port, x: number, y: number, leftward: boolean) {
  const ring = view.id === 'plan' && port.seat ? (port.seat.outer_mm / 2) * view.scale : 0
  if (ring > 14) return { x, y: y - ring - 6, textAnchor: 'middle' as const }
  const off = Math.max(9, ring + 4)
  return { x: x + (leftward ? -off : off), y: y + 4, textAnchor: leftward ? ('end' as const) : ('start' as const) }
}

/** What stands out there, with the hose on it, as the core has it. */
function Standing({ view, found }: MarkProps) {
  const { inks } = useTheme()
  const rings = found.standing[view.id] ?? []
  if (!rings.length) return null
  const inPlan = view.id === 'plan'
  return (
    <path
      data-standing={found.id}
      d={rings.map((ring) => ringPath(view, [ring])).join('')}
      fill={inPlan ? 'none' : inks.metalFill}
      stroke={inks.metal}
      strokeWidth={1}
      opacity={0.9}
    />
  )
}

/** What hangs below the sheet: as wide and as deep as it is, and a line on down to the inlet. */
function Hanging({ view, port, found, thickness }: MarkProps) {
  const { inks } = useTheme()
  if (port.face !== 'roof') return null
  const x = view.toX(found.place[view.across])
  const half = (port.hangs_across_mm / 2) * view.scale
  const dash = { fill: 'none', stroke: inks.ink, strokeWidth: 1.1, strokeDasharray: '6 3' }
  if (view.up === 'y') return half > 0 ? <circle cx={x} cy={view.toY(found.place.y)} r={half} {...dash} /> : null
  const top = view.toY(found.lid_mm - thickness)
  const bottom = view.toY(found.lid_mm) + port.hangs_mm * view.scale
  const inlet = view.toY(found.place.z)
  const draws = port.role === 'pickup' || port.role === 'transfer'
  return (
    <>
      {half > 0 && bottom > top && <rect x={x - half} y={top} width={2 * half} height={bottom - top} {...dash} />}
      {draws && (
        <path
          d={`M${x} ${half > 0 ? Math.max(top, Math.min(bottom, inlet)) : top}V${inlet}`}
          stroke={inks.ink}
          strokeWidth={2}
        />
      )}
    </>
  )
}

/** Where something at an angle about a port lies on the screen: so many millimetres out, and so many pixels more. */
function about(view: Placed, port: Port, found: Found) {
  const [x, y] = [view.toX(found.place.x), view.toY(found.place.y)]
  const turn = port.face === 'roof' ? 1 : -1
  const at = (deg: number, mm: number, px = 0): [number, number] => {
    const out = mm * view.scale + px
    return [x + Math.cos((deg * Math.PI) / 180) * out, y - turn * Math.sin((deg * Math.PI) / 180) * out]
  }
  return { x, y, turn, at, reach: port.seat ? port.seat.outer_mm / 2 : port.across_mm / 2 }
}

/** Ring, hole, bolts, the first of them marked, a lock ring's stop with a bar across, and the way the hose leaves. */
function SeatMark({ view, port, found, grips }: MarkProps & { grips: boolean }) {
  const { inks } = useTheme()
  const { seat } = port
  if (port.face !== 'roof' && port.face !== 'floor') return null
  const { x, y, turn, at, reach } = about(view, port, found)
  const line = {
    fill: 'none',
    stroke: inks.ink,
    strokeWidth: 1.1,
    strokeDasharray: port.face === 'floor' ? '3 3' : undefined,
  }
  return (
    <>
      <g pointerEvents="none">
        {seat && <circle cx={x} cy={y} r={(seat.outer_mm / 2) * view.scale} {...line} />}
        {seat && <circle cx={x} cy={y} r={(seat.hole_mm / 2) * view.scale} {...line} />}
        {seat?.bolts &&
          seat.bolt_circle_mm &&
          Array.from({ length: seat.bolts }, (_, n) =>
            at(port.clock_deg + (360 * n) / (seat.bolts ?? 1), (seat.bolt_circle_mm ?? 0) / 2),
          ).map(([u, v], n) => (
            <circle
              key={n}
              cx={u}
              cy={v}
              r={Math.max(1.4, ((seat.bolt_mm ?? 5) / 2) * view.scale)}
              fill={n === 0 ? inks.ink : 'none'}
              stroke={inks.ink}
              strokeWidth={1}
            />
          ))}
        {seat && (
          <path
            d={`M${at(port.clock_deg, reach).join(' ')}L${at(port.clock_deg, reach + 9).join(' ')}`}
            stroke={inks.ink}
            strokeWidth={1.6}
          />
        )}
        {seat?.kind === 'lock ring' && isNumber(port.stop_deg) && (
          <g data-stop={port.id} stroke={inks.ink} strokeWidth={2}>
            <path d={`M${at(port.stop_deg, reach).join(' ')}L${at(port.stop_deg, reach, STOP_PX).join(' ')}`} />
            <path
              d={`M${-STOP_PX / 2} 0H${STOP_PX / 2}`}
              transform={`translate(${at(port.stop_deg, reach, STOP_PX).join(' ')}) rotate(${90 - turn * port.stop_deg})`}
            />
          </g>
        )}
        {isNumber(port.hose_deg) && (
          <>
            <path d={`M${x} ${y}L${at(port.hose_deg, reach + 45).join(' ')}`} stroke={inks.metal} strokeWidth={3} />
            <path
              d={`M${at(port.hose_deg - 8, reach + 38).join(' ')}L${at(port.hose_deg, reach + 45).join(' ')}L${at(port.hose_deg + 8, reach + 38).join(' ')}`}
              fill="none"
              stroke={inks.metal}
              strokeWidth={2}
            />
          </>
        )}
      </g>
      {grips && <TurnGrips port={port} x={x} y={y} turn={turn} at={(deg, px) => at(deg, reach, px)} />}
    </>
  )
}
