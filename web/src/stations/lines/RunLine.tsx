import { useTheme } from '@mui/material/styles'
import type { Axis, LineRun } from '../../api/model'
import { Label } from '../../drawing/Label'
import type { Placed } from '../../drawing/layout'
import { MoveBody } from '../../drawing/MoveBody'
import { useUnits } from '../../units/useUnits'
import { select } from '../../work/store'
import { moveCorner } from './edits'

const GRIP_PX = 24
const LEAST_PX = 2.2
type Place = Record<Axis, number>

interface Props {
  view: Placed
  run: LineRun
  way: readonly Place[]
  service: string
  kpa: number | null
  lph: number | null
  colour: string
  at: boolean
  live: boolean
}

/** A run along its corners, with its pressure and flow beside it; corners of the one at hand are dragged. */
export function RunLine({ view, run, way, service, kpa, lph, colour, at, live }: Props) {
  const { inks } = useTheme()
  const units = useUnits()
  const points = way.map((place) => [view.toX(place[view.across]), view.toY(place[view.up])] as const)
  const path = `M${points.map((point) => point.join(' ')).join('L')}`
  const dry = service === 'reference' || service === 'air'
  const width = Math.max(LEAST_PX, (run.bore_mm + 4) * view.scale)
  const [x, y] = middleOf(points)
  const said =
    kpa === null || lph === null ? '' : `${units.quantity('kpa', kpa, 0)} · ${units.flowText(Math.abs(lph), 0)}`
  return (
    <g data-run={run.id}>
      {at && <path d={path} fill="none" stroke={inks.hand} strokeWidth={width + 5} strokeLinejoin="round" />}
      <path
        d={path}
        fill="none"
        stroke={dry ? inks.quiet : colour}
        strokeWidth={dry ? 1.4 : width}
        strokeLinejoin="round"
        strokeDasharray={service === 'suction' ? '9 3' : dry ? '3 3' : undefined}
      />
      <path
        d={path}
        fill="none"
        stroke="transparent"
        strokeWidth={Math.max(14, width)}
        style={{ cursor: 'pointer' }}
        onPointerDown={() => select({ kind: 'run', id: run.id })}
      >
        <title>{run.name}</title>
      </path>
      {said && view.id !== 'end' && (
        <Label
          rank={at ? 1 : 5}
          of={[x, y]}
          x={x}
          y={y - 6}
          textAnchor="middle"
          colour={inks.fuelText}
          pointerEvents="none"
        >
          {said}
        </Label>
      )}
      {at &&
        live &&
        run.corners.map((corner, place) => {
          const spot = { x: corner.x_mm, y: corner.y_mm, z: corner.z_mm }
          const [cx, cy] = [view.toX(spot[view.across]), view.toY(spot[view.up])]
          return (
            <g key={place}>
              <rect x={cx - 5} y={cy - 5} width={10} height={10} fill={inks.sheet} stroke={inks.hand} strokeWidth={2} />
              <MoveBody
                view={view}
                rect={{ x: cx - GRIP_PX / 2, y: cy - GRIP_PX / 2, width: GRIP_PX, height: GRIP_PX }}
                label={`corner ${place + 1} of ${run.name}`}
                place={spot}
                snapsFor={() => []}
                onMove={(moved) => moveCorner(run, place, moved)}
              />
            </g>
          )
        })}
    </g>
  )
}

/** The middle of the longest straight, where there is room for words. */
function middleOf(points: readonly (readonly [number, number])[]): readonly [number, number] {
  let best: readonly [number, number] = points[0] ?? [0, 0]
  let longest = -1
  for (let n = 0; n + 1 < points.length; n += 1) {
    const [a, b] = [points[n], points[n + 1]]
    if (!a || !b) continue
    const long = Math.hypot(b[0] - a[0], b[1] - a[1])
    if (long > longest) {
      longest = long
      best = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]
    }
  }
  return best
}
