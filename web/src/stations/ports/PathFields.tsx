import { Box, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { Port } from '../../api/model'
import { AskedField, BoreField, MaybeChoice, QuantityField, Toggle } from '../../fields/fields'
import { Folded } from '../Folded'
import { pair } from '../Row'
import { changeInner } from './edits'
import { ValveFields } from './ValveFields'

type Vent = NonNullable<Port['vent']>
type Neck = NonNullable<Port['neck']>

const ASKED: [keyof Vent & ('outside' | 'below_people' | 'away_from_exhaust' | 'falls_away'), string][] = [
  ['outside', 'Ends outside the body'],
  ['below_people', 'Ends below and away from people'],
  ['away_from_exhaust', 'Ends away from the exhaust'],
  ['falls_away', 'Falls away, no low loop'],
]

/** The way of the air: its bore, valve, and where it ends. */
export function VentFields({
  port,
  vent,
  place,
  readOnly,
}: {
  port: Port
  vent: Vent
  place: number
  readOnly: boolean
}) {
  const set = (part: Partial<Vent>) => changeInner(port, 'vent', part)
  const path = `ports.${place}.vent`
  return (
    <Folded title="Way of the air" open>
      <Box sx={pair}>
        <BoreField
          label="Smallest bore"
          value={vent.bore_mm}
          path={`${path}.bore_mm`}
          disabled={readOnly}
          onCommit={(bore_mm) => bore_mm !== null && set({ bore_mm })}
        />
        <QuantityField
          label="Hose length"
          of="m"
          value={vent.length_m}
          path={`${path}.length_m`}
          disabled={readOnly}
          onCommit={(length_m) => length_m !== null && set({ length_m })}
        />
        <QuantityField
          label="Valve opening pressure"
          of="kpa"
          value={vent.opens_kpa}
          path={`${path}.opens_kpa`}
          disabled={readOnly}
          onCommit={(opens_kpa) => opens_kpa !== null && set({ opens_kpa })}
        />
        {vent.rollover && (
          <QuantityField
            label="Inclination from upright"
            of="deg"
            value={vent.lean_deg}
            path={`${path}.lean_deg`}
            disabled={readOnly}
            onCommit={(lean_deg) => lean_deg !== null && set({ lean_deg })}
          />
        )}
      </Box>
      <ValveFields
        valves={vent.valves}
        path={path}
        usual="check valve"
        readOnly={readOnly}
        onChange={(valves) => set({ valves })}
      />
      <MaybeChoice
        label="Hose material"
        value={vent.hose}
        options={declared.VentPath.choices.hose}
        none="not said"
        disabled={readOnly}
        onChange={(hose) => set({ hose })}
      />
      <Toggle
        label="Roll-over valve"
        checked={vent.rollover}
        disabled={readOnly}
        onChange={(rollover) => set({ rollover })}
      />
      {port.role === 'vent' &&
        ASKED.map(([name, label]) => (
          <AskedField
            key={name}
            label={label}
            value={vent[name]}
            disabled={readOnly}
            onChange={(answer) => set({ [name]: answer })}
          />
        ))}
      <Typography variant="body2" color="textSecondary">
        Vapour is heavier than air and burns. Local code and the class’s rules come first.
      </Typography>
    </Folded>
  )
}

/** The way of the fuel in. */
export function NeckFields({
  port,
  neck,
  place,
  readOnly,
}: {
  port: Port
  neck: Neck
  place: number
  readOnly: boolean
}) {
  const set = (part: Partial<Neck>) => changeInner(port, 'neck', part)
  return (
    <Folded title="Way of the fuel in" open>
      <BoreField
        label="Smallest bore, cap to tank"
        value={neck.bore_mm}
        path={`ports.${place}.neck.bore_mm`}
        disabled={readOnly}
        onCommit={(bore_mm) => bore_mm !== null && set({ bore_mm })}
      />
      <MaybeChoice
        label="Filler hose material"
        value={neck.hose}
        options={declared.NeckPath.choices.hose}
        none="not said"
        disabled={readOnly}
        onChange={(hose) => set({ hose })}
      />
      <ValveFields
        valves={neck.valves}
        path={`ports.${place}.neck`}
        usual="flap"
        readOnly={readOnly}
        onChange={(valves) => set({ valves })}
      />
      <AskedField
        label="Bonded to the chassis"
        value={neck.bonded}
        disabled={readOnly}
        onChange={(bonded) => set({ bonded })}
      />
    </Folded>
  )
}
