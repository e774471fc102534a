import { useTheme } from '@mui/material/styles'
import { useUnits } from '../units/useUnits'
import { spread } from './flats'

const LABEL_ROOM = 56
/** Closer than this figures side by side touch [px]. */
export const LEAST_ROOM = 44
/** How far left of the part its figures may stand [px]. */
export const ASIDE = 70
export const LINE_ROOM = 15

/** Distances from the datum edge, each with a tick of its own. */
export function Ordinates({
  along,
  zero,
  px,
  at,
  foot,
  end,
}: {
  along: number[]
  zero: number
  px: (mm: number) => number
  at: number
  foot: number
  /** So far to the right there is room for labels. */
  end: number
}) {
  const { inks } = useTheme()
  const units = useUnits()
  const all = [0, ...along]
  const room = Math.max(LEAST_ROOM, Math.min(LABEL_ROOM, (end - zero + ASIDE) / all.length))
  const labels = spread(all.map(px), room, end)
  return (
    <g>
      <line x1={zero} x2={px(Math.max(...along))} y1={at - 10} y2={at - 10} stroke={inks.quiet} strokeWidth={0.8} />
      {all.map((mm, place) => (
        <g key={mm}>
          <polyline
            points={`${px(mm)},${foot + 3} ${px(mm)},${at - 6} ${labels[place]},${at + 2}`}
            fill="none"
            stroke={inks.quiet}
            strokeWidth={0.8}
          />
          <text x={labels[place]} y={at + 15} fontSize={12} fontWeight={600} textAnchor="middle" fill={inks.ink}>
            <title>{units.exact(mm)}</title>
            {units.length(mm)}
          </text>
        </g>
      ))}
    </g>
  )
}

/** The same up the left side. */
export function Uprights({
  along,
  py,
  at,
  foot,
}: {
  along: number[]
  py: (mm: number) => number
  at: number
  foot: number
}) {
  const { inks } = useTheme()
  const units = useUnits()
  const labels = spread(
    along.map((mm) => -py(mm)),
    LINE_ROOM,
  ).map((up) => -up)
  return (
    <g>
      {along.map((mm, place) => (
        <g key={mm}>
          <polyline
            points={`${foot - 3},${py(mm)} ${at},${py(mm)} ${at - 8},${labels[place]}`}
            fill="none"
            stroke={inks.quiet}
            strokeWidth={0.8}
          />
          <text
            x={at - 12}
            y={(labels[place] ?? 0) + 4}
            fontSize={12}
            fontWeight={600}
            textAnchor="end"
            fill={inks.ink}
          >
            <title>{units.exact(mm)}</title>
            {units.length(mm)}
          </text>
        </g>
      ))}
    </g>
  )
}
