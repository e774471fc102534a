import { Alert, Box, Button, MenuItem, TextField, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { KeptVehicle, Vehicle } from '../../api/model'
import { LengthField, QuantityField } from '../../fields/fields'
import { NameField, WordsField } from '../../fields/WordsField'
import { useWork } from '../../work/store'
import { pair } from '../Row'
import { setMount } from './edits'
import { useVehicles } from './useVehicles'
import { VehicleParts } from './VehicleParts'

/** Which vehicle the tank is for, where the bay lies in it, and the vehicle's own figures. */
export function VehiclePanel({ readOnly }: { readOnly: boolean }) {
  const { listed, own, add, change } = useVehicles()
  const { vehicle, corner } = useWork((work) => work.design.mount)
  const wrong = add.error ?? change.error
  return (
    <>
      <TextField
        select
        label="Vehicle"
        value={vehicle && own ? vehicle : ''}
        disabled={readOnly}
        onChange={(event) => setMount({ vehicle: event.target.value || null })}
        slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        helperText={
          own && own.jobs.length > 1 ? `Shared by jobs ${own.jobs.join(', ')}: what is changed here changes there` : ''
        }
      >
        <MenuItem value="" sx={{ minHeight: 44 }}>
          none
        </MenuItem>
        {listed.map((one) => (
          <MenuItem key={one.key} value={one.key} sx={{ minHeight: 44 }}>
            {one.vehicle.name}
          </MenuItem>
        ))}
      </TextField>
      <Button
        variant="outlined"
        disabled={readOnly || add.isPending}
        onClick={() =>
          add.mutate(
            { ...declared.Vehicle.defaults, name: `Vehicle ${listed.length + 1}` },
            { onSuccess: (made) => setMount({ vehicle: made.key }) },
          )
        }
      >
        Add a vehicle
      </Button>
      {wrong && <Alert severity="error">{wrong.message}</Alert>}
      {own && (
        <>
          <Typography variant="body2">Where the bay’s rear, right, lower corner lies in the vehicle:</Typography>
          <Box sx={{ ...pair, gridTemplateColumns: '1fr 1fr 1fr' }}>
            {(['x', 'y', 'z'] as const).map((axis) => (
              <LengthField
                key={axis}
                label={{ x: 'Forward', y: 'Left', z: 'Up' }[axis]}
                value={corner[`${axis}_mm`]}
                path={`mount.corner.${axis}_mm`}
                disabled={readOnly}
                onCommit={(mm) => mm !== null && setMount({ corner: { ...corner, [`${axis}_mm`]: mm } })}
              />
            ))}
          </Box>
          <Figures
            own={own}
            readOnly={readOnly}
            onChange={(part) => change.mutate((vehicle) => ({ ...vehicle, ...part }))}
          />
          <VehicleParts vehicle={own.vehicle} readOnly={readOnly} onChange={change.mutate} />
        </>
      )}
    </>
  )
}

const LENGTHS = {
  rear_axle_mm: 'Rear axle',
  wheelbase_mm: 'Wheelbase',
  track_front_mm: 'Front track',
  track_rear_mm: 'Rear track',
  ground_mm: 'Ground height',
  rearmost_mm: 'Rearmost structure',
} as const
const LOADS = {
  front_left_kg: 'Load front left',
  front_right_kg: 'Load front right',
  rear_left_kg: 'Load rear left',
  rear_right_kg: 'Load rear right',
  whole_kg: 'Weighed as a whole',
} as const

function Figures({
  own,
  readOnly,
  onChange,
}: {
  own: KeptVehicle
  readOnly: boolean
  onChange: (part: Partial<Vehicle>) => void
}) {
  const { vehicle } = own
  return (
    <>
      <NameField value={vehicle.name} disabled={readOnly} onCommit={(name) => onChange({ name })} />
      <WordsField
        label="Datum"
        value={vehicle.datum}
        most={declared.Vehicle.most.datum}
        disabled={readOnly}
        hint="Where it is measured from: x forward, y left, z up"
        onCommit={(datum) => onChange({ datum })}
      />
      <Box sx={pair}>
        {(Object.keys(LENGTHS) as (keyof typeof LENGTHS)[]).map((name) => (
          <LengthField
            key={name}
            label={LENGTHS[name]}
            value={vehicle[name] ?? null}
            emptyText="not measured"
            path={`vehicle.${name}`}
            disabled={readOnly}
            onCommit={(mm) => onChange({ [name]: name === 'rear_axle_mm' ? (mm ?? 0) : mm })}
          />
        ))}
        {(Object.keys(LOADS) as (keyof typeof LOADS)[]).map((name) => (
          <QuantityField
            key={name}
            label={LOADS[name]}
            of="kg"
            value={vehicle[name] ?? null}
            emptyText="not weighed"
            path={`vehicle.${name}`}
            disabled={readOnly}
            onCommit={(kg) => onChange({ [name]: kg })}
          />
        ))}
      </Box>
    </>
  )
}
