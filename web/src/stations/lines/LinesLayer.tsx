import { useTheme } from '@mui/material/styles'
import type { LinePart } from '../../api/model'
import { useWork } from '../../work/store'
import type { LayerProps } from '../station'
import { ConnectionDots } from './ConnectionDots'
import { LinePartMark } from './LinePartMark'
import { RouteMarks } from './RouteMarks'
import { RunLabel } from './RunLabel'
import { RunLine } from './RunLine'
import { shadeOf } from './shades'
import { useModePlace } from './view'

type Shown = NonNullable<NonNullable<LayerProps['evaluation']>['lines']>

/** Pressure in the middle of a run and its flow; once the engine has stopped for want of fuel, what is left. */
function figuresOf(shown: Shown, id: string, mode: number): { kpa: number | null; lph: number | null } {
  const stopped = shown.stopped?.modes.indexOf(mode) ?? -1
  const place = stopped < 0 ? mode : stopped
  const flow = (stopped < 0 ? shown.flows : shown.stopped)?.runs.find((one) => one.id === id)
  const [a, b] = [flow?.start_kpa[place], flow?.end_kpa[place]]
  const kpa = typeof a === 'number' && typeof b === 'number' ? (a + b) / 2 : null
  return { kpa, lph: flow?.flow_lph[place] ?? null }
}

const NEARNESS: Record<string, (part: LinePart) => number> = {
  plan: (part) => part.z_mm,
  elevation: (part) => -part.y_mm,
  end: (part) => part.x_mm,
}

/** What lies behind another is drawn before it; the one at hand in front of all. */
function nearestLast(parts: readonly LinePart[], view: string, at: string | undefined): LinePart[] {
  const near = (part: LinePart) => (part.id === at ? Infinity : (NEARNESS[view]?.(part) ?? 0))
  return [...parts].sort((a, b) => near(a) - near(b))
}

/** The path on tank and vehicle: every run as dark as its pressure is high, every part where it is put. */
export function LinesLayer({ view, design, evaluation, onEdit }: LayerProps) {
  const theme = useTheme()
  const at = useWork((work) => work.at)
  const mode = useModePlace()
  const shown = evaluation?.lines
  if (!shown?.places) return null
  const { lines } = design
  const live = Boolean(onEdit)
  // Over all modes: the same shade is the same pressure, whichever mode is shown.
  const most = Math.max(
    1,
    ...(shown.flows?.runs ?? []).flatMap((run) => [...run.start_kpa, ...run.end_kpa].map((kpa) => kpa ?? 0)),
  )
  return (
    <g data-lines>
      {shown.places.runs.map((way) => {
        const run = lines.runs.find((one) => one.id === way.id)
        if (!run) return null
        const { kpa } = figuresOf(shown, way.id, mode)
        return (
          <RunLine
            key={way.id}
            view={view}
            run={run}
            way={way.way}
            route={shown.routes?.find((one) => one.id === way.id) ?? null}
            service={shown.stretches?.find((one) => one.id === way.id)?.service ?? 'other'}
            colour={shadeOf(kpa, most, theme)}
            at={at?.kind === 'run' && at.id === way.id}
            live={live}
          />
        )
      })}
      {nearestLast(lines.parts, view.id, at?.kind === 'line part' ? at.id : undefined).map((part) => (
        <LinePartMark
          key={part.id}
          view={view}
          part={part}
          at={at?.kind === 'line part' && at.id === part.id}
          live={live}
        />
      ))}
      {shown.places.runs
        .filter((way) => at?.kind !== 'run' || at.id === way.id)
        .map((way) => (
          <RunLabel
            key={way.id}
            view={view}
            way={way.way}
            {...figuresOf(shown, way.id, mode)}
            at={at?.kind === 'run' && at.id === way.id}
          />
        ))}
      {at?.kind === 'run' && <RouteMarks view={view} shown={shown} run={at.id} />}
      <ConnectionDots view={view} connections={shown.places.connections} lines={lines} live={live} />
    </g>
  )
}
