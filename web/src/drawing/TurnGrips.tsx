import { useTheme } from '@mui/material/styles'
import { type KeyboardEvent, type PointerEvent, useState } from 'react'
import type { Port } from '../api/model'
import { isNumber } from '../units/number'
import { endDrag, startDrag } from '../work/store'
import { changePort } from './edits'

const SNAP_DEG = 15
const GRIP_PX = 7
const TOUCH_PX = 16

type Angle = 'clock_deg' | 'stop_deg' | 'hose_deg'
const SAID: Record<Angle, string> = { clock_deg: 'first bolt or mark', stop_deg: 'lock ring’s stop', hose_deg: 'hose' }

interface Props {
  port: Port
  /** Middle on the screen, and a place so many millimetres and pixels out at an angle. */
  x: number
  y: number
  at: (deg: number, outPx: number) => [number, number]
  /** Seen from outside a port's angles run to the left; drawn through from above a floor's run to the right. */
  turn: number
}

/** Grips that turn what is round about a port: they snap to 15°, with Alt to a degree; arrow keys turn by a degree. */
export function TurnGrips({ port, x, y, at, turn }: Props) {
  const { inks } = useTheme()
  const [held, setHeld] = useState<Angle | null>(null)
  const angles = (Object.keys(SAID) as Angle[]).filter((name) => isNumber(port[name]))
  const turnTo = (name: Angle, deg: number) =>
    changePort(port.id, { [name]: ((((deg + 180) % 360) + 360) % 360) - 180 })
  const move = (name: Angle) => (event: PointerEvent<SVGGElement>) => {
    if (held !== name) return
    const box = event.currentTarget.ownerSVGElement?.getScreenCTM()
    if (!box) return
    const deg =
      (Math.atan2(-(event.clientY - box.f) / box.d + y, (event.clientX - box.e) / box.a - x) * 180 * turn) / Math.PI
    const step = event.altKey ? 1 : SNAP_DEG
    turnTo(name, Math.round(deg / step) * step)
  }
  const stop = (keep: boolean) => () => {
    if (held) endDrag(keep)
    setHeld(null)
  }
  const key = (name: Angle) => (event: KeyboardEvent) => {
    const way = { ArrowLeft: 1, ArrowUp: 1, ArrowRight: -1, ArrowDown: -1 }[event.key]
    if (!way) return
    event.preventDefault()
    turnTo(name, (port[name] ?? 0) + way * (event.shiftKey ? SNAP_DEG : 1))
  }
  return (
    <g>
      {angles.map((name, place) => {
        const [u, v] = at(port[name] ?? 0, 24 + 15 * place)
        return (
          <g
            key={name}
            role="slider"
            tabIndex={0}
            aria-label={`Angle of the ${SAID[name]} of ${port.name}`}
            aria-valuenow={Math.round(port[name] ?? 0)}
            aria-valuemin={-180}
            aria-valuemax={180}
            aria-valuetext={`${Math.round(port[name] ?? 0)}°`}
            data-turn={name}
            style={{ cursor: held === name ? 'grabbing' : 'grab', touchAction: 'none' }}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId)
              startDrag()
              setHeld(name)
            }}
            onPointerMove={move(name)}
            onPointerUp={stop(true)}
            onPointerCancel={stop(false)}
            onKeyDown={key(name)}
          >
            <circle cx={u} cy={v} r={TOUCH_PX} fill="transparent" />
            <circle cx={u} cy={v} r={GRIP_PX} fill={inks.hand} stroke={inks.sheet} strokeWidth={1.5} />
            <title>{`${SAID[name]}: ${Math.round(port[name] ?? 0)}°. Drag to turn it.`}</title>
          </g>
        )
      })}
    </g>
  )
}
