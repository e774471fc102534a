import { useTheme } from '@mui/material/styles'
import type { Axis, LineRun } from '../../api/model'
import type { Placed } from '../../drawing/layout'
import { MoveBody } from '../../drawing/MoveBody'
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
  colour: string
  at: boolean
  live: boolean
}

/** A run along its corners; those of the one at hand are dragged. */
export function RunLine({ view, run, way, service, colour, at, live }: Props) {
  const { inks } = useTheme()
  const points = way.map((place) => [view.toX(place[view.across]), view.toY(place[view.up])] as const)
  const path = `M${points.map((point) => point.join(' ')).join('L')}`
  const dry = service === 'reference' || service === 'air'
  const width = Math.max(LEAST_PX, (run.bore_mm + 4) * view.scale)
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
