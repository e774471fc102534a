import { useTheme } from '@mui/material/styles'
import { ChartsContainer } from '@mui/x-charts/ChartsContainer'
import { ChartsGrid } from '@mui/x-charts/ChartsGrid'
import { ChartsReferenceLine } from '@mui/x-charts/ChartsReferenceLine'
import { ChartsTooltip } from '@mui/x-charts/ChartsTooltip'
import { ChartsXAxis } from '@mui/x-charts/ChartsXAxis'
import { ChartsYAxis } from '@mui/x-charts/ChartsYAxis'
import { useXScale, useYScale } from '@mui/x-charts/hooks'
import { LinePlot } from '@mui/x-charts/LineChart'
import type { PlotProps } from './Plot'
import { ticksOf } from './ticks'

const TEXT = { fontSize: 12.5 }
const MARGIN = { left: 4, right: 16, top: 22, bottom: 0 }

/** A plot of MUI's charts: it comes when the first one is shown. */
export default function Chart({
  lines,
  dots = [],
  levels = [],
  xText,
  yText,
  showX,
  showY,
  height = 180,
  perX = 1,
  perY = 1,
  fromZero = true,
}: PlotProps) {
  const { inks } = useTheme()
  const xs = [...lines.flatMap((line) => line.points.map((p) => p[0])), ...dots.map((dot) => dot.at[0])]
  const ys = [
    ...lines.flatMap((line) => line.points.map((p) => p[1])),
    ...dots.map((dot) => dot.at[1]),
    ...levels.map((level) => level.y),
  ]
  const x = { min: Math.min(...xs, fromZero ? 0 : Infinity), max: Math.max(...xs) }
  const low = Math.min(...ys, fromZero ? 0 : Infinity)
  const high = Math.max(...ys)
  const y = { min: low, max: high + (high - low || 1) * 0.06 }
  const axis = { scaleType: 'linear', ...x } as const
  const quiet = { tickLabelStyle: { ...TEXT, fill: inks.quiet }, labelStyle: { ...TEXT, fill: inks.quiet } }
  return (
    <ChartsContainer
      height={height}
      margin={MARGIN}
      skipAnimation
      series={lines.map((line, place) => ({
        type: 'line',
        id: `line-${place}`,
        xAxisId: `x-${place}`,
        data: line.points.map((p) => p[1]),
        color: line.colour,
        curve: 'linear',
        label: line.name ?? yText,
        valueFormatter: (value) => (value === null ? '' : showY(value)),
      }))}
      xAxis={(lines.length ? lines : [{ points: [] }]).map((line, place) => ({
        ...axis,
        id: `x-${place}`,
        data: line.points.map((p) => p[0]),
        position: place ? 'none' : 'bottom',
        height: 42,
        label: xText,
        tickInterval: ticksOf(x.min, x.max, perX),
        valueFormatter: showX,
      }))}
      yAxis={[
        {
          id: 'y',
          ...y,
          width: 56,
          tickInterval: ticksOf(y.min, y.max, perY),
          valueFormatter: showY,
        },
      ]}
      sx={{
        '& .MuiLineElement-root': { strokeWidth: 2 },
        ...Object.fromEntries(
          lines.map((line, place) => [
            `& .MuiLineElement-series-line-${place}, & [data-series="line-${place}"]`,
            { strokeDasharray: line.dash, strokeWidth: line.width ?? 2 },
          ]),
        ),
      }}
    >
      <ChartsGrid horizontal />
      <LinePlot />
      <ChartsXAxis axisId="x-0" {...quiet} />
      <ChartsYAxis axisId="y" {...quiet} />
      <text x={4} y={12} {...TEXT} fill={inks.quiet}>
        {yText}
      </text>
      {levels.map((level) => (
        <ChartsReferenceLine
          key={level.text}
          y={level.y}
          label={level.text}
          labelAlign="end"
          lineStyle={{ stroke: level.colour, strokeWidth: 1.4, strokeDasharray: '7 4' }}
          labelStyle={{
            ...TEXT,
            fontWeight: 600,
            fill: level.colour,
            stroke: inks.sheet,
            strokeWidth: 3,
            paintOrder: 'stroke',
          }}
        />
      ))}
      <Dots dots={dots} />
      <ChartsTooltip trigger="axis" />
    </ChartsContainer>
  )
}

/** Single places with their words. */
function Dots({ dots }: { dots: NonNullable<PlotProps['dots']> }) {
  const { inks } = useTheme()
  const toX = useXScale<'linear'>('x-0')
  const toY = useYScale<'linear'>('y')
  return dots.map((dot, place) => {
    const [x, y] = [toX(dot.at[0]), toY(dot.at[1])]
    return (
      <g key={place} pointerEvents="none">
        <circle cx={x} cy={y} r={4.5} fill={dot.hollow ? inks.sheet : dot.colour} stroke={dot.colour} strokeWidth={2} />
        {dot.label && (
          <text
            x={x + 8}
            y={y - 6}
            {...TEXT}
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
    )
  })
}
