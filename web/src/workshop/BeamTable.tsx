import { Box, Button, Typography } from '@mui/material'
import * as declared from '../api/declared'
import type { Fault, Schemas } from '../api/client'
import { LengthField } from '../fields/fields'
import { Folded } from '../stations/Folded'

type Corner = Schemas['BeamCorner']

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
      <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
        {corners.map((corner, place) => (
          <Box key={place} sx={{ display: 'grid', gridTemplateColumns: '130px 130px max-content', gap: 1 }}>
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
