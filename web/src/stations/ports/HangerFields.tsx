import { Box, Button, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { Port } from '../../api/model'
import { changePort } from '../../drawing/edits'
import { labelled } from '../../fields/choices'
import { Choice, LengthField, Toggle } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Folded } from '../Folded'
import { pair } from '../Row'
import { changeInner, newHanger } from './edits'

type Hanger = NonNullable<Port['hanger']>
const KINDS = labelled(declared.Hanger.choices.kind, {
  module: 'module with its pot',
  hanger: 'hanger with a pump',
  tube: 'plain tube',
  sock: 'tube with a sock',
})

const LENGTHS = [
  ['made_for_mm', 'Design depth'],
  ['extend_mm', 'Extension'],
  ['bracket_mm', 'Flange to pump'],
  ['bracket_least_mm', 'Shortest bracket'],
  ['pump_mm', 'Pump'],
  ['strainer_mm', 'Strainer'],
  ['grip_mm', 'Grip per clamp'],
] as const

/** What hangs from the flange and draws fuel, and the second measurement before it is cut. */
export function HangerFields({ port, place, readOnly }: { port: Port; place: number; readOnly: boolean }) {
  const reach = useWork((work) => work.evaluation?.ports?.reaches?.find((item) => item.id === port.id))
  const body = useWork((work) => work.evaluation?.shell?.geometry?.body)
  const units = useUnits()
  const { hanger } = port
  if (!hanger) {
    return (
      <Button
        variant="outlined"
        disabled={readOnly}
        onClick={() => changePort(port.id, { hanger: newHanger(body ? body.high.z - body.low.z : 250) })}
      >
        Add a hanger
      </Button>
    )
  }
  const set = (part: Partial<Hanger>) => changeInner(port, 'hanger', part)
  return (
    <Folded title="Hanger and its cut" open>
      <Choice
        label="Hanger type"
        value={hanger.kind}
        options={KINDS}
        disabled={readOnly}
        onChange={(kind) => set({ kind })}
      />
      <Box sx={pair}>
        {LENGTHS.map(([name, label]) => (
          <LengthField
            key={name}
            label={label}
            value={hanger[name]}
            path={`ports.${place}.hanger.${name}`}
            disabled={readOnly}
            onCommit={(mm) => mm !== null && set({ [name]: mm })}
          />
        ))}
      </Box>
      <Toggle
        label="Sprung sleeve"
        checked={hanger.sprung}
        disabled={readOnly}
        onChange={(sprung) => set({ sprung })}
      />
      <Toggle
        label="Remote pickup on the floor"
        checked={hanger.remote}
        disabled={readOnly}
        onChange={(remote) => set({ remote })}
      />
      {reach && (
        <Typography variant="body2" data-reach={port.id}>
          Here it is <strong>{units.lengthUnitText(reach.depth_mm)}</strong> from the seat to the floor.{' '}
          {reach.too_long_mm > 0.05
            ? `It stays ${units.lengthUnitText(reach.too_long_mm)} too long however it is cut.`
            : reach.short_mm > 0.05
              ? `It hangs ${units.lengthUnitText(reach.short_mm)} too short.`
              : reach.short_mm < -0.05
                ? `Cut ${units.lengthUnitText(-reach.short_mm)} off.`
                : 'It fits as it is.'}
        </Typography>
      )}
      <LengthField
        label="Second measurement, another way"
        value={hanger.measured_mm ?? null}
        emptyText="before any cut"
        hint="seat to floor in the finished opening: rod and square, not the drawing"
        path={`ports.${place}.hanger.measured_mm`}
        disabled={readOnly}
        onCommit={(measured_mm) => set({ measured_mm })}
      />
      <Button disabled={readOnly} onClick={() => changePort(port.id, { hanger: null })}>
        Remove the hanger
      </Button>
    </Folded>
  )
}
