import { useTheme } from '@mui/material/styles'
import type { KeyboardEvent } from 'react'
import { useUnits } from '../units/useUnits'

export interface Editing {
  label: string
  value: number
  x: number
  y: number
  commit: (mm: number) => void
}

interface Props {
  label: string
  value: number
  /** Ends of the measured span and where the dimension line lies, in pixels. */
  from: number
  to: number
  at: number
  /** Where the extension lines start. */
  foot: number
  upright?: boolean
  strong: boolean
  onEdit?: ((editing: Editing) => void) | undefined
  commit?: (mm: number) => void
}

/** A dimension line with its figure as live text: click it (or press Enter on it) and type. */
export function Dimension({ label, value, from, to, at, foot, upright = false, strong, onEdit, commit }: Props) {
  const { inks } = useTheme()
  const units = useUnits()
  const colour = strong ? inks.ink : inks.quiet
  const p = (along: number, off: number): [number, number] => (upright ? [off, along] : [along, off])
  const line = (a: [number, number], b: [number, number], key: string) => (
    <line key={key} x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} stroke={colour} strokeWidth={strong ? 1 : 0.7} />
  )
  const side = Math.sign(at - foot) || 1
  const slash = (along: number, key: string) => {
    const [x, y] = p(along, at)
    return <line key={key} x1={x - 4} y1={y + 4} x2={x + 4} y2={y - 4} stroke={colour} strokeWidth={1.4} />
  }
  const [cx, cy] = p((from + to) / 2, at)
  const text = units.length(value)
  const half = text.length * 4.2 + 8
  const start = () => commit && onEdit?.({ label, value, x: cx, y: cy, commit })
  const live = Boolean(commit && onEdit)
  return (
    <g>
      {line(p(from, foot + side * 3), p(from, at + side * 5), 'a')}
      {line(p(to, foot + side * 3), p(to, at + side * 5), 'b')}
      {line(p(from, at), p(to, at), 'c')}
      {slash(from, 'd')}
      {slash(to, 'e')}
      <g
        transform={upright ? `rotate(-90 ${cx} ${cy})` : undefined}
        {...(live
          ? {
              role: 'button',
              tabIndex: 0,
              'aria-label': `${label} ${units.lengthUnitText(value)}: change`,
              onClick: start,
              onKeyDown: (event: KeyboardEvent) => {
                if (event.key === 'Enter' || event.key === ' ') {
                  event.preventDefault()
                  start()
                }
              },
              style: { cursor: 'text' },
            }
          : {})}
        data-dimension={label}
      >
        <title>{`${label}: ${units.exact(value)}`}</title>
        <rect x={cx - half} y={cy - 22} width={2 * half} height={44} fill="transparent" />
        <rect
          x={cx - half}
          y={cy - 10}
          width={2 * half}
          height={20}
          fill={inks.sheet}
          rx={2}
          stroke={live && strong ? inks.hand : 'none'}
          strokeDasharray="2 2"
        />
        <text
          x={cx}
          y={cy + 4.5}
          textAnchor="middle"
          fontSize={strong ? 14 : 12}
          fontWeight={strong ? 650 : 500}
          fill={live && strong ? inks.hand : colour}
        >
          {text}
        </text>
      </g>
    </g>
  )
}
