import { Box, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { FillRun } from '../../api/model'
import { labelled } from '../../fields/choices'
import { Choice, LengthField, QuantityField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { pair } from '../Row'
import { setFilling } from './edits'

const SUPPLIES = labelled(declared.Filling.choices.supply, { nozzle: 'a pump’s nozzle', jug: 'a jug' })

/** How the tank is filled, and how that goes. */
export function FillingFields({ readOnly }: { readOnly: boolean }) {
  const filling = useWork((work) => work.design.filling)
  const runs = Object.entries(useWork((work) => work.evaluation?.ports?.fill_runs) ?? {})
  return (
    <>
      <Choice
        label="Filled from"
        value={filling.supply}
        options={SUPPLIES}
        disabled={readOnly}
        onChange={(supply) => setFilling({ supply })}
      />
      <Box sx={pair}>
        {filling.supply === 'jug' ? (
          <LengthField
            label="Fuel height over the neck"
            value={filling.head_mm}
            path="filling.head_mm"
            disabled={readOnly}
            onCommit={(head_mm) => head_mm !== null && setFilling({ head_mm })}
          />
        ) : (
          <>
            <QuantityField
              label="Supply pressure"
              of="kpa"
              value={filling.supply_kpa}
              path="filling.supply_kpa"
              disabled={readOnly}
              onCommit={(supply_kpa) => supply_kpa !== null && setFilling({ supply_kpa })}
            />
            <LengthField
              label="Bore"
              value={filling.nozzle_bore_mm}
              path="filling.nozzle_bore_mm"
              disabled={readOnly}
              onCommit={(nozzle_bore_mm) => nozzle_bore_mm !== null && setFilling({ nozzle_bore_mm })}
            />
          </>
        )}
        <QuantityField
          label="Filling time wanted"
          of="s"
          value={filling.wanted_s ?? null}
          emptyText="optional"
          path="filling.wanted_s"
          disabled={readOnly}
          onCommit={(wanted_s) => setFilling({ wanted_s })}
        />
      </Box>
      {runs.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          Place a filler to see how long it takes, and what pressure builds up.
        </Typography>
      )}
      {runs.map(([cell, run]) => (
        <Typography key={cell} variant="body2" data-fill-run={cell}>
          {runs.length > 1 ? `${cell}: ` : ''}
          <RunText run={run} />
        </Typography>
      ))}
    </>
  )
}

export function RunText({ run }: { run: FillRun }) {
  const units = useUnits()
  return (
    <>
      Full in <strong>{units.number(run.seconds, 0)} s</strong>, up to {units.quantity('kpa', run.peak_kpa, 2)} in the
      tank; the {run.held_back_by} holds it back.{' '}
      {run.shuts_off && <strong>The nozzle clicks off, or the neck spits back, before it is full. </strong>}
      {run.vent_for_wanted_mm !== null &&
        run.wanted_s !== null &&
        `A vent of ${units.lengthUnitText(run.vent_for_wanted_mm)} fills it within ${units.number(run.wanted_s, 0)} s. `}
      {run.vacuum_kpa !== null &&
        run.drawn_l_per_h !== null &&
        `Drawing ${units.flowText(run.drawn_l_per_h)} pulls ${units.quantity('kpa', run.vacuum_kpa, 3)} of vacuum.`}
    </>
  )
}
