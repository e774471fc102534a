import { useTheme } from '@mui/material/styles'
import type { StarvationMap } from '../../api/model'
import { useUnits } from '../../units/useUnits'

const SHOWN = [0.1, 0.2, 0.3, 0.5, 0.75]
const MOST = 1.5
const RADIUS = 120

/** How hard a steady push has to be to uncover the pickup, all round, for a few fills. */
export function StarvationPlot({ map, fill }: { map: StarvationMap; fill: number }) {
  const { inks } = useTheme()
  const units = useUnits()
  const column = (share: number) => Math.round(share * (map.fills.length - 1))
  const lines = [...SHOWN.filter((share) => Math.abs(share - fill) > 0.04).map((share) => ({ share, own: false })), { share: fill, own: true }]
  const at = (deg: number, g: number) => {
    const angle = (deg * Math.PI) / 180
    const out = (Math.min(g, MOST) / MOST) * RADIUS
    return [-Math.sin(angle) * out, -Math.cos(angle) * out] as const
  }
  const text = { fontSize: 11, fill: inks.quiet, textAnchor: 'middle' as const }
  return (
    <svg viewBox="-190 -150 380 300" width="100%" style={{ maxWidth: 520, display: 'block' }} role="img" aria-label="Steady push that uncovers the pickup, by direction and fill">
      {[0.5, 1, 1.5].map((g) => (
        <g key={g}>
          <circle r={(g / MOST) * RADIUS} fill="none" stroke={inks.line} />
          <text x={3} y={-(g / MOST) * RADIUS + 12} fontSize={10.5} fill={inks.quiet}>
            {g} g
          </text>
        </g>
      ))}
      <text y={-132} {...text}>gathering speed</text>
      <text y={142} {...text}>braking</text>
      <text x={-128} y={4} {...text} textAnchor="end">turning left</text>
      <text x={128} y={4} {...text} textAnchor="start">turning right</text>
      {lines.map(({ share, own }) => {
        const places = map.directions_deg.map((deg, d) => at(deg, map.g[d]?.[column(share)] ?? MOST))
        const label = places[8] ?? [0, 0]
        return (
          <g key={`${share}${own}`}>
            <path d={`M${places.map((p) => p.map((v) => v.toFixed(1)).join(' ')).join('L')}z`} fill={own ? inks.handFill : 'none'} fillOpacity={0.35} stroke={own ? inks.hand : inks.fuel} strokeWidth={own ? 2.4 : 1.2} strokeOpacity={own ? 1 : 0.4 + share * 0.6} />
            <text x={label[0] - 4} y={label[1]} fontSize={10.5} fontWeight={own ? 700 : 500} fill={own ? inks.hand : inks.fuelText} textAnchor="end" stroke={inks.sheet} strokeWidth={3} paintOrder="stroke">
              {units.number(share * 100, 0)} %
            </text>
          </g>
        )
      })}
    </svg>
  )
}
