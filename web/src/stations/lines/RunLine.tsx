import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Axis, Evaluation, LineRun } from '../../api/model'
import type { Placed } from '../../drawing/layout'
import { MoveBody } from '../../drawing/MoveBody'
import { select } from '../../work/store'
import { addCornerAt, moveCorner } from './edits'
import { cornerSnaps } from './snaps'

type Route = NonNullable<NonNullable<Evaluation['lines']>['routes']>[number]

const GRIP_PX = 24
const LEAST_PX = 2.2
/** A straight that is seen shorter than this has no grip in its middle: its corners are near enough. */
const STRAIGHT_PX = 60
type Place = Record<Axis, number>

interface Props {
  view: Placed
  run: LineRun
  /** Its corners with both ends. */
  way: readonly Place[]
  route: Route | null
  service: string
  colour: string
  at: boolean
  live: boolean
}

/** A run as it lies, as thick as it is; corners of the one at hand are dragged, and a straight's middle makes one more. */
export function RunLine({ view, run, way, route, service, colour, at, live }: Props) {
  const { inks } = useTheme()
  const line = (route?.line ?? way).map((place) => [view.toX(place[view.across]), view.toY(place[view.up])] as const)
  const path = `M${line.map((point) => point.join(' ')).join('L')}`
  const dry = service === 'reference' || service === 'air'
  const width = Math.max(LEAST_PX, (route?.outside_mm ?? run.bore_mm) * view.scale)
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
      {at && live && <Grips view={view} run={run} way={way} offMm={route?.stands_off_mm ?? 0} />}
    </g>
  )
}

interface GripsProps {
  view: Placed
  run: LineRun
  way: readonly Place[]
  offMm: number
}

/** Squares on corners, rings in the middle of straights. */
function Grips({ view, run, way, offMm }: GripsProps) {
  return (
    <>
      {way.slice(1).map((end, n) => (
        <StraightGrip key={`straight-${n}`} {...{ view, run, way, offMm, n, end }} start={way[n] ?? end} />
      ))}
      {run.corners.map((_, n) => (
        <CornerGrip key={`corner-${n}`} {...{ view, run, way, offMm, n }} />
      ))}
    </>
  )
}

const spotOf = (view: Placed, place: Place) => [view.toX(place[view.across]), view.toY(place[view.up])] as const
const gripAt = ([x, y]: readonly [number, number]) => ({
  x: x - GRIP_PX / 2,
  y: y - GRIP_PX / 2,
  width: GRIP_PX,
  height: GRIP_PX,
})

/** The middle of a straight: dragged, it is a corner. The run as it was taken hold of is what it is put into. */
function StraightGrip({ view, run, way, offMm, n, start, end }: GripsProps & { n: number; start: Place; end: Place }) {
  const { inks } = useTheme()
  const [taken, setTaken] = useState<LineRun | null>(null)
  const [a, b] = [spotOf(view, start), spotOf(view, end)]
  if (!taken && Math.hypot(b[0] - a[0], b[1] - a[1]) < STRAIGHT_PX) return null
  const middle = {
    x: Math.round((start.x + end.x) / 2),
    y: Math.round((start.y + end.y) / 2),
    z: Math.round((start.z + end.z) / 2),
  }
  const at = spotOf(view, middle)
  return (
    <g>
      {!taken && <circle cx={at[0]} cy={at[1]} r={4.5} fill={inks.sheet} stroke={inks.hand} strokeWidth={1.5} />}
      <MoveBody
        view={view}
        rect={gripAt(at)}
        label={`straight ${n + 1} of ${run.name}`}
        place={middle}
        snapsFor={(axis) => cornerSnaps(taken ?? run, way, n + 1, axis, offMm)}
        onPick={() => setTaken(run)}
        onMove={(moved) => addCornerAt(taken ?? run, n, { ...middle, ...moved })}
        onDone={() => setTaken(null)}
      />
    </g>
  )
}

/** A corner, dragged. */
function CornerGrip({ view, run, way, offMm, n }: GripsProps & { n: number }) {
  const { inks } = useTheme()
  const corner = run.corners[n]
  if (!corner) return null
  const place = { x: corner.x_mm, y: corner.y_mm, z: corner.z_mm }
  const at = spotOf(view, place)
  return (
    <g>
      <rect x={at[0] - 5} y={at[1] - 5} width={10} height={10} fill={inks.sheet} stroke={inks.hand} strokeWidth={2} />
      <MoveBody
        view={view}
        rect={gripAt(at)}
        label={`corner ${n + 1} of ${run.name}`}
        place={place}
        snapsFor={(axis) => cornerSnaps(run, way, n + 1, axis, offMm)}
        onMove={(moved) => moveCorner(run, n, moved)}
      />
    </g>
  )
}
