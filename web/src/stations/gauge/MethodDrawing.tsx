import { useTheme } from '@mui/material/styles'
import type { SenderReading } from '../../api/model'
import { useUnits } from '../../units/useUnits'

type Method = SenderReading['methods'][number]

/** One way of fitting the arm, to scale: floor and roof, the pivot, the float at E and at F. */
export function MethodDrawing({ way, depth, float }: { way: Method; depth: number; float: number }) {
  const { inks } = useTheme()
  const units = useUnits()
  const out = (height: number) => Math.sqrt(Math.max(0, way.arm_mm ** 2 - (height - way.pivot_mm) ** 2))
  const low = Math.min(0, way.empty_mm - float / 2)
  const high = Math.max(depth, way.full_mm + float / 2, way.pivot_mm)
  const scale = 120 / (high - low)
  const y = (height: number) => 10 + (high - height) * scale
  const x = (along: number) => 20 + along * scale
  const wide = x(way.arm_mm + float) + 20
  const colour = way.fits ? inks.ink : inks.stop
  return (
    <figure style={{ margin: 0 }}>
      <svg
        viewBox={`0 0 ${wide} 140`}
        height={140}
        role="img"
        aria-label={`${way.name}: float from ${units.lengthUnitText(way.empty_mm)} to ${units.lengthUnitText(way.full_mm)} in ${units.lengthUnitText(depth)}`}
      >
        <rect
          x={4}
          y={y(depth)}
          width={wide - 8}
          height={depth * scale}
          fill={inks.fuelFill}
          fillOpacity={0.45}
          stroke={inks.metal}
          strokeWidth={1.5}
        />
        {[way.empty_mm, way.full_mm].map((height, full) => (
          <g key={full}>
            <path d={`M${x(0)} ${y(way.pivot_mm)}L${x(out(height))} ${y(height)}`} stroke={colour} strokeWidth={1.6} />
            <circle
              cx={x(out(height))}
              cy={y(height)}
              r={Math.max(3, (float / 2) * scale)}
              fill={inks.sheet}
              stroke={colour}
              strokeWidth={1.4}
            />
            <text x={x(out(height))} y={y(height) + 4} textAnchor="middle" fontSize={11} fontWeight={700} fill={colour}>
              {full ? 'F' : 'E'}
            </text>
          </g>
        ))}
        <circle cx={x(0)} cy={y(way.pivot_mm)} r={3.5} fill={colour} />
      </svg>
      <figcaption style={{ fontSize: 12, maxWidth: 180, color: inks.quiet }}>{way.name}</figcaption>
    </figure>
  )
}
