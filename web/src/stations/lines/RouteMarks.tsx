import { useTheme } from '@mui/material/styles'
import type { Axis, Evaluation } from '../../api/model'
import { Label } from '../../drawing/Label'
import type { Placed } from '../../drawing/layout'
import { useUnits } from '../../units/useUnits'

type Shown = NonNullable<Evaluation['lines']>
type Gap = NonNullable<Shown['route_gaps']>[number]
type Crossing = NonNullable<Shown['crossings']>[number]
type Clamp = NonNullable<Shown['clamps']>[number]
type Place = Record<Axis, number>

/** Neighbours that are dimensioned: the nearest ones, and all that are too near. */
const MOST_GAPS = 5
const NEAR_MM = 150
const CLAMP_PX = 5
const VIEWS: [Placed['id'], Axis, Axis][] = [
  ['plan', 'x', 'y'],
  ['elevation', 'x', 'z'],
  ['end', 'y', 'z'],
]

/** The one view in which a distance is dimensioned: where it is seen longest. */
function homeOf({ start, end }: Gap): Placed['id'] {
  const seen = VIEWS.map(([id, a, b]) => ({ id, long: Math.hypot(end[a] - start[a], end[b] - start[b]) }))
  return seen.reduce((best, one) => (one.long > best.long + 1e-6 ? one : best)).id
}

/** What stands about the run at hand: how near its neighbours are, where it goes through sheet, where it is clamped. */
export function RouteMarks({ view, shown, run }: { view: Placed; shown: Shown; run: string }) {
  const gaps = (shown.route_gaps ?? []).filter((gap) => gap.run === run && (gap.gap_mm < NEAR_MM || isShort(gap)))
  return (
    <g data-route={run}>
      {(shown.clamps ?? [])
        .filter((clamp) => clamp.run === run)
        .map((clamp) => (
          <ClampMark key={clamp.along_mm} view={view} clamp={clamp} />
        ))}
      {(shown.crossings ?? [])
        .filter((one) => one.id === run)
        .map((one) => (
          <CrossingMark key={`${one.panel}-${one.along_mm}`} view={view} crossing={one} />
        ))}
      {gaps
        .slice(0, MOST_GAPS)
        .filter((gap) => homeOf(gap) === view.id)
        .map((gap) => (
          <GapLine key={gap.beside} view={view} gap={gap} />
        ))}
    </g>
  )
}

const isShort = (gap: Gap) => gap.gap_mm < gap.needed_mm - 1e-6
const spot = (view: Placed, at: Place) => [view.toX(at[view.across]), view.toY(at[view.up])] as const

function GapLine({ view, gap }: { view: Placed; gap: Gap }) {
  const { inks } = useTheme()
  const units = useUnits()
  const short = isShort(gap)
  const colour = short ? inks.stop : inks.quiet
  const [x1, y1] = spot(view, gap.start)
  const [x2, y2] = spot(view, gap.end)
  const said = gap.gap_mm < 0 ? `in ${gap.beside_name}` : `${units.length(gap.gap_mm)} ${gap.beside_name}`
  return (
    <g pointerEvents="none" data-route-gap={gap.beside}>
      <line x1={x1} y1={y1} x2={x2} y2={y2} stroke={colour} strokeWidth={short ? 2.2 : 1.2} />
      <circle cx={x2} cy={y2} r={2} fill={colour} />
      <Label
        rank={short ? 1 : 3}
        of={[(x1 + x2) / 2, (y1 + y2) / 2]}
        x={(x1 + x2) / 2 + 6}
        y={(y1 + y2) / 2 + 4}
        textAnchor="start"
        fontSize={11.5}
        fontWeight={short ? 700 : 500}
        colour={colour}
      >
        {said}
      </Label>
    </g>
  )
}

/** A hole in sheet: across it where it is seen from the front, a gap in the sheet where it is seen edge on. */
function CrossingMark({ view, crossing }: { view: Placed; crossing: Crossing }) {
  const { inks } = useTheme()
  const units = useUnits()
  const [x, y] = spot(view, crossing.at)
  const bad = crossing.way === null || crossing.sealed
  const colour = bad ? inks.stop : inks.hand
  const across = Math.max(5, crossing.hole_mm * view.scale)
  const axis = crossing.axis as Axis
  const flat = axis !== view.across && axis !== view.up
  const said = bad ? 'no hole' : `${crossing.way} ${units.cut(crossing.hole_mm)}`
  return (
    <g pointerEvents="none" data-crossing={crossing.panel}>
      {flat ? (
        <circle cx={x} cy={y} r={across / 2} fill="none" stroke={colour} strokeWidth={1.8} />
      ) : (
        <path
          d={
            axis === view.across
              ? `M${x - 4} ${y - across / 2}h8M${x - 4} ${y + across / 2}h8`
              : `M${x - across / 2} ${y - 4}v8M${x + across / 2} ${y - 4}v8`
          }
          stroke={colour}
          strokeWidth={2.2}
        />
      )}
      {!flat && (
        <Label
          rank={bad ? 1 : 3}
          of={[x, y]}
          x={x + 8}
          y={y - across / 2 - 4}
          textAnchor="start"
          fontSize={11.5}
          fontWeight={bad ? 700 : 500}
          colour={colour}
        >
          {said}
        </Label>
      )}
    </g>
  )
}

/** A clamp, with a foot to what it is fixed to. */
function ClampMark({ view, clamp }: { view: Placed; clamp: Clamp }) {
  const { inks } = useTheme()
  const [x, y] = spot(view, clamp.at)
  const foot = clamp.foot ? spot(view, clamp.foot) : null
  const colour = clamp.fixed_to ? inks.ink : inks.caution
  return (
    <g pointerEvents="none" data-clamp={clamp.fixed_to || 'nothing'}>
      {foot && <line x1={x} y1={y} x2={foot[0]} y2={foot[1]} stroke={colour} strokeWidth={1.2} />}
      <path
        d={`M${x - CLAMP_PX} ${y}l${CLAMP_PX} ${-CLAMP_PX}l${CLAMP_PX} ${CLAMP_PX}l${-CLAMP_PX} ${CLAMP_PX}z`}
        fill={clamp.fixed_to ? inks.ink : inks.sheet}
        stroke={colour}
        strokeWidth={1.4}
      >
        <title>{clamp.fixed_to ? `Clamp on ${clamp.fixed_to}` : 'A clamp with nothing in reach to be fixed to'}</title>
      </path>
    </g>
  )
}
