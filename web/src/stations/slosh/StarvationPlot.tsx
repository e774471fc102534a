import { useTheme } from '@mui/material/styles'
import type { StarvationMap } from '../../api/model'
import { useUnits } from '../../units/useUnits'

const SHOWN = [0.1, 0.2, 0.3, 0.5, 0.75]
const RADIUS = 120

/** How hard a steady push has to be to uncover the pickup, all round, for a few fills. */
export function StarvationPlot({ map, fill }: { map: StarvationMap; fill: number }) {
  const { inks } = useTheme()
  const units = useUnits()
  const column = (share: number) => Math.round(share * (map.fills.length - 1))
  const lines = [
    ...SHOWN.filter((share) => Math.abs(share - fill) > 0.04).map((share) => ({ share, own: false })),
    { share: fill, own: true },
  ]
  const known = lines.flatMap(({ share }) => map.g.map((row) => row[column(share)] ?? 0))
  const most = Math.min(map.most_g, Math.max(1, Math.ceil(Math.max(...known) * 2) / 2))
  const rings = [1, 2, 3].map((n) => (most * n) / 3)
  const at = (deg: number, g: number) => {
    const angle = (deg * Math.PI) / 180
    const out = (Math.min(g, most) / most) * RADIUS
    return [-Math.sin(angle) * out, -Math.cos(angle) * out] as const
  }
  const text = { fontSize: 11, fill: inks.quiet, textAnchor: 'middle' as const }
  return (
    <svg
      viewBox="-200 -156 400 306"
      width="100%"
      style={{ maxWidth: 520, display: 'block' }}
      role="img"
      aria-label="Steady acceleration that uncovers the pickup, by direction and fill"
    >
      {rings.map((g) => (
        <g key={g}>
          <circle r={(g / most) * RADIUS} fill="none" stroke={inks.line} />
          <text x={3} y={-(g / most) * RADIUS + 12} fontSize={10.5} fill={inks.quiet}>
            {units.number(g, g % 1 ? 1 : 0)} g
          </text>
        </g>
      ))}
      <text y={-132} {...text}>
        accelerating
      </text>
      <text y={142} {...text}>
        braking
      </text>
      <text x={-128} y={4} {...text} textAnchor="end">
        cornering left
      </text>
      <text x={128} y={4} {...text} textAnchor="start">
        cornering right
      </text>
      <text y={-RADIUS - 26} {...text} fontSize={10}>
        {most < map.most_g ? '' : `Looked at up to ${units.number(map.most_g, 1)} g (house rule)`}
      </text>
      {lines.map(({ share, own }) => {
        const places = map.directions_deg.map((deg, d) => at(deg, map.g[d]?.[column(share)] ?? most))
        const label = places[8] ?? [0, 0]
        return (
          <g key={`${share}${own}`}>
            <path
              d={`M${places.map((p) => p.map((v) => v.toFixed(1)).join(' ')).join('L')}z`}
              fill={own ? inks.handFill : 'none'}
              fillOpacity={0.35}
              stroke={own ? inks.hand : inks.fuel}
              strokeWidth={own ? 2.4 : 1.2}
              strokeOpacity={own ? 1 : 0.4 + share * 0.6}
            />
            <text
              x={label[0] - 4}
              y={label[1]}
              fontSize={10.5}
              fontWeight={own ? 700 : 500}
              fill={own ? inks.hand : inks.fuelText}
              textAnchor="end"
              stroke={inks.sheet}
              strokeWidth={3}
              paintOrder="stroke"
            >
              {units.number(share * 100, 0)} %
            </text>
          </g>
        )
      })}
    </svg>
  )
}
