import { useTheme } from '@mui/material/styles'
import { type KeyboardEvent, type PointerEvent, useState } from 'react'
import type { Axis } from '../api/model'
import { useUnits } from '../units/useUnits'
import type { Placed } from './layout'
import type { Rect } from './shapes'
import { type Snap, snapped } from './snaps'

const REACH_PX = 9
const GRIP = 34
/** How wide a face is to a finger; on a small drawing less, so that the middle is left to move the whole by. */
const TOUCH = 44

export interface Face {
  axis: Axis
  high: boolean
  /** Where the face is [mm]. */
  at: number
  label: string
  snaps: Snap[]
  limits: [number, number]
  /** Called once when a drag or key press begins. It gives back what moves the face to a place. */
  begin: () => (at: number) => void
  end: (keep: boolean) => void
}

interface Drag {
  face: Face
  move: (at: number) => void
  from: number
  snap: Snap
}

/** Grips on the edges of a rectangle in a view: drag them, or use the arrow keys. */
export function FaceHandles({ view, rect, faces }: { view: Placed; rect: Rect; faces: Face[] }) {
  const { inks } = useTheme()
  const units = useUnits()
  const [drag, setDrag] = useState<Drag | null>(null)

  const start = (face: Face) => (event: PointerEvent<SVGGElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId)
    const across = face.axis === view.across
    setDrag({ face, move: face.begin(), from: across ? event.clientX : event.clientY, snap: { at: face.at, why: '' } })
  }
  const move = (event: PointerEvent) => {
    if (!drag) return
    const across = drag.face.axis === view.across
    const pixels = across ? event.clientX - drag.from : drag.from - event.clientY
    const wanted = Math.min(Math.max(drag.face.at + pixels / view.scale, drag.face.limits[0]), drag.face.limits[1])
    const snap = event.altKey
      ? { at: wanted, why: '' }
      : snapped(wanted, drag.face.snaps, units.round, REACH_PX / view.scale)
    if (snap.at !== drag.snap.at) drag.move(snap.at)
    setDrag({ ...drag, snap })
  }
  const stop = (keep: boolean) => () => {
    drag?.face.end(keep)
    setDrag(null)
  }
  const key = (face: Face) => (event: KeyboardEvent) => {
    const across = face.axis === view.across
    const way = {
      ArrowRight: across ? 1 : 0,
      ArrowLeft: across ? -1 : 0,
      ArrowUp: across ? 0 : 1,
      ArrowDown: across ? 0 : -1,
    }[event.key]
    if (event.key === 'Escape' && drag) stop(false)()
    if (!way) return
    event.preventDefault()
    const to = face.at + way * units.nudge * (event.shiftKey ? 10 : 1)
    face.begin()(Math.min(Math.max(to, face.limits[0]), face.limits[1]))
    face.end(true)
  }
  return (
    <g>
      {faces
        .filter((face) => face.axis === view.across || face.axis === view.up)
        .map((face) => {
          const across = face.axis === view.across
          const x = across ? (face.high ? rect.x + rect.width : rect.x) : rect.x + rect.width / 2
          const y = across ? rect.y + rect.height / 2 : face.high ? rect.y : rect.y + rect.height
          const deep = Math.min(TOUCH, (across ? rect.width : rect.height) / 2)
          const hit = across
            ? { x: x - deep / 2, y: rect.y, width: deep, height: rect.height }
            : { x: rect.x, y: y - deep / 2, width: rect.width, height: deep }
          return (
            <g
              key={`${face.axis}${face.high}`}
              role="slider"
              tabIndex={0}
              aria-label={face.label}
              aria-orientation={across ? 'horizontal' : 'vertical'}
              aria-valuenow={Math.round(face.at)}
              aria-valuemin={Math.round(face.limits[0])}
              aria-valuemax={Math.round(face.limits[1])}
              aria-valuetext={units.lengthUnitText(face.at)}
              data-handle={`${view.id}-${face.axis}-${face.high ? 'high' : 'low'}`}
              style={{ cursor: across ? 'ew-resize' : 'ns-resize', touchAction: 'none' }}
              onPointerDown={start(face)}
              onPointerMove={move}
              onPointerUp={stop(true)}
              onPointerCancel={stop(false)}
              onKeyDown={key(face)}
            >
              <rect {...hit} fill="transparent" />
              <rect
                x={x - (across ? 3 : GRIP / 2)}
                y={y - (across ? GRIP / 2 : 3)}
                width={across ? 6 : GRIP}
                height={across ? GRIP : 6}
                rx={3}
                fill={inks.hand}
                stroke={inks.sheet}
              />
            </g>
          )
        })}
      {drag && <SnapLine view={view} axis={drag.face.axis} snap={drag.snap} />}
    </g>
  )
}

function SnapLine({ view, axis, snap }: { view: Placed; axis: Axis; snap: Snap }) {
  const { inks } = useTheme()
  if (!snap.why) return null
  const across = axis === view.across
  const at = across ? view.toX(snap.at) : view.toY(snap.at)
  const line = across
    ? { x1: at, x2: at, y1: view.y0 - view.height - 14, y2: view.y0 + 14 }
    : { x1: view.x0 - 14, x2: view.x0 + view.width + 14, y1: at, y2: at }
  return (
    <g pointerEvents="none">
      <line {...line} stroke={inks.hand} strokeWidth={1} strokeDasharray="3 3" />
      <text
        x={across ? at + 6 : view.x0 + view.width / 2}
        y={across ? view.y0 - view.height - 4 : at - 6}
        fontSize={12}
        fill={inks.hand}
        stroke={inks.sheet}
        strokeWidth={4}
        paintOrder="stroke"
      >
        {snap.why}
      </text>
    </g>
  )
}
