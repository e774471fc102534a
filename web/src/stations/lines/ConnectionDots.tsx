import { useTheme } from '@mui/material/styles'
import type { ConnectionPlace, Lines } from '../../api/model'
import type { Placed } from '../../drawing/layout'
import { portNamed } from './names'
import { pressConnection, sameAt } from './edits'
import { useLinesView } from './view'

const REACH_PX = 11

/** Connections that nothing is joined to: press one, then another, and a hose joins them. */
export function ConnectionDots({
  view,
  connections,
  lines,
  live,
}: {
  view: Placed
  connections: readonly ConnectionPlace[]
  lines: Lines
  live: boolean
}) {
  const { inks } = useTheme()
  const from = useLinesView((state) => state.from)
  const known = new Map(lines.parts.map((part) => [part.id, part]))
  const open = connections.filter((one) => {
    const part = known.get(one.part)
    if (one.joined || !part) return false
    const has = part.connections.length === 0 || part.connections.some((c) => c.id === one.port && !c.capped)
    return has && (!part.hangs_in || from !== null)
  })
  return (
    <g data-connections>
      {open.map((one) => {
        const [x, y] = [view.toX(one.at[view.across]), view.toY(one.at[view.up])]
        const held = sameAt(from, one)
        const press = () => pressConnection({ part: one.part, port: one.port }, from)
        const label = `${from && !held ? 'Join to' : 'Join from'} ${portNamed(lines, one)}`
        return (
          <g
            key={`${one.part}.${one.port}`}
            data-open-connection={`${one.part}.${one.port}`}
            role={live ? 'button' : undefined}
            tabIndex={live && view.id === 'plan' ? 0 : undefined}
            aria-label={live ? label : undefined}
            style={{ cursor: live ? 'pointer' : undefined }}
            onPointerDown={live ? press : undefined}
            onKeyDown={(event) => live && (event.key === 'Enter' || event.key === ' ') && press()}
          >
            <title>{label}</title>
            <circle cx={x} cy={y} r={REACH_PX} fill="transparent" />
            <circle
              cx={x}
              cy={y}
              r={4.5}
              fill={held ? inks.hand : inks.sheet}
              stroke={held ? inks.hand : inks.stop}
              strokeWidth={1.8}
            />
          </g>
        )
      })}
    </g>
  )
}
