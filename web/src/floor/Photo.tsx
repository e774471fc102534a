import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { Picture } from '../api/model'

export const photoAddress = (job: number, id: string, small: boolean) =>
  `/api/jobs/numbered/${job}/photos/${id}${small ? '?small=1' : ''}`

/** How high a large photo may be, in hundredths of the screen. */
const MOST_VH = 66

/** A photo with what was drawn on it. */
export function Photo({ job, picture, small = false }: { job: number; picture: Picture; small?: boolean }) {
  const { inks } = useTheme()
  const { wide_px: wide, high_px: high } = picture
  return (
    <Box
      sx={{
        position: 'relative',
        ...(small
          ? { width: '100%', height: '100%' }
          : { width: `min(86vw, ${(MOST_VH * wide) / high}vh)`, aspectRatio: `${wide} / ${high}` }),
      }}
    >
      <img
        src={photoAddress(job, picture.id, small)}
        alt={picture.of.note || picture.of.subject || 'Photo'}
        style={{ width: '100%', height: '100%', objectFit: small ? 'cover' : 'contain', display: 'block' }}
      />
      <svg
        viewBox={`0 0 ${wide} ${high}`}
        preserveAspectRatio={small ? 'xMidYMid slice' : 'xMidYMid meet'}
        style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
        aria-hidden
      >
        {picture.of.strokes.map((stroke, n) => (
          <polyline
            key={n}
            points={stroke.map(([x = 0, y = 0]) => `${x * wide},${y * high}`).join(' ')}
            fill="none"
            stroke={inks.hand}
            strokeWidth={Math.max(wide, high) / 90}
            strokeLinecap="round"
            strokeLinejoin="round"
          />
        ))}
      </svg>
    </Box>
  )
}
