import { useTheme } from '@mui/material/styles'
import type { ReactNode } from 'react'

type Pair = readonly [number, number]

export interface Line {
  points: readonly Pair[]
  colour: string
  dash?: string | undefined
  width?: number
}

interface Props {
  label: string
  lines: readonly Line[]
  dots?: readonly { at: Pair; colour: string; hollow?: boolean; label?: string }[]
  /** Straight lines across: a limit, a demand. */
  levels?: readonly { y: number; colour: string; text: string }[]
  xText: string
  yText: string
  showX: (value: number) => string
  showY: (value: number) => string
  height?: number
  width?: number
  /** How much one unit of the upright axis is of what is plotted. */
  perY?: number
  fromZero?: boolean
  children?: ReactNode
}

/** Round steps of an axis, four or so, in a unit that is so much of what is plotted. */
export function ticksOf(lowest: number, highest: number, per = 1): number[] {
  const [low, high] = [lowest / per, highest / per]
  const span = high - low || 1
  const rough = span / 4
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = ([1, 2, 5, 10].find((n) => n * power >= rough) ?? 10) * power
  const first = Math.ceil(low / step - 1e-9) * step
  return Array.from({ length: Math.floor((high - first) / step + 1e-9) + 1 }, (_, n) => (first + n * step) * per)
}

/** A small plot in the drawing's own manner: lines, dots, and levels with their words. */
export function Plot({
  label,
  lines,
  dots = [],
  levels = [],
  xText,
  yText,
  showX,
  showY,
  height = 180,
  width = 420,
  perY = 1,
  fromZero = true,
}: Props) {
  const { inks } = useTheme()
  const [left, foot, top, right] = [54, 38, 20, 12]
  const xs = [...lines.flatMap((line) => line.points.map((p) => p[0])), ...dots.map((dot) => dot.at[0])]
  const ys = [
    ...lines.flatMap((line) => line.points.map((p) => p[1])),
    ...dots.map((dot) => dot.at[1]),
    ...levels.map((level) => level.y),
  ]
  if (!xs.length) return null
  const [xLow, xHigh] = [Math.min(...xs, fromZero ? 0 : Infinity), Math.max(...xs)]
  const [yLow, yHigh] = [Math.min(...ys, fromZero ? 0 : Infinity), Math.max(...ys)]
  const pad = (yHigh - yLow || 1) * 0.06
  const x = (value: number) => left + ((value - xLow) / (xHigh - xLow || 1)) * (width - left - right)
  const y = (value: number) => height - foot - ((value - yLow) / (yHigh + pad - yLow)) * (height - foot - top)
  const text = { fontSize: 12.5, fill: inks.quiet }
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      role="img"
      aria-label={label}
      style={{ display: 'block', maxWidth: width * 1.4 }}
    >
      {ticksOf(yLow, yHigh + pad, perY).map((value) => (
        <g key={value}>
          <path d={`M${left} ${y(value)}H${width - right}`} stroke={inks.line} strokeWidth={value === 0 ? 1.2 : 0.6} />
          <text x={left - 5} y={y(value) + 4} textAnchor="end" {...text}>
            {showY(value)}
          </text>
        </g>
      ))}
      {ticksOf(xLow, xHigh).map((value) => (
        <text key={value} x={x(value)} y={height - foot + 16} textAnchor="middle" {...text}>
          {showX(value)}
        </text>
      ))}
      <path d={`M${left} ${top}V${height - foot}H${width - right}`} fill="none" stroke={inks.quiet} />
      <text x={left} y={12} {...text}>
        {yText}
      </text>
      <text x={width - right} y={height - 4} textAnchor="end" {...text}>
        {xText}
      </text>
      {levels.map((level) => (
        <g key={level.text}>
          <path
            d={`M${left} ${y(level.y)}H${width - right}`}
            stroke={level.colour}
            strokeWidth={1.4}
            strokeDasharray="7 4"
          />
          <text
            x={width - right - 2}
            y={y(level.y) - 4}
            textAnchor="end"
            fontSize={12.5}
            fontWeight={600}
            fill={level.colour}
            stroke={inks.sheet}
            strokeWidth={3}
            paintOrder="stroke"
          >
            {level.text}
          </text>
        </g>
      ))}
      {lines.map((line, place) => (
        <path
          key={place}
          d={`M${line.points.map((p) => `${x(p[0]).toFixed(1)},${y(p[1]).toFixed(1)}`).join('L')}`}
          fill="none"
          stroke={line.colour}
          strokeWidth={line.width ?? 2}
          strokeDasharray={line.dash}
        />
      ))}
      {dots.map((dot, place) => (
        <g key={place}>
          <circle
            cx={x(dot.at[0])}
            cy={y(dot.at[1])}
            r={4.5}
            fill={dot.hollow ? inks.sheet : dot.colour}
            stroke={dot.colour}
            strokeWidth={2}
          />
          {dot.label && (
            <text
              x={x(dot.at[0]) + 8}
              y={y(dot.at[1]) - 6}
              fontSize={12.5}
              fontWeight={600}
              fill={dot.colour}
              stroke={inks.sheet}
              strokeWidth={3}
              paintOrder="stroke"
            >
              {dot.label}
            </text>
          )}
        </g>
      ))}
    </svg>
  )
}
