import { Box, Button, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { Schemas } from '../../api/client'
import { changeFeature } from '../../drawing/edits'
import { Choice, LengthField, NumberField } from '../../fields/fields'
import { useWork } from '../../work/store'
import { pair } from '../Row'

type Baffle = Schemas['Baffle']
type Kind = 'notches' | 'holes' | 'doors'

const NAMES: Record<Kind, string> = { notches: 'Notch in its foot', holes: 'Row of holes', doors: 'Door' }
const LENGTHS: Record<Kind, [string, string][]> = {
  notches: [
    ['at_mm', 'Middle along it'],
    ['wide_mm', 'Wide'],
    ['high_mm', 'High'],
  ],
  holes: [
    ['at_mm', 'First, along it'],
    ['up_mm', 'Middles up'],
    ['diameter_mm', 'Diameter'],
    ['pitch_mm', 'Apart'],
  ],
  doors: [
    ['at_mm', 'Middle along it'],
    ['up_mm', 'Sill above floor'],
    ['wide_mm', 'Wide'],
    ['high_mm', 'High'],
    ['crack_mm', 'Opens at a head of'],
  ],
}

/** Notches, rows of holes and doors of a baffle: what lets fuel through, and which way. */
export function BaffleOpenings({ baffle, place, readOnly }: { baffle: Baffle; place: number; readOnly: boolean }) {
  const body = useWork((work) => work.evaluation?.shell?.geometry?.body)
  const long = body ? (baffle.axis === 'x' ? body.high.y - body.low.y : body.high.x - body.low.x) : 400
  const pickup = useWork((work) => work.design.ports.find((port) => port.role === 'pickup'))
  const opposite = pickup ? (baffle.axis === 'x' ? pickup.y_mm : pickup.x_mm) : long / 2
  const middle = Math.round(Math.min(Math.max(opposite, long * 0.1), long * 0.9))
  const fresh = {
    notches: { at_mm: middle, wide_mm: 60, high_mm: 25 },
    holes: {
      ...declared.Holes.defaults,
      at_mm: Math.round(long / 4),
      up_mm: 80,
      diameter_mm: 40,
      count: 3,
      pitch_mm: Math.round(long / 4),
    },
    doors: { ...declared.Door.defaults, at_mm: middle, wide_mm: 80, high_mm: 50 },
  }
  const set = (kind: Kind, items: unknown[]) => changeFeature(baffle.id, { [kind]: items })
  return (
    <>
      {(Object.keys(NAMES) as Kind[]).map((kind) =>
        baffle[kind].map((item, n) => {
          const path = `shell.features.${place}.${kind}.${n}`
          const change = (part: Record<string, unknown>) =>
            set(
              kind,
              baffle[kind].map((other, here) => (here === n ? { ...other, ...part } : other)),
            )
          return (
            <Box key={path} sx={{ display: 'grid', gap: 1.25 }}>
              <Typography variant="body2" sx={{ fontWeight: 650 }}>
                {NAMES[kind]} {n + 1}
              </Typography>
              <Box sx={pair}>
                {LENGTHS[kind].map(([field, label]) => (
                  <LengthField
                    key={field}
                    label={label}
                    value={(item as unknown as Record<string, number>)[field] ?? 0}
                    path={`${path}.${field}`}
                    disabled={readOnly}
                    onCommit={(mm) => mm !== null && change({ [field]: mm })}
                  />
                ))}
                {'count' in item && (
                  <NumberField
                    label="Number"
                    value={item.count}
                    path={`${path}.count`}
                    disabled={readOnly}
                    onCommit={(count) => count !== null && change({ count })}
                  />
                )}
              </Box>
              {'opens' in item && (
                <Choice
                  label="Opening direction"
                  value={item.opens}
                  options={[
                    { value: 'ahead', label: baffle.axis === 'x' ? 'towards the front' : 'to the left' },
                    { value: 'back', label: baffle.axis === 'x' ? 'towards the rear' : 'to the right' },
                  ]}
                  disabled={readOnly}
                  onChange={(opens) => change({ opens })}
                />
              )}
              <Button
                disabled={readOnly}
                onClick={() =>
                  set(
                    kind,
                    baffle[kind].filter((_, here) => here !== n),
                  )
                }
              >
                Remove {NAMES[kind].toLowerCase()} {n + 1}
              </Button>
            </Box>
          )
        }),
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        {(Object.keys(NAMES) as Kind[]).map((kind) => (
          <Button
            key={kind}
            variant="outlined"
            disabled={readOnly || baffle[kind].length >= declared.Baffle.most[kind]}
            onClick={() => set(kind, [...baffle[kind], fresh[kind]])}
          >
            Add: {NAMES[kind].toLowerCase()}
          </Button>
        ))}
      </Box>
    </>
  )
}
