import { Box, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { WayIn } from '../../api/model'

type Frame = WayIn['frames'][number]
type Outline = WayIn['pieces'][number]
/** By the axis that the tank tilts about, along which it is seen. */
const VIEWS = {
  x: 'From the front: right of the bay on the left',
  y: 'From the right: front on the right',
  z: 'From above: front on the right',
} as const
const MARGIN = 40
/** How far round the way's own bounds is drawn [share of it]. */
const AIR = 0.06
const FAR = 15_000

const pathOf = (ring: number[]) =>
  `M${Array.from({ length: ring.length / 2 }, (_, n) => `${ring[2 * n]} ${ring[2 * n + 1]}`).join('L')}z`

/** What passes and what stands, seen along the axis that the tank tilts about. */
export function WayInDrawing({ way, frame, tightest }: { way: WayIn; frame: Frame | undefined; tightest: boolean }) {
  const { inks } = useTheme()
  const box = boundsOf(way)
  const wide = box.high[0] - box.low[0]
  const tall = box.high[1] - box.low[1]
  const pen = Math.max(wide, tall) / 600
  const place = (one: Frame) => ({ x: one[`${way.across}_mm` as 'x_mm'], y: one[`${way.up}_mm` as 'x_mm'] })
  const moved = (one: Frame) => {
    const { x, y } = place(one)
    // About y a turn to the right of x runs from z to x: on paper the other way round.
    const angle = way.tilts_about === 'y' ? -one.angle_deg : one.angle_deg
    return `translate(${x} ${y}) rotate(${angle} ${middleOf(way).join(' ')})`
  }
  const met = (one: Outline, name: string) => tightest && one.name === name
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {VIEWS[way.tilts_about as keyof typeof VIEWS]}
      </Typography>
      <svg
        role="img"
        aria-label={`The way in. ${VIEWS[way.tilts_about as keyof typeof VIEWS]}`}
        width="100%"
        viewBox={`${box.low[0]} ${-box.high[1]} ${wide} ${tall}`}
        preserveAspectRatio="xMidYMid meet"
        style={{ background: inks.sheet, flex: 1, minHeight: 0 }}
      >
        <defs>
          <pattern
            id="stands"
            width={8 * pen}
            height={8 * pen}
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <path d={`M0 0V${8 * pen}`} stroke={inks.quiet} strokeWidth={1.2 * pen} />
          </pattern>
        </defs>
        <g transform="scale(1 -1)">
          {way.stands.map((one, n) => (
            <path
              key={n}
              d={pathOf(one.ring)}
              fill={met(one, way.fixed) ? inks.stop : 'url(#stands)'}
              fillOpacity={met(one, way.fixed) ? 0.35 : 0.6}
              stroke={met(one, way.fixed) ? inks.stop : inks.quiet}
              strokeWidth={1.2 * pen}
            />
          ))}
          {way.frames
            .filter((_, n) => n % Math.max(1, Math.floor(way.frames.length / 7)) === 0)
            .map((one, n) => (
              <g key={n} transform={moved(one)} opacity={0.18}>
                {way.pieces.map((piece, m) => (
                  <path key={m} d={pathOf(piece.ring)} fill="none" stroke={inks.metal} strokeWidth={pen} />
                ))}
              </g>
            ))}
          {frame && (
            <g transform={moved(frame)} data-frame>
              {way.pieces.map((piece, n) => (
                <path
                  key={n}
                  d={pathOf(piece.ring)}
                  fill={inks.metalFill}
                  fillOpacity={0.85}
                  stroke={met(piece, way.moving) ? inks.stop : inks.metal}
                  strokeWidth={(met(piece, way.moving) ? 3 : 1.6) * pen}
                />
              ))}
            </g>
          )}
        </g>
      </svg>
    </Box>
  )
}

const middleOf = ({ middle: [across = 0, up = 0] }: WayIn): [number, number] => [across, up]

/** All that the tank passes through, with some air. */
function boundsOf(way: WayIn): { low: [number, number]; high: [number, number] } {
  const rings = way.pieces.map((piece) => piece.ring)
  const us = rings.flatMap((ring) => ring.filter((_, n) => n % 2 === 0))
  const vs = rings.flatMap((ring) => ring.filter((_, n) => n % 2 === 1))
  const middle = middleOf(way)
  const radius = Math.hypot(Math.max(...us) - Math.min(...us), Math.max(...vs) - Math.min(...vs)) / 2
  const low: [number, number] = [FAR, FAR]
  const high: [number, number] = [-FAR, -FAR]
  for (const frame of way.frames) {
    const at = [frame[`${way.across}_mm` as 'x_mm'] + middle[0], frame[`${way.up}_mm` as 'x_mm'] + middle[1]]
    for (const axis of [0, 1] as const) {
      low[axis] = Math.min(low[axis], (at[axis] ?? 0) - radius)
      high[axis] = Math.max(high[axis], (at[axis] ?? 0) + radius)
    }
  }
  const air = AIR * Math.max(high[0] - low[0], high[1] - low[1]) + MARGIN
  return { low: [low[0] - air, low[1] - air], high: [high[0] + air, high[1] + air] }
}
