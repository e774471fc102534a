import { Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import * as declared from '../api/declared'
import type { Fault, Schemas } from '../api/client'
import { LengthField } from '../fields/fields'
import { Folded } from '../stations/Folded'

type Corner = Schemas['BeamCorner']

const PICTURE = 150
/** Where a measured outline starts: its nose, up its face, over and down its back. */
const FIRST: Corner[] = [
  { across_mm: 0, up_mm: 0 },
  { across_mm: -30, up_mm: 100 },
  { across_mm: -100, up_mm: 0 },
]

interface Props {
  what: 'Clamping beam' | 'Punch'
  corners: readonly Corner[]
  disabled: boolean
  fault: Fault | undefined
  onChange: (corners: Corner[]) => void
}

/** A beam or punch seen from its end, corner by corner; without it the usual shape is taken, as large as the smallest closed box says. */
export function BeamTable({ what, corners, disabled, fault, onChange }: Props) {
  const set = (place: number, part: Partial<Corner>) =>
    onChange(corners.map((one, n) => (n === place ? { ...one, ...part } : one)))
  return (
    <Folded title={`${what} as measured`} open={corners.length > 0}>
      <Typography variant="body2" color="textSecondary">
        Seen from its end, from the nose round to it: across towards the sheet you clamp below 0, up from the sheet.
        Left empty it has the usual shape, as large as the smallest closed box says.
      </Typography>
      <Box sx={{ display: 'flex', gap: 3, flexWrap: 'wrap' }}>
        {corners.length > 0 && <Picture corners={corners} />}
        <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
          {corners.map((corner, place) => (
            <Box key={place} sx={{ display: 'grid', gridTemplateColumns: '130px 130px auto', gap: 1 }}>
              <LengthField
                label={`Corner ${place + 1}, across`}
                value={corner.across_mm}
                disabled={disabled}
                onCommit={(mm) => mm !== null && set(place, { across_mm: mm })}
              />
              <LengthField
                label="Up"
                value={corner.up_mm}
                disabled={disabled}
                onCommit={(mm) => mm !== null && set(place, { up_mm: mm })}
              />
              {!disabled && (
                <Button
                  aria-label={`Remove corner ${place + 1}`}
                  onClick={() => onChange(corners.filter((_, n) => n !== place))}
                >
                  Remove
                </Button>
              )}
            </Box>
          ))}
          {fault && (
            <Typography variant="body2" color="error">
              {fault.message}
            </Typography>
          )}
        </Box>
      </Box>
      {!disabled && (
        <Box sx={{ display: 'flex', gap: 1.5 }}>
          {corners.length < declared.Brake.most.beam && (
            <Button variant="outlined" onClick={() => onChange(corners.length ? [...corners, next(corners)] : FIRST)}>
              {corners.length ? 'Add a corner' : 'Type its corners'}
            </Button>
          )}
          {corners.length > 0 && <Button onClick={() => onChange([])}>Take the usual shape</Button>}
        </Box>
      )}
    </Folded>
  )
}

/** A fresh corner, half way back to the nose. */
function next(corners: readonly Corner[]): Corner {
  const last = corners[corners.length - 1] ?? { across_mm: 0, up_mm: 0 }
  return { across_mm: last.across_mm / 2, up_mm: last.up_mm / 2 }
}

function Picture({ corners }: { corners: readonly Corner[] }) {
  const { inks } = useTheme()
  const xs = [0, ...corners.map(({ across_mm }) => across_mm)]
  const ys = [0, ...corners.map(({ up_mm }) => up_mm)]
  const [left, low] = [Math.min(...xs), Math.min(...ys)]
  const scale = (PICTURE - 16) / Math.max(Math.max(...xs) - left, Math.max(...ys) - low, 1)
  const at = (x: number, y: number) => `${8 + (x - left) * scale},${PICTURE - 8 - (y - low) * scale}`
  return (
    <svg width={PICTURE} height={PICTURE} role="img" aria-label="Outline of the beam over the sheet">
      <polygon
        points={corners.map(({ across_mm, up_mm }) => at(across_mm, up_mm)).join(' ')}
        fill={inks.blockFill}
        stroke={inks.block}
      />
      <polyline
        points={`0,${at(0, 0).split(',')[1]} ${PICTURE},${at(0, 0).split(',')[1]}`}
        stroke={inks.hand}
        strokeWidth={2}
      />
    </svg>
  )
}
