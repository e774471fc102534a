import { useTheme } from '@mui/material/styles'
import type { Axis, Wire } from '../../api/model'
import { PathGrips } from '../../drawing/PathGrips'
import type { Placed } from '../../drawing/layout'
import { select, useWork } from '../../work/store'
import { cornerSnaps } from '../lines/snaps'
import type { LayerProps } from '../station'
import { DeviceMark } from './DeviceMark'
import { changeWire } from './edits'

type Place = Record<Axis, number>

const pathOf = (view: Placed, way: readonly Place[]) =>
  `M${way.map((place) => `${view.toX(place[view.across])} ${view.toY(place[view.up])}`).join('L')}`

/** Devices and wires on tank and vehicle; hoses quietly beneath them. */
export function WiringLayer({ view, design, evaluation, onEdit }: LayerProps) {
  const { inks } = useTheme()
  const at = useWork((work) => work.at)
  const runs = evaluation?.wiring?.runs
  if (!runs) return null
  const live = Boolean(onEdit)
  const sides = new Map(evaluation.wiring?.wired?.wires.map((wire) => [wire.id, wire.side]))
  return (
    <g data-wiring>
      {evaluation.lines?.routes?.map((route) => (
        <path
          key={route.id}
          d={pathOf(view, route.line)}
          fill="none"
          stroke={inks.line}
          strokeWidth={Math.max(1.5, route.outside_mm * view.scale)}
          strokeLinejoin="round"
        />
      ))}
      {runs.wires.map((run) => {
        const wire = design.wiring.wires.find((one) => one.id === run.id)
        if (!wire) return null
        return (
          <WireLine
            key={run.id}
            view={view}
            wire={wire}
            way={run.way}
            ownFrom={run.own.lastIndexOf(false) + 1}
            side={sides.get(run.id) ?? 'signal'}
            at={at?.kind === 'wire' && at.id === run.id}
            live={live}
          />
        )
      })}
      {runs.joined.map((thing) => (
        <DeviceMark key={`${thing.of}-${thing.id}`} view={view} thing={thing} live={live} />
      ))}
    </g>
  )
}

function WireLine({
  view,
  wire,
  way,
  ownFrom,
  side,
  at,
  live,
}: {
  view: Placed
  wire: Wire
  way: readonly Place[]
  /** Where along it its own stretch to its end begins. */
  ownFrom: number
  side: string
  at: boolean
  live: boolean
}) {
  const { inks } = useTheme()
  const path = pathOf(view, way)
  const own = way.slice(ownFrom)
  return (
    <g data-wire={wire.id}>
      {at && <path d={path} fill="none" stroke={inks.hand} strokeWidth={6} strokeLinejoin="round" />}
      <path
        d={path}
        fill="none"
        stroke={side === 'return' ? inks.quiet : inks.ink}
        strokeWidth={1.4}
        strokeLinejoin="round"
        strokeDasharray={side === 'signal' ? '4 3' : undefined}
      />
      <path
        d={path}
        fill="none"
        stroke="transparent"
        strokeWidth={12}
        style={{ cursor: 'pointer' }}
        onPointerDown={() => select({ kind: 'wire', id: wire.id })}
      >
        <title>{wire.name}</title>
      </path>
      {at && live && (
        <PathGrips
          view={view}
          name={wire.name}
          way={own}
          path={wire.corners}
          snapsFor={(place, axis) => cornerSnaps('', own, place, axis, 0)}
          onChange={(corners) => changeWire(wire.id, { corners })}
        />
      )}
    </g>
  )
}
