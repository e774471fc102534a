import { useTheme } from '@mui/material/styles'
import type { SenderReading } from '../../api/model'
import { useUnits } from '../../units/useUnits'

const SPAN = 140
/** Where a share of the needle's travel points, from the dial's middle. */
function spoke(needle: number, radius: number): [number, number] {
  const angle = ((90 + SPAN / 2 - needle * SPAN) * Math.PI) / 180
  return [150 + radius * Math.cos(angle), 168 - radius * Math.sin(angle)]
}

const EIGHTHS = ['E', '', '¼', '', '½', '', '¾', '', 'F']

/** The needle's eighths outside, the litres that are truly there inside, and the needle for the fuel shown. */
export function Dial({ reading, held }: { reading: SenderReading; held: number | null }) {
  const { inks } = useTheme()
  const units = useUnits()
  const needle = held === null ? null : needleFor(reading, held)
  const text = { textAnchor: 'middle' as const, fontSize: 12, fill: inks.ink }
  return (
    <svg
      viewBox="0 0 300 200"
      width="100%"
      style={{ maxWidth: 380 }}
      role="img"
      aria-label={`Dial of ${reading.name}${needle === null ? '' : `: the needle stands at ${units.number(needle * 8, 1)} eighths`}`}
    >
      <path
        d={`M${spoke(0, 128).join(' ')}A128 128 0 0 1 ${spoke(1, 128).join(' ')}`}
        fill="none"
        stroke={inks.metal}
        strokeWidth={2}
      />
      {reading.eighths.map((mark, place) => {
        const [a, b] = [spoke(mark.needle, 128), spoke(mark.needle, place % 2 ? 120 : 114)]
        const [u, v] = spoke(mark.needle, 141)
        const [p, q] = spoke(mark.needle, 97)
        return (
          <g key={mark.needle}>
            <path d={`M${a.join(' ')}L${b.join(' ')}`} stroke={inks.metal} strokeWidth={place % 2 ? 1.2 : 2.4} />
            <text x={u} y={v + 4} {...text} fontWeight={700}>
              {EIGHTHS[place]}
            </text>
            <text x={p} y={q + 4} {...text} fontSize={11} fill={inks.fuelText}>
              {units.volume(mark.litres, 1)}
            </text>
          </g>
        )
      })}
      {needle !== null && (
        <>
          <path
            d={`M150 168L${spoke(needle, 72).join(' ')}`}
            stroke={inks.hand}
            strokeWidth={3}
            strokeLinecap="round"
          />
          <circle cx={150} cy={168} r={7} fill={inks.hand} />
          <text x={150} y={194} {...text}>
            with {units.volumeUnitText(held ?? 0, 1)} in it, as shown
          </text>
        </>
      )}
    </svg>
  )
}

/** Straight between the core's true tenths and eighths: for the picture only. */
function needleFor(reading: SenderReading, litres: number): number {
  const known = [...reading.tenths, ...reading.eighths].sort((a, b) => a.litres - b.litres)
  const above = known.findIndex((mark) => mark.litres >= litres)
  if (above < 0) return known.at(-1)?.needle ?? 1
  const [a, b] = [known[Math.max(0, above - 1)], known[above]]
  if (!a || !b || a === b) return b?.needle ?? 0
  return a.needle + ((b.needle - a.needle) * (litres - a.litres)) / (b.litres - a.litres)
}
