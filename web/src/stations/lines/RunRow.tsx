import { Box, Button } from '@mui/material'
import * as declared from '../../api/declared'
import type { LineRun } from '../../api/model'
import { BoreField, Choice, LengthField, NumberField, QuantityField, Toggle } from '../../fields/fields'
import { NameField, WordsField } from '../../fields/WordsField'
import { useUnits } from '../../units/useUnits'
import { select, useFaultUnder, useWork } from '../../work/store'
import { pair, Row } from '../Row'
import { addCorner, changeRun, removeOne } from './edits'
import { RunEnds } from './RunEnds'
import { RunPasses } from './RunPasses'

/** One run: what it is, how long, what it ends in. */
export function RunRow({ run, place, readOnly }: { run: LineRun; place: number; readOnly: boolean }) {
  const units = useUnits()
  const open = useWork((work) => work.at?.kind === 'run' && work.at.id === run.id)
  const way = useWork((work) => work.evaluation?.lines?.places?.runs.find((one) => one.id === run.id))
  const tube = useWork((work) => work.evaluation?.lines?.tubes?.find((one) => one.id === run.id))
  const hose = useWork((work) => work.evaluation?.lines?.hoses?.cut.find((one) => one.id === run.id))
  const path = `lines.runs.${place}`
  const fault = useFaultUnder(path)
  return (
    <Row
      name={run.name}
      aside={way ? `${units.lengthUnitText(way.length_mm)}, bore ${units.cut(run.bore_mm)}` : ''}
      open={open}
      onToggle={() => select(open ? null : { kind: 'run', id: run.id })}
      fault={fault}
      data-row={run.id}
    >
      <NameField value={run.name} disabled={readOnly} onCommit={(name) => changeRun(run.id, { name })} />
      <Box sx={pair}>
        <Choice
          label="Kind of line"
          value={run.kind}
          options={[
            { value: 'hose', label: 'hose' },
            { value: 'tube', label: 'tube' },
            { value: 'direct', label: 'screwed together' },
          ]}
          disabled={readOnly}
          onChange={(kind) => changeRun(run.id, { kind })}
        />
        {run.kind === 'tube' ? (
          <Choice
            label="Metal"
            value={run.metal}
            options={declared.LineRun.choices.metal}
            disabled={readOnly}
            onChange={(metal) => changeRun(run.id, { metal })}
          />
        ) : (
          <Choice
            label="Hose"
            value={run.hose}
            options={declared.LineRun.choices.hose}
            disabled={readOnly || run.kind === 'direct'}
            onChange={(hose) => changeRun(run.id, { hose })}
          />
        )}
        <BoreField
          label="Bore"
          value={run.bore_mm}
          path={`${path}.bore_mm`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && changeRun(run.id, { bore_mm: mm })}
        />
        <QuantityField
          label="Rated pressure"
          of="kpa"
          value={run.rated_kpa ?? null}
          emptyText="not known"
          path={`${path}.rated_kpa`}
          disabled={readOnly}
          onCommit={(rated_kpa) => changeRun(run.id, { rated_kpa })}
        />
        {run.kind === 'tube' && (
          <>
            <LengthField
              label="Outside"
              value={run.outside_mm ?? null}
              emptyText={tube ? units.length(tube.outside_mm) : 'by its bore'}
              hint="empty: bore, two walls"
              path={`${path}.outside_mm`}
              disabled={readOnly}
              onCommit={(outside_mm) => changeRun(run.id, { outside_mm })}
            />
            <LengthField
              label="Bend radius"
              value={run.radius_mm ?? null}
              emptyText={tube ? units.length(tube.radius_mm) : 'the bender’s'}
              hint={tube?.bender || 'no bender known'}
              path={`${path}.radius_mm`}
              disabled={readOnly}
              onCommit={(radius_mm) => changeRun(run.id, { radius_mm })}
            />
          </>
        )}
        {run.kind === 'hose' && (
          <>
            <LengthField
              label="Bend radius"
              value={run.radius_mm ?? null}
              emptyText={hose ? units.length(hose.radius_mm) : 'its least'}
              hint={hose?.stock || 'no card known'}
              path={`${path}.radius_mm`}
              disabled={readOnly}
              onCommit={(radius_mm) => changeRun(run.id, { radius_mm })}
            />
            <LengthField
              label="Ends move"
              value={run.moves_mm || null}
              emptyText="not at all"
              hint="against each other"
              path={`${path}.moves_mm`}
              disabled={readOnly}
              onCommit={(mm) => changeRun(run.id, { moves_mm: mm ?? 0 })}
            />
          </>
        )}
        <LengthField
          label="Length"
          value={run.length_mm ?? null}
          emptyText={way ? units.length(way.length_mm) : 'by its way'}
          hint="empty: along its way"
          path={`${path}.length_mm`}
          disabled={readOnly}
          onCommit={(length_mm) => changeRun(run.id, { length_mm })}
        />
        <NumberField
          label="Loss factor K"
          value={run.fittings_k ?? null}
          emptyText={way ? way.fittings_k.toFixed(1) : 'by its corners'}
          hint="empty: ends and corners"
          path={`${path}.fittings_k`}
          disabled={readOnly}
          onCommit={(fittings_k) => changeRun(run.id, { fittings_k })}
        />
      </Box>
      <WordsField
        mayBeEmpty
        label="Approval printed on it"
        value={run.approval}
        most={declared.LineRun.most.approval}
        disabled={readOnly}
        onCommit={(approval) => changeRun(run.id, { approval })}
      />
      <RunPasses run={run} place={place} readOnly={readOnly} />
      {run.kind !== 'direct' && (
        <Toggle
          label="In a sleeve all along"
          checked={run.sleeved}
          disabled={readOnly}
          onChange={(sleeved) => changeRun(run.id, { sleeved })}
        />
      )}
      <RunEnds run={run} readOnly={readOnly} />
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button variant="outlined" disabled={readOnly || !way} onClick={() => way && addCorner(run, way.way)}>
          Add a corner
        </Button>
        {run.corners.length > 0 && (
          <Button disabled={readOnly} onClick={() => changeRun(run.id, { corners: run.corners.slice(0, -1) })}>
            Remove the last corner
          </Button>
        )}
      </Box>
      <Button disabled={readOnly} onClick={() => removeOne('runs', run.id)}>
        Remove {run.name}
      </Button>
    </Row>
  )
}
