import { useTheme } from '@mui/material/styles'
import type { Axis, Evaluation, LineRun } from '../../api/model'
import type { Placed } from '../../drawing/layout'
import { PathGrips } from '../../drawing/PathGrips'
import { select } from '../../work/store'
import { changeRun } from './edits'
import { cornerSnaps } from './snaps'

type Route = NonNullable<NonNullable<Evaluation['lines']>['routes']>[number]

const LEAST_PX = 2.2
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
      {at && live && (
        <PathGrips
          view={view}
          name={run.name}
          way={way}
          path={run.corners}
          snapsFor={(place, axis) => cornerSnaps(run.id, way, place, axis, route?.stands_off_mm ?? 0)}
          onChange={(corners) => changeRun(run.id, { corners })}
        />
      )}
    </g>
  )
}
