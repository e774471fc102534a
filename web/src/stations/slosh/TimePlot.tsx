import { useTheme } from '@mui/material/styles'
import { type PointerEvent, useMemo } from 'react'
import type { RunShown } from '../../api/model'
import { ticksOf } from '../../plots/ticks'
import { useRun } from './slosh'

interface Trace {
  values: readonly number[]
  colour: string
  dash?: string
  name: string
}

interface Props {
  run: RunShown
  label: string
  traces: Trace[]
  showY: (value: number) => string
  /** A line that something mustn't fall under. */
  limit?: number
  /** How much one unit of it is of what is plotted. */
  per?: number
  height?: number
  last?: boolean
}

const WIDE = 860
const [LEFT, RIGHT, TOP] = [58, 12, 18]

/** Traces over the run's time under one cursor; dry spells stand out. Press or drag to go to a moment. */
export function TimePlot({ run, label, traces, showY, limit, per = 1, height = 96, last = false }: Props) {
  const { inks } = useTheme()
  const end = run.times_s.at(-1) ?? 1
  const foot = last ? 26 : 6
  const values = traces.flatMap((trace) => trace.values)
  const [low, high] = [Math.min(...values, limit ?? Infinity, 0), Math.max(...values, limit ?? -Infinity, 0.001)]
  const x = (t: number) => LEFT + (t / end) * (WIDE - LEFT - RIGHT)
  const y = (v: number) => height - foot - ((v - low) / (high - low || 1)) * (height - foot - TOP)
  const paths = useMemo(
    () =>
      traces.map(
        (trace) =>
          `M${trace.values.map((v, i) => `${x(run.times_s[i] ?? 0).toFixed(1)} ${y(v).toFixed(1)}`).join('L')}`,
      ),
    // The picture of a run changes only with the run.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [run, inks],
  )
  const go = (event: PointerEvent<SVGSVGElement>) => {
    if (event.type === 'pointermove' && !(event.buttons & 1)) return
    const box = event.currentTarget.getBoundingClientRect()
    const across = ((event.clientX - box.left) / box.width) * WIDE
    useRun.setState({ playing: false, at: Math.min(end, Math.max(0, ((across - LEFT) / (WIDE - LEFT - RIGHT)) * end)) })
  }
  const text = { fontSize: 11.5, fill: inks.quiet }
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${height}`}
      width="100%"
      style={{ display: 'block', touchAction: 'none', cursor: 'col-resize' }}
      role="img"
      aria-label={label}
      onPointerDown={go}
      onPointerMove={go}
      data-plot={label}
    >
      {run.spells.map((spell, n) => (
        <rect
          key={n}
          x={x(spell.start_s)}
          width={Math.max(1.5, x(spell.seconds) - LEFT)}
          y={TOP}
          height={height - foot - TOP}
          fill={inks.stop}
          opacity={0.18}
        />
      ))}
      {ticksOf(low, high, per)
        .filter((_, n, all) => all.length < 5 || n % 2 === 0)
        .map((value) => (
          <g key={value}>
            <path d={`M${LEFT} ${y(value)}H${WIDE - RIGHT}`} stroke={inks.line} strokeWidth={value === 0 ? 1.2 : 0.6} />
            <text x={LEFT - 5} y={y(value) + 4} textAnchor="end" {...text}>
              {showY(value)}
            </text>
          </g>
        ))}
      <text x={LEFT} y={12} {...text}>
        {label}
      </text>
      {traces.length > 1 &&
        traces.slice(0, 10).map((trace, n) => (
          <text
            key={trace.name}
            x={WIDE - RIGHT - (Math.min(traces.length, 10) - 1 - n) * 84}
            y={12}
            textAnchor="end"
            fontSize={11.5}
            fontWeight={600}
            fill={trace.colour}
          >
            {trace.name}
          </text>
        ))}
      {limit !== undefined && (
        <path d={`M${LEFT} ${y(limit)}H${WIDE - RIGHT}`} stroke={inks.stop} strokeWidth={1.4} strokeDasharray="6 3" />
      )}
      {paths.map((path, n) => (
        <path
          key={n}
          d={path}
          fill="none"
          stroke={traces[n]?.colour}
          strokeWidth={1.6}
          strokeDasharray={traces[n]?.dash}
        />
      ))}
      {last &&
        ticksOf(0, end).map((value) => (
          <text key={value} x={x(value)} y={height - 10} textAnchor="middle" {...text}>
            {value} s
          </text>
        ))}
      <Cursor end={end} foot={height - foot} />
    </svg>
  )
}

/** The moment shown: all of the plot that moves while the run plays. */
function Cursor({ end, foot }: { end: number; foot: number }) {
  const { inks } = useTheme()
  const at = useRun((state) => state.at)
  return (
    <path
      d={`M${LEFT + (at / end) * (WIDE - LEFT - RIGHT)} ${TOP - 4}V${foot}`}
      stroke={inks.hand}
      strokeWidth={2}
      data-cursor
    />
  )
}
