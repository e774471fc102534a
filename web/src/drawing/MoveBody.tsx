import { type PointerEvent, useState } from 'react'
import type { Axis } from '../api/model'
import { useUnits } from '../units/useUnits'
import { endDrag, startDrag } from '../work/store'
import type { Placed } from './layout'
import type { Rect } from './shapes'
import { type Snap, snapped } from './snaps'

const REACH_PX = 8

interface Props {
  view: Placed
  rect: Rect
  label: string
  /** Low corner at the start [mm], and how large the thing is. */
  place: Record<Axis, number>
  snapsFor: (axis: Axis) => Snap[]
  onMove: (place: Partial<Record<Axis, number>>) => void
  /** Called when it is taken hold of. */
  onPick?: () => void
  /** Called when it is let go; `keep` says whether it stays there. */
  onDone?: (keep: boolean) => void
}

/** Drag a whole thing about in a view; it snaps like a face does. Typed places are in the panel at the right. */
export function MoveBody({ view, rect, label, place, snapsFor, onMove, onPick, onDone }: Props) {
  const units = useUnits()
  const [from, setFrom] = useState<{ x: number; y: number; place: Record<Axis, number> } | null>(null)
  const down = (event: PointerEvent<SVGRectElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId)
    onPick?.()
    startDrag()
    setFrom({ x: event.clientX, y: event.clientY, place })
  }
  const move = (event: PointerEvent) => {
    if (!from) return
    const to = (axis: Axis, pixels: number) => {
      const wanted = from.place[axis] + pixels / view.scale
      return event.altKey ? wanted : snapped(wanted, snapsFor(axis), units.round, REACH_PX / view.scale).at
    }
    onMove({ [view.across]: to(view.across, event.clientX - from.x), [view.up]: to(view.up, from.y - event.clientY) })
  }
  const stop = (keep: boolean) => () => {
    if (from) {
      endDrag(keep)
      onDone?.(keep)
    }
    setFrom(null)
  }
  return (
    <rect
      {...rect}
      fill="transparent"
      data-move={`${view.id}-${label}`}
      style={{ cursor: from ? 'grabbing' : 'grab', touchAction: 'none' }}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={stop(true)}
      onPointerCancel={stop(false)}
    >
      <title>{`Drag to move the ${label}`}</title>
    </rect>
  )
}
