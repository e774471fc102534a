import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { WalkSeam } from '../../api/model'
import { placeAlong } from './proof'

interface Props {
  seams: readonly WalkSeam[]
  at: WalkSeam
  along: number
  walked: ReadonlySet<string>
}

type Spot = { x: number; y: number; z: number }

/** Seen from the rear right and above: forward runs up to the right, left runs up to the left. */
const onPaper = ({ x, y, z }: Spot) => [0.87 * x - 0.87 * y, -z - 0.4 * x - 0.4 * y] as const
const ROOM = 0.06

/** Where on the tank a seam runs: all of them as lines, the one at hand strong, the finger on it. */
export function SeamSketch({ seams, at, along, walked }: Props) {
  const { inks } = useTheme()
  const spots = seams.flatMap((seam) => seam.lines.flat()).map(onPaper)
  const [us, vs] = [spots.map(([u]) => u), spots.map(([, v]) => v)]
  const [left, top] = [Math.min(...us), Math.min(...vs)]
  const [wide, high] = [Math.max(...us) - left, Math.max(...vs) - top]
  const room = ROOM * Math.max(wide, high)
  const unit = Math.max(wide, high) / 100
  const finger = onPaper(placeAlong(at, along))
  const drawn = (seam: WalkSeam) => seam.lines.map((line) => line.map(onPaper).join(' '))
  const rest = seams.filter((seam) => seam !== at)
  return (
    <Box
      component="svg"
      role="img"
      aria-label={`Where the ${at.name} runs, seen from the rear right and above`}
      viewBox={`${left - room} ${top - room} ${wide + 2 * room} ${high + 2 * room}`}
      sx={{ width: '100%', maxHeight: 190, background: inks.sheet }}
      data-sketch={at.id}
    >
      {rest.map((seam) =>
        drawn(seam).map((points, n) => (
          <polyline
            key={`${seam.id} ${n}`}
            points={points}
            fill="none"
            stroke={walked.has(seam.id) ? inks.good : inks.quiet}
            strokeWidth={0.7 * unit}
          />
        )),
      )}
      {drawn(at).map((points, n) => (
        <polyline key={n} points={points} fill="none" stroke={inks.hand} strokeWidth={2 * unit} />
      ))}
      {at.spots.map((spot, n) => {
        const [u, v] = onPaper(spot.place)
        return <circle key={n} cx={u} cy={v} r={1.7 * unit} fill={inks.caution} />
      })}
      <circle cx={finger[0]} cy={finger[1]} r={2.6 * unit} fill={inks.sheet} stroke={inks.hand} strokeWidth={unit} />
    </Box>
  )
}
