import { Box, Button, Slider, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { Attitude } from '../../api/model'
import { within } from '../../fields/choices'
import { NumberField, VolumeField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { AT_REST, setAttitude, setFill, useFault, useWork } from '../../work/store'
import { DrainedLines } from '../DrainedLines'
import { Folded } from '../Folded'
import { LevelChart } from './LevelChart'
import { TiltPad } from './TiltPad'

const FIELDS: { name: keyof Attitude; label: string; unit: string }[] = [
  { name: 'pitch_deg', label: 'Pitch, nose up', unit: '°' },
  { name: 'roll_deg', label: 'Right side down', unit: '°' },
  { name: 'forward_g', label: 'Accelerating', unit: 'g' },
  { name: 'left_g', label: 'Turning left', unit: 'g' },
  { name: 'up_g', label: 'Thrown upward', unit: 'g' },
]

/** How full the drawing shows it, and how the vehicle stands and moves meanwhile. */
export function FillFields() {
  const fill = useWork((work) => work.evaluation?.shell?.fill ?? null)
  const brimful = useWork((work) => work.evaluation?.shell?.figures?.brimful_l ?? null)
  const chosen = useWork((work) => work.fill)
  const units = useUnits()
  if (!fill || brimful === null) return null
  return (
    <Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 132px', gap: 2, alignItems: 'center' }}>
        <Slider
          aria-label="Fill shown"
          value={chosen ?? fill.fraction}
          min={0}
          max={1}
          step={0.01}
          onChange={(_, value) => setFill(value as number)}
          sx={{ color: (theme) => theme.inks.fuel, ml: 1 }}
          valueLabelDisplay="auto"
          valueLabelFormat={(value) => `${Math.round(value * 100)} %`}
        />
        <VolumeField
          label="Fill shown"
          value={Math.round(fill.volume_l * 100) / 100}
          onCommit={(value) => setFill(value === null ? null : Math.min(1, Math.max(0, value / brimful)))}
        />
      </Box>
      <Typography variant="body2" color="textSecondary" sx={{ mb: 1 }} data-fill-words>
        {fill.slope_deg < 0.01
          ? `Fuel level ${units.lengthUnitText(fill.level_mm)} above the lowest inner point${chosen === null ? ', at rated capacity' : ''}.`
          : `The surface slopes by ${units.number(fill.slope_deg, 1)}° and lies ${units.lengthUnitText(fill.level_mm)} over the lowest corner, square to it.`}
      </Typography>
      <LevelChart fill={fill} />
      <Typography variant="body2" color="textSecondary">
        Wetted area{' '}
        {units.quantity(
          'm2',
          fill.cells.reduce((sum, cell) => sum + cell.wetted_m2, 0),
        )}
        {fill.cells.length > 1
          ? `; ${fill.cells.map((cell) => `${cell.cell} ${units.volumeUnitText(cell.volume_l)}`).join(', ')}`
          : ''}
        .
      </Typography>
      <DrainedLines />
      <Folded title="On a slope, braking, in a turn">
        <AttitudeFields />
      </Folded>
    </Box>
  )
}

function AttitudeFields() {
  const attitude = useWork((work) => work.attitude)
  const floating = useFault('showing.attitude.up_g')?.message
  const moved = FIELDS.some(({ name }) => attitude[name] !== 0)
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        <TiltPad
          label="Slope: drag the dot, or use the arrow keys"
          across={{ name: 'roll_deg', limit: 30, step: 0.5, unit: '°', ends: ['left down', 'right down'] }}
          up={{ name: 'pitch_deg', limit: 30, step: 0.5, unit: '°', ends: ['nose down', 'nose up'] }}
          attitude={attitude}
          onChange={setAttitude}
        />
        <TiltPad
          label="Driving: drag the dot, or use the arrow keys"
          across={{ name: 'left_g', limit: 1.5, step: 0.02, unit: 'g', ends: ['turning right', 'turning left'] }}
          up={{ name: 'forward_g', limit: 1.5, step: 0.02, unit: 'g', ends: ['braking', 'accelerating'] }}
          attitude={attitude}
          onChange={setAttitude}
        />
        {FIELDS.map(({ name, label, unit }) => (
          <NumberField
            key={name}
            label={label}
            unit={unit}
            value={attitude[name]}
            fault={name === 'up_g' ? floating : undefined}
            onCommit={(value) =>
              value !== null && setAttitude({ [name]: within(value, declared.Attitude.limits[name]) })
            }
          />
        ))}
        <Button variant="outlined" disabled={!moved} onClick={() => setAttitude(AT_REST)}>
          Level, at rest
        </Button>
      </Box>
      <Typography variant="body2" color="textSecondary">
        Below zero the other way: nose down, left side down, braking, turning right. Held steady; sloshing is not in it.
        Hatched fuel can’t be drawn in this attitude.
      </Typography>
    </>
  )
}
