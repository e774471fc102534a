import { Alert, Box, Button, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import * as declared from '../api/declared'
import { api, asked, Failure, type Schemas } from '../api/client'
import { Choice, LengthField, QuantityField } from '../fields/fields'
import { useUnits } from '../units/useUnits'

type Strip = Schemas['TestStrip']
type Length = 'flat_mm' | 'leg_a_mm' | 'leg_b_mm' | 'thickness_mm' | 'radius_mm'

const FIELDS: { name: Length; label: string }[] = [
  { name: 'flat_mm', label: 'Strip, flat' },
  { name: 'leg_a_mm', label: 'One leg, outside' },
  { name: 'leg_b_mm', label: 'Other leg, outside' },
  { name: 'thickness_mm', label: 'Thickness' },
  { name: 'radius_mm', label: 'Inside radius' },
]
const EMPTY = {
  metal: declared.BoxShell.defaults.metal as Strip['metal'],
  flat_mm: null,
  leg_a_mm: null,
  leg_b_mm: null,
  thickness_mm: null,
  radius_mm: null,
  left_deg: 90,
  bent_to_deg: null,
} as { metal: Strip['metal'] } & Record<Length | 'left_deg' | 'bent_to_deg', number | null>

interface Props {
  strips: Strip[]
  disabled: boolean
  onChange: (strips: Strip[]) => void
}

/** Strips measured flat, bent once and measured again: K and springback of the shop's own tools. */
export function KStrip({ strips, disabled, onChange }: Props) {
  const [strip, setStrip] = useState(EMPTY)
  const { metal, bent_to_deg, left_deg, ...measured } = strip
  const whole = left_deg !== null && Object.values(measured).every((value) => value !== null)
  const k = useQuery({
    queryKey: ['k', measured, left_deg],
    enabled: whole,
    queryFn: () =>
      asked(
        api.POST('/api/workshop/k-from-strip', {
          body: { ...(measured as Record<Length, number>), angle_deg: left_deg ?? 90 },
        }),
      ),
    retry: false,
  })
  const set = (name: keyof typeof EMPTY) => (value: number | null) => setStrip({ ...strip, [name]: value })
  const keep = () => {
    onChange([...strips, { metal, bent_to_deg, left_deg, ...measured } as Strip])
    setStrip(EMPTY)
  }
  return (
    <Box sx={{ mt: 2.5 }}>
      <Typography variant="h3" sx={{ mb: 1.5 }}>
        Strips bent on your own tools
      </Typography>
      <Kept strips={strips} disabled={disabled} onChange={onChange} />
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr 1fr', md: 'repeat(4, 1fr)' }, gap: 2 }}>
        <Choice
          label="Metal of the strip"
          value={metal}
          options={declared.TestStrip.choices.metal}
          onChange={(next) => setStrip({ ...strip, metal: next })}
        />
        {FIELDS.map(({ name, label }) => (
          <LengthField key={name} label={label} value={strip[name]} onCommit={set(name)} />
        ))}
        <QuantityField label="Bend" of="deg" value={left_deg} onCommit={set('left_deg')} />
        <QuantityField
          label="Bent to, on the machine"
          of="deg"
          value={bent_to_deg}
          emptyText="not read"
          onCommit={set('bent_to_deg')}
        />
      </Box>
      <Box role="status" sx={{ mt: 1.5 }}>
        {k.data && (
          <Alert
            severity={k.data.usable ? 'success' : 'warning'}
            icon={false}
            action={
              k.data.usable && !disabled ? (
                <Button color="inherit" onClick={keep}>
                  Keep this strip
                </Button>
              ) : undefined
            }
          >
            K = {k.data.k.toFixed(3)}.{' '}
            {k.data.usable
              ? 'Kept, it comes before the table for this metal and thickness; the angle it was bent to says how far to overbend.'
              : 'That can’t be: K lies between 0.2 and 0.5. Measure the strip again.'}
          </Alert>
        )}
        {k.error && <Alert severity="error">{k.error instanceof Failure ? k.error.message : 'No answer.'}</Alert>}
        {!whole && (
          <Typography variant="body2" color="textSecondary">
            Cut a strip, measure it, bend it once, measure both legs to where the outer faces would meet.
          </Typography>
        )}
      </Box>
    </Box>
  )
}

function Kept({ strips, disabled, onChange }: Props) {
  const units = useUnits()
  if (!strips.length) return null
  return (
    <Table size="small" aria-label="Strips" sx={{ mb: 2 }}>
      <TableHead>
        <TableRow>
          <TableCell>Metal</TableCell>
          <TableCell align="right">Thickness, {units.lengthUnit}</TableCell>
          <TableCell align="right">Radius</TableCell>
          <TableCell align="right">Bent to, left</TableCell>
          <TableCell />
        </TableRow>
      </TableHead>
      <TableBody>
        {strips.map((strip, place) => (
          <TableRow key={place}>
            <TableCell>{strip.metal}</TableCell>
            <TableCell align="right">{units.editLength(strip.thickness_mm)}</TableCell>
            <TableCell align="right">{units.editLength(strip.radius_mm)}</TableCell>
            <TableCell align="right">
              {strip.bent_to_deg ? `${units.number(strip.bent_to_deg, 1)}°, ` : ''}
              {units.number(strip.left_deg ?? 90, 1)}°
            </TableCell>
            <TableCell align="right">
              <Button
                disabled={disabled}
                onClick={() => onChange(strips.filter((_, n) => n !== place))}
                aria-label={`Remove the strip of ${strip.metal} ${units.editLength(strip.thickness_mm)}`}
              >
                Remove
              </Button>
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  )
}
