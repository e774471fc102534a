import { Alert, Box, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, asked, Failure } from '../api/client'
import { LengthField, QuantityField } from '../fields/fields'

type Field = 'flat_mm' | 'leg_a_mm' | 'leg_b_mm' | 'thickness_mm' | 'radius_mm' | 'angle_deg'

const FIELDS: { name: Exclude<Field, 'angle_deg'>; label: string }[] = [
  { name: 'flat_mm', label: 'Strip, flat' },
  { name: 'leg_a_mm', label: 'One leg, outside' },
  { name: 'leg_b_mm', label: 'Other leg, outside' },
  { name: 'thickness_mm', label: 'Thickness' },
  { name: 'radius_mm', label: 'Inside radius' },
]

/** K from a strip measured flat, bent once and measured again. */
export function KStrip() {
  const [strip, setStrip] = useState<Record<Field, number | null>>({
    flat_mm: null,
    leg_a_mm: null,
    leg_b_mm: null,
    thickness_mm: null,
    radius_mm: null,
    angle_deg: 90,
  })
  const whole = Object.values(strip).every((value) => value !== null)
  const k = useQuery({
    queryKey: ['k', strip],
    enabled: whole,
    queryFn: () => asked(api.POST('/api/workshop/k-from-strip', { body: strip as Record<Field, number> })),
    retry: false,
  })
  const set = (name: Field) => (value: number | null) => setStrip({ ...strip, [name]: value })
  return (
    <Box sx={{ mt: 2.5 }}>
      <Typography variant="h3" sx={{ mb: 1.5 }}>
        K from a test strip
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr 1fr', md: 'repeat(6, 1fr)' }, gap: 2 }}>
        {FIELDS.map(({ name, label }) => (
          <LengthField key={name} label={label} value={strip[name]} onCommit={set(name)} />
        ))}
        <QuantityField label="Bend" of="deg" value={strip.angle_deg} onCommit={set('angle_deg')} />
      </Box>
      <Box role="status" sx={{ mt: 1.5 }}>
        {k.data && (
          <Alert severity={k.data.usable ? 'success' : 'warning'} icon={false}>
            K = {k.data.k.toFixed(3)}.{' '}
            {k.data.usable
              ? 'Type it above for this metal.'
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
