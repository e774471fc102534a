import { Box, Button } from '@mui/material'
import * as declared from '../../api/declared'
import type { RunningMode } from '../../api/model'
import { Choice, FlowField, MaybeChoice, NumberField, QuantityField, ShareField, Toggle } from '../../fields/fields'
import { NameField } from '../../fields/WordsField'
import { useFaultUnder, useWork } from '../../work/store'
import { useState } from 'react'
import { pair, Row } from '../Row'
import { changeOne, removeOne } from './edits'
import { showMode } from './view'

/** One running mode: draw, manifold, voltage, fuel, what stands still. */
export function ModeRow({ mode, place, readOnly }: { mode: RunningMode; place: number; readOnly: boolean }) {
  const [open, setOpen] = useState(false)
  const cases = useWork((work) => work.design.brief.cases)
  const path = `lines.modes.${place}`
  const fault = useFaultUnder(path)
  const change = (part: Partial<RunningMode>) => changeOne('modes', mode.id, part)
  return (
    <Row
      name={mode.name}
      aside=""
      open={open}
      onToggle={() => {
        setOpen(!open)
        showMode(mode.id)
      }}
      fault={fault}
      data-row={mode.id}
    >
      <NameField value={mode.name} disabled={readOnly} onCommit={(name) => change({ name })} />
      <Choice
        label="Demand case"
        value={mode.case ?? ''}
        options={[{ value: '', label: 'the first' }, ...cases.map((one) => ({ value: one.id, label: one.name }))]}
        disabled={readOnly}
        onChange={(id) => change({ case: id || null })}
      />
      <MaybeChoice
        label="Fuel in the tank"
        value={mode.fuel}
        options={declared.RunningMode.choices.fuel}
        none="the case’s"
        disabled={readOnly}
        onChange={(fuel) => change({ fuel })}
      />
      <Box sx={pair}>
        <ShareField
          label="Drawn, share"
          hint="of full power"
          value={mode.draw}
          path={`${path}.draw`}
          disabled={readOnly || mode.draw_l_per_h !== null}
          onCommit={(draw) => draw !== null && change({ draw })}
        />
        <FlowField
          label="Drawn, typed"
          value={mode.draw_l_per_h ?? null}
          emptyText="by the share"
          path={`${path}.draw_l_per_h`}
          disabled={readOnly}
          onCommit={(draw_l_per_h) => change({ draw_l_per_h })}
        />
        <QuantityField
          label="Manifold pressure"
          hint="over the air’s"
          of="kpa"
          value={mode.manifold_kpa}
          path={`${path}.manifold_kpa`}
          disabled={readOnly}
          onCommit={(kpa) => kpa !== null && change({ manifold_kpa: kpa })}
        />
        <NumberField
          label="Pump voltage"
          unit="V"
          value={mode.voltage_v ?? null}
          emptyText="the case’s"
          path={`${path}.voltage_v`}
          disabled={readOnly}
          onCommit={(voltage_v) => change({ voltage_v })}
        />
        <QuantityField
          label="Fuel temperature"
          of="c"
          value={mode.fuel_c}
          path={`${path}.fuel_c`}
          disabled={readOnly}
          onCommit={(fuel_c) => fuel_c !== null && change({ fuel_c })}
        />
        <NumberField
          label="Altitude"
          unit="m"
          value={mode.altitude_m}
          path={`${path}.altitude_m`}
          disabled={readOnly}
          onCommit={(altitude_m) => altitude_m !== null && change({ altitude_m })}
        />
        <NumberField
          label="Engine speed"
          unit="rpm"
          value={mode.engine_rpm}
          path={`${path}.engine_rpm`}
          disabled={readOnly}
          onCommit={(engine_rpm) => engine_rpm !== null && change({ engine_rpm })}
        />
      </Box>
      <Toggle
        label="A failure: shown, not asked to suffice"
        checked={mode.failure}
        disabled={readOnly}
        onChange={(failure) => change({ failure })}
      />
      <Standing mode={mode} readOnly={readOnly} onChange={(still) => change({ still })} />
      <Button disabled={readOnly} onClick={() => removeOne('modes', mode.id)}>
        Remove {mode.name}
      </Button>
    </Row>
  )
}

const CAN_STAND = [
  'pump',
  'engine-driven pump',
  'isolating valve',
  'rail',
  'carburettor',
  'injection pump',
  'delivery nozzle',
  'burner',
]

/** Which parts stand still, are shut or draw nothing. */
function Standing({
  mode,
  readOnly,
  onChange,
}: {
  mode: RunningMode
  readOnly: boolean
  onChange: (still: string[]) => void
}) {
  const parts = useWork((work) => work.design.lines.parts)
  const able = parts.filter((part) => CAN_STAND.includes(part.does.kind))
  if (!able.length) return null
  return (
    <Box component="fieldset" sx={{ border: 0, p: 0, m: 0 }}>
      <Box component="legend" sx={{ fontSize: 14, fontWeight: 650 }}>
        Stands still, is shut, draws nothing
      </Box>
      {able.map((part) => (
        <Box component="label" key={part.id} sx={{ display: 'flex', alignItems: 'center', minHeight: 32, gap: 1 }}>
          <input
            type="checkbox"
            checked={mode.still.includes(part.id)}
            disabled={readOnly}
            onChange={(event) =>
              onChange(event.target.checked ? [...mode.still, part.id] : mode.still.filter((id) => id !== part.id))
            }
          />
          {part.name}
        </Box>
      ))}
    </Box>
  )
}
