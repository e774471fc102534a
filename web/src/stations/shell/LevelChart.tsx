import { useTheme } from '@mui/material/styles'
import type { Fill } from '../../api/model'
import { useUnits } from '../../units/useUnits'

const [WIDTH, HEIGHT, LEFT, FOOT] = [300, 116, 40, 20]

/** Level against litres in the attitude shown, with the point it is at; a line a cell. */
export function LevelChart({ fill }: { fill: Fill }) {
  const { inks } = useTheme()
  const units = useUnits()
  const depth = Math.max(...fill.cells.map((cell) => cell.depth_mm))
  const most = Math.max(...fill.cells.map((cell) => cell.curve[cell.curve.length - 1]?.volume_l ?? 0), 1e-9)
  const x = (litres: number) => LEFT + (litres / most) * (WIDTH - LEFT - 8)
  const y = (mm: number) => HEIGHT - FOOT - (mm / depth) * (HEIGHT - FOOT - 8)
  const text = { fontSize: 11, fill: inks.quiet }
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width="100%"
      role="img"
      aria-label={`Level against ${units.volumeUnit}: ${fill.cells.map((cell) => `${cell.cell} ${units.volumeUnitText(cell.volume_l)} at ${units.lengthUnitText(cell.level_mm)}`).join(', ')}`}
    >
      <path d={`M${LEFT} 8V${HEIGHT - FOOT}H${WIDTH - 8}`} fill="none" stroke={inks.line} />
      <text x={LEFT - 4} y={14} textAnchor="end" {...text}>
        {units.length(depth)}
      </text>
      <text x={LEFT - 4} y={HEIGHT - FOOT} textAnchor="end" {...text}>
        0
      </text>
      <text x={WIDTH - 8} y={HEIGHT - 5} textAnchor="end" {...text}>
        {units.volumeUnitText(most, 1)}
      </text>
      <text x={LEFT} y={HEIGHT - 5} {...text}>
        level, {units.lengthUnit}, against {units.volumeUnit}
      </text>
      {fill.cells.map((cell, place) => (
        <g key={cell.cell}>
          <path
            d={`M${cell.curve.map((row) => `${x(row.volume_l).toFixed(1)},${y(row.level_mm).toFixed(1)}`).join('L')}`}
            fill="none"
            stroke={inks.fuel}
            strokeWidth={1.8}
            strokeDasharray={place ? '6 3' : undefined}
          />
          <path
            d={`M${LEFT} ${y(cell.level_mm)}H${x(cell.volume_l)}V${HEIGHT - FOOT}`}
            fill="none"
            stroke={inks.fuelText}
            strokeDasharray="2 3"
          />
          <circle
            cx={x(cell.volume_l)}
            cy={y(cell.level_mm)}
            r={4.5}
            fill={inks.sheet}
            stroke={inks.fuelText}
            strokeWidth={2}
          />
        </g>
      ))}
    </svg>
  )
}
