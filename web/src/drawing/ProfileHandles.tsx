import { useTheme } from '@mui/material/styles'
import { type KeyboardEvent, type PointerEvent, useState } from 'react'
import type { Corner, ProfileShell } from '../api/model'
import { useUnits } from '../units/useUnits'
import { endDrag, select, startDrag, useWork } from '../work/store'
import { Dimension, type Editing } from './Dimension'
import { changeCorner, removeCorner, splitEdge } from './edits'
import type { Placed } from './layout'
import { type Snap, snapped } from './snaps'

const REACH_PX = 8

/** The corners of a profile, to be dragged, nudged and dimensioned, in the view that looks along it. */
export function ProfileHandles({
  view,
  shell,
  onEdit,
}: {
  view: Placed
  shell: ProfileShell
  onEdit: (editing: Editing) => void
}) {
  const at = useWork((work) => work.at)
  const chosen = at?.kind === 'corner' ? at.place : null
  const origin = { across: view.across === 'x' ? shell.x_mm : shell.y_mm, up: shell.z_mm }
  const px = (corner: Corner) =>
    [view.toX(origin.across + corner.across_mm), view.toY(origin.up + corner.up_mm)] as const
  const picked = chosen === null ? undefined : shell.corners[chosen]
  return (
    <g>
      {shell.corners.map((corner, place) => {
        const next = shell.corners[(place + 1) % shell.corners.length] ?? corner
        return (
          <EdgeMark
            key={`edge-${place}`}
            from={px(corner)}
            to={px(next)}
            bow={corner.bow_mm * view.scale}
            place={place}
          />
        )
      })}
      {shell.corners.map((corner, place) => (
        <CornerGrip
          key={`corner-${place}`}
          view={view}
          corner={corner}
          place={place}
          shell={shell}
          at={px(corner)}
          chosen={place === chosen}
        />
      ))}
      {picked && chosen !== null && (
        <>
          <Dimension
            label={`Corner ${chosen + 1} across`}
            value={picked.across_mm}
            from={view.toX(origin.across)}
            to={px(picked)[0]}
            at={px(picked)[1] - 26}
            foot={px(picked)[1]}
            strong
            onEdit={onEdit}
            commit={(mm) => changeCorner(chosen, { across_mm: mm })}
          />
          <Dimension
            label={`Corner ${chosen + 1} up`}
            value={picked.up_mm}
            from={view.toY(origin.up)}
            to={px(picked)[1]}
            at={px(picked)[0] + 34}
            foot={px(picked)[0]}
            upright
            strong
            onEdit={onEdit}
            commit={(mm) => changeCorner(chosen, { up_mm: mm })}
          />
        </>
      )}
    </g>
  )
}

/** The middle of an edge: press it for a new corner there. */
function EdgeMark({
  from,
  to,
  bow,
  place,
}: {
  from: readonly [number, number]
  to: readonly [number, number]
  bow: number
  place: number
}) {
  const { inks } = useTheme()
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]]
  const span = Math.hypot(dx, dy) || 1
  // Outward is to the right of travel; on the page, where up is down, that is the left-hand normal.
  const [x, y] = [(from[0] + to[0]) / 2 - (dy / span) * bow, (from[1] + to[1]) / 2 + (dx / span) * bow]
  if (span < 36) return null
  const press = () => {
    splitEdge(place)
    select({ kind: 'corner', place: place + 1 })
  }
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`New corner on the edge after corner ${place + 1}`}
      data-edge={place}
      style={{ cursor: 'copy' }}
      onClick={press}
      onKeyDown={(event) => (event.key === 'Enter' || event.key === ' ') && press()}
    >
      <rect x={x - 16} y={y - 16} width={32} height={32} fill="transparent" />
      <path d={`M${x - 5} ${y}h10m-5 -5v10`} stroke={inks.hand} strokeWidth={2} />
    </g>
  )
}

interface GripProps {
  view: Placed
  corner: Corner
  place: number
  shell: ProfileShell
  at: readonly [number, number]
  chosen: boolean
}

function CornerGrip({ view, corner, place, shell, at, chosen }: GripProps) {
  const { inks } = useTheme()
  const units = useUnits()
  const [from, setFrom] = useState<{ x: number; y: number; corner: Corner } | null>(null)
  const others = shell.corners.filter((_, here) => here !== place)
  const snaps = (name: 'across_mm' | 'up_mm'): Snap[] => others.map((other) => ({ at: other[name], why: 'in line' }))
  const down = (event: PointerEvent<SVGGElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId)
    select({ kind: 'corner', place })
    startDrag()
    setFrom({ x: event.clientX, y: event.clientY, corner })
  }
  const move = (event: PointerEvent) => {
    if (!from) return
    const wanted = {
      across: from.corner.across_mm + (event.clientX - from.x) / view.scale,
      up: from.corner.up_mm + (from.y - event.clientY) / view.scale,
    }
    const put = (mm: number, name: 'across_mm' | 'up_mm') =>
      event.altKey ? mm : snapped(mm, snaps(name), units.round, REACH_PX / view.scale).at
    changeCorner(place, { across_mm: put(wanted.across, 'across_mm'), up_mm: put(wanted.up, 'up_mm') })
  }
  const stop = (keep: boolean) => () => {
    if (from) endDrag(keep)
    setFrom(null)
  }
  const key = (event: KeyboardEvent) => {
    if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault()
      removeCorner(place)
      select(null)
      return
    }
    const step = units.nudge * (event.shiftKey ? 10 : 1)
    const moved = {
      ArrowRight: { across_mm: corner.across_mm + step },
      ArrowLeft: { across_mm: corner.across_mm - step },
      ArrowUp: { up_mm: corner.up_mm + step },
      ArrowDown: { up_mm: corner.up_mm - step },
    }[event.key]
    if (!moved) return
    event.preventDefault()
    changeCorner(place, moved)
  }
  return (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={`Corner ${place + 1}: ${units.lengthUnitText(corner.across_mm)} across, ${units.lengthUnitText(corner.up_mm)} up. Arrow keys move it, Delete takes it away.`}
      data-corner={place}
      style={{ cursor: 'move', touchAction: 'none' }}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={stop(true)}
      onPointerCancel={stop(false)}
      onFocus={() => select({ kind: 'corner', place })}
      onKeyDown={key}
    >
      <rect x={at[0] - 22} y={at[1] - 22} width={44} height={44} fill="transparent" />
      <circle
        cx={at[0]}
        cy={at[1]}
        r={chosen ? 8 : 6}
        fill={chosen ? inks.hand : inks.sheet}
        stroke={inks.hand}
        strokeWidth={2.2}
      />
      <text
        x={at[0] + 10}
        y={at[1] - 9}
        fontSize={11}
        fontWeight={700}
        fill={inks.hand}
        stroke={inks.sheet}
        strokeWidth={3}
        paintOrder="stroke"
      >
        {place + 1}
      </text>
    </g>
  )
}
