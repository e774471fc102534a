import { useTheme } from '@mui/material/styles'
import type { LinePart } from '../../api/model'
import { Label } from '../../drawing/Label'
import type { Placed } from '../../drawing/layout'
import { MoveBody } from '../../drawing/MoveBody'
import { select } from '../../work/store'
import { changePart } from './edits'

const GRIP_PX = 28
const LEAST_PX = 12

/** What stands in a part's outline, by what it does; drawn in a square of twenty by twenty round the middle. */
const SIGN: Record<string, string> = {
  pump: 'M-7 0a7 7 0 1 0 14 0a7 7 0 1 0 -14 0M-3 -4l7 4l-7 4z',
  'engine-driven pump': 'M-7 0a7 7 0 1 0 14 0a7 7 0 1 0 -14 0M-3 -4l7 4l-7 4zM-7 8h14',
  filter: 'M-6 -7v14M-3 -7v14M0 -7v14M3 -7v14M6 -7v14',
  'check valve': 'M-6 -6l9 6l-9 6zM5 -6v12',
  'isolating valve': 'M-8 -6l16 12v-12l-16 12zM0 0v-8',
  sensor: 'M0 -7v9M-4 5a4 4 0 1 0 8 0a4 4 0 1 0 -8 0',
  tee: 'M-8 0h16M0 0v-8',
  bulkhead: 'M-8 0h16M-2 -8v16M2 -8v16',
  rail: 'M-8 -2h16M-6 -2v7M-2 -2v7M2 -2v7M6 -2v7',
  carburettor: 'M-6 -7h12v6l-3 3v5h-6v-5l-3 -3z',
  'delivery nozzle': 'M-8 -3h9l6 3l-6 3h-9z',
  'injection pump': 'M-7 0a7 7 0 1 0 14 0a7 7 0 1 0 -14 0M-3 -3h6v6h-6z',
  burner: 'M0 -8c5 5 6 7 6 10a6 6 0 0 1 -12 0c0 -3 3 -4 6 -10z',
  regulator: 'M-8 4l3 -8l3 8l3 -8l3 8l3 -8M-8 7h16',
  'jet pump': 'M-8 -6l9 6l-9 6M1 -2h7v4h-7',
  'surge tank': 'M-6 -8h12v16h-12zM-6 -2h12',
  'other tank': 'M-8 -6h16v12h-16zM-8 0h16',
  canister: 'M-7 -5h14v10h-14zM-4 -2h2M0 -2h2M-2 2h2M2 2h2',
  'vapour valve': 'M-8 -6l16 12v-12l-16 12z',
  'roll-over valve': 'M-5 5h10l-5 -10zM-3 0a3 3 0 1 0 6 0',
  'vent end': 'M-8 0h8M0 -5v10M4 -5v10',
  cap: 'M-6 -6l12 12M-6 6l12 -12',
}

interface Props {
  view: Placed
  part: LinePart
  at: boolean
  live: boolean
}

/** A part to scale, turned as it is put in plan, with the sign of what it does; it is dragged. */
export function LinePartMark({ view, part, at, live }: Props) {
  const { inks } = useTheme()
  const place = { x: part.x_mm, y: part.y_mm, z: part.z_mm }
  const [x, y] = [view.toX(place[view.across]), view.toY(place[view.up])]
  const colour = at ? inks.hand : inks.ink
  const [long, across] = sizeIn(view, part)
  const turn = view.id === 'plan' ? -part.heading_deg : 0
  const sign = Math.min(1.1, Math.max(0.45, Math.min(long, across) / 18))
  return (
    <g data-line-part={part.id} data-kind={part.does.kind}>
      <g transform={`translate(${x} ${y}) rotate(${turn})`}>
        <rect
          x={-long / 2}
          y={-across / 2}
          width={long}
          height={across}
          rx={2}
          fill={at ? inks.handFill : inks.metalFill}
          stroke={colour}
          strokeWidth={at ? 2 : 1.3}
        />
        <path
          data-mark
          d={SIGN[part.does.kind] ?? ''}
          transform={`scale(${sign})`}
          fill="none"
          stroke={colour}
          strokeWidth={1.4}
        />
      </g>
      <Label
        rank={at ? 1 : 4}
        of={[x, y]}
        x={x}
        y={y + across / 2 + 13}
        textAnchor="middle"
        colour={colour}
        pointerEvents="none"
      >
        {part.name}
      </Label>
      {live && (
        <MoveBody
          view={view}
          rect={{
            x: x - Math.max(GRIP_PX, long) / 2,
            y: y - Math.max(GRIP_PX, across) / 2,
            width: Math.max(GRIP_PX, long),
            height: Math.max(GRIP_PX, across),
          }}
          label={part.name}
          place={place}
          snapsFor={() => []}
          onPick={() => select({ kind: 'line part', id: part.id })}
          onMove={(moved) =>
            changePart(
              part.id,
              Object.fromEntries(Object.entries(moved).map(([axis, mm]) => [`${axis}_mm`, mm])) as Partial<LinePart>,
            )
          }
        />
      )}
    </g>
  )
}

/** Its outline in a view [px]: turned in plan, as wide as it reaches there in the others. */
function sizeIn(view: Placed, part: LinePart): [number, number] {
  const turn = (part.heading_deg * Math.PI) / 180
  const [cos, sin] = [Math.abs(Math.cos(turn)), Math.abs(Math.sin(turn))]
  const stands = part.upright || part.does.kind === 'surge tank'
  const tall = stands ? part.long_mm : part.across_mm
  const long = stands ? part.across_mm : part.long_mm
  const px = (mm: number) => Math.max(LEAST_PX, mm * view.scale)
  if (view.id === 'plan') return [px(long), px(part.across_mm)]
  const across = view.id === 'elevation' ? cos * long + sin * part.across_mm : sin * long + cos * part.across_mm
  return [px(across), px(tall)]
}
