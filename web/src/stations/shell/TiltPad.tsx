import { useTheme } from '@mui/material/styles'
import { type KeyboardEvent, type PointerEvent, useRef } from 'react'
import type { Attitude } from '../../api/model'

const SIZE = 132
const PAD = 14

export interface PadAxis {
  name: keyof Attitude
  limit: number
  step: number
  unit: string
  /** Words at the low and at the high end. */
  ends: [string, string]
}

/** Two quantities by one dot: drag it, or use the arrow keys; Home puts it back in the middle. */
export function TiltPad({
  label,
  across,
  up,
  attitude,
  onChange,
}: {
  label: string
  across: PadAxis
  up: PadAxis
  attitude: Attitude
  onChange: (part: Partial<Attitude>) => void
}) {
  const { inks } = useTheme()
  const held = useRef(false)
  const room = SIZE / 2 - PAD
  const clamp = (value: number, axis: PadAxis) =>
    Math.max(-axis.limit, Math.min(axis.limit, Math.round(value / axis.step) * axis.step))
  const tidy = (value: number) => Number(value.toFixed(3))
  const put = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect()
    const scale = SIZE / box.width
    const x = ((event.clientX - box.left) * scale - SIZE / 2) / room
    const y = (SIZE / 2 - (event.clientY - box.top) * scale) / room
    onChange({ [across.name]: tidy(clamp(x * across.limit, across)), [up.name]: tidy(clamp(y * up.limit, up)) })
  }
  const key = (event: KeyboardEvent) => {
    const way = { ArrowRight: [1, 0], ArrowLeft: [-1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key]
    if (event.key === 'Home') onChange({ [across.name]: 0, [up.name]: 0 })
    if (!way) return
    event.preventDefault()
    const many = event.shiftKey ? 5 : 1
    onChange({
      [across.name]: tidy(clamp(attitude[across.name] + (way[0] ?? 0) * across.step * many, across)),
      [up.name]: tidy(clamp(attitude[up.name] + (way[1] ?? 0) * up.step * many, up)),
    })
  }
  const x = SIZE / 2 + Math.max(-1, Math.min(1, attitude[across.name] / across.limit)) * room
  const y = SIZE / 2 - Math.max(-1, Math.min(1, attitude[up.name] / up.limit)) * room
  const word = { fontSize: 9.5, fill: inks.quiet, textAnchor: 'middle' as const }
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      width="100%"
      style={{ maxWidth: 150, touchAction: 'none', cursor: 'crosshair' }}
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={attitude[up.name]}
      aria-valuetext={`${across.ends[1]} ${attitude[across.name]} ${across.unit}, ${up.ends[1]} ${attitude[up.name]} ${up.unit}`}
      data-pad={across.name}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        held.current = true
        put(event)
      }}
      onPointerMove={(event) => held.current && put(event)}
      onPointerUp={() => (held.current = false)}
      onPointerCancel={() => (held.current = false)}
      onDoubleClick={() => onChange({ [across.name]: 0, [up.name]: 0 })}
      onKeyDown={key}
    >
      <rect x={1} y={1} width={SIZE - 2} height={SIZE - 2} fill={inks.sheet} stroke={inks.line} rx={4} />
      <path d={`M${PAD} ${SIZE / 2}H${SIZE - PAD}M${SIZE / 2} ${PAD}V${SIZE - PAD}`} stroke={inks.line} />
      <text x={SIZE / 2} y={11} {...word}>
        {up.ends[1]}
      </text>
      <text x={SIZE / 2} y={SIZE - 4} {...word}>
        {up.ends[0]}
      </text>
      <text x={8} y={SIZE / 2 + 3} transform={`rotate(-90 8 ${SIZE / 2})`} {...word}>
        {across.ends[0]}
      </text>
      <text x={SIZE - 4} y={SIZE / 2} transform={`rotate(-90 ${SIZE - 4} ${SIZE / 2})`} {...word}>
        {across.ends[1]}
      </text>
      <path d={`M${SIZE / 2} ${SIZE / 2}L${x} ${y}`} stroke={inks.fuel} strokeWidth={2} />
      <circle cx={x} cy={y} r={8} fill={inks.fuel} stroke={inks.sheet} strokeWidth={2} />
    </svg>
  )
}
