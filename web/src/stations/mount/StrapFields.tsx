import { Box, Button, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useState } from 'react'
import * as declared from '../../api/declared'
import type { Strap, StrapPath } from '../../api/model'
import { Choice, LengthField, SheetField } from '../../fields/fields'
import { NameField } from '../../fields/WordsField'
import { useUnits } from '../../units/useUnits'
import { select, useFaultUnder, useWork } from '../../work/store'
import { pair, Row } from '../Row'
import { BoltedFields } from './BoltedFields'
import { changeAnchor, changeStrap, removeHeld } from './edits'

export const endNames = (across: Strap['across']) =>
  across === 'y' ? ({ low: 'right', high: 'left' } as const) : ({ low: 'rear', high: 'front' } as const)

/** One strap: station, anchors, strip; and what it is cut to. */
export function StrapRow({ strap, place, readOnly }: { strap: Strap; place: number; readOnly: boolean }) {
  const units = useUnits()
  const [end, setEnd] = useState<'low' | 'high'>('low')
  const open = useWork((work) => work.at?.kind === 'mount' && work.at.id === strap.id)
  const made = useWork((work) => work.evaluation?.mount?.straps?.find((one) => one.id === strap.id))
  const path = `mount.straps.${place}`
  const fault = useFaultUnder(path)
  const ends = endNames(strap.across)
  const anchor = strap[end]
  const length = (name: 'at_mm' | 'width_mm' | 'pad_mm' | 'loop_mm' | 'take_up_mm', label: string) => (
    <LengthField
      label={label}
      value={strap[name]}
      path={`${path}.${name}`}
      disabled={readOnly}
      onCommit={(mm) => mm !== null && changeStrap(strap.id, { [name]: mm })}
    />
  )
  return (
    <Row
      name={strap.name}
      aside={made && !made.problem ? `cut ${units.lengthUnitText(made.cut_mm)}` : ''}
      open={open}
      onToggle={() => select(open ? null : { kind: 'mount', id: strap.id })}
      fault={fault}
      data-row={strap.id}
    >
      <NameField value={strap.name} disabled={readOnly} onCommit={(name) => changeStrap(strap.id, { name })} />
      {made && !made.problem && <CutWords made={made} strap={strap} />}
      <Box sx={pair}>
        <Choice
          label="Direction"
          value={strap.across}
          options={[
            { value: 'y', label: 'right to left' },
            { value: 'x', label: 'rear to front' },
          ]}
          disabled={readOnly}
          onChange={(across) => changeStrap(strap.id, { across })}
        />
        <Choice
          label="Side of the tank"
          value={strap.passes}
          options={declared.Strap.choices.passes}
          disabled={readOnly}
          onChange={(passes) => changeStrap(strap.id, { passes })}
        />
        {length('at_mm', strap.across === 'y' ? 'Station, from the bay’s rear' : 'Station, from the bay’s right')}
        {length('pad_mm', 'Pad thickness')}
        {length('width_mm', 'Strap width')}
        <SheetField
          label="Strap thickness"
          metal={strap.metal}
          value={strap.thickness_mm}
          path={`${path}.thickness_mm`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && changeStrap(strap.id, { thickness_mm: mm })}
        />
        {length('loop_mm', 'End loop, each')}
        {length('take_up_mm', 'Take-up')}
      </Box>
      <Choice
        label="Strap metal"
        value={strap.metal}
        options={declared.Strap.choices.metal}
        disabled={readOnly}
        onChange={(metal) => changeStrap(strap.id, { metal })}
      />
      <LengthField
        label="Existing strap, whole length"
        value={strap.existing_mm ?? null}
        emptyText="a new one"
        path={`${path}.existing_mm`}
        disabled={readOnly}
        onCommit={(existing_mm) => changeStrap(strap.id, { existing_mm })}
      />
      <ToggleButtonGroup
        exclusive
        size="small"
        aria-label="Anchor"
        value={end}
        onChange={(_, next: 'low' | 'high' | null) => next && setEnd(next)}
      >
        {(['low', 'high'] as const).map((one) => (
          <ToggleButton key={one} value={one} sx={{ flex: 1 }}>
            {ends[one]} anchor
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Box sx={pair}>
        <LengthField
          label={strap.across === 'y' ? 'From the bay’s right' : 'From the bay’s rear'}
          value={anchor.out_mm}
          path={`${path}.${end}.out_mm`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && changeAnchor(strap, end, { out_mm: mm })}
        />
        <LengthField
          label="Height of the bolt"
          value={anchor.z_mm}
          path={`${path}.${end}.z_mm`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && changeAnchor(strap, end, { z_mm: mm })}
        />
      </Box>
      <BoltedFields
        bolts={anchor.bolts}
        structure={anchor.structure}
        matchMade={anchor.match_made}
        path={`${path}.${end}`}
        readOnly={readOnly}
        onChange={(part) => changeAnchor(strap, end, part)}
      />
      <Button disabled={readOnly} onClick={() => removeHeld('straps', strap.id)}>
        Remove {strap.name}
      </Button>
    </Row>
  )
}

/** How it is cut and where it is bent, from the end at its first anchor. */
function CutWords({ made, strap }: { made: StrapPath; strap: Strap }) {
  const units = useUnits()
  const ends = endNames(strap.across)
  return (
    <Box data-cut={made.id} sx={{ fontSize: 14 }}>
      <Typography variant="body2" sx={{ fontWeight: 650 }}>
        Cut {units.lengthUnitText(made.cut_mm)}: path {units.lengthUnitText(made.path_mm)}, two loops of{' '}
        {units.lengthUnitText(strap.loop_mm)}, take-up {units.lengthUnitText(strap.take_up_mm)}
      </Typography>
      <Box component="table" sx={{ width: '100%', mt: 0.5, '& td, & th': { textAlign: 'right', py: 0.25 } }}>
        <thead>
          <tr>
            <th style={{ textAlign: 'left' }}>Bend, from the {ends.low} end</th>
            <th>Start</th>
            <th>End</th>
            <th>Angle</th>
          </tr>
        </thead>
        <tbody>
          {made.marks.map((mark, n) => (
            <tr key={n}>
              <td style={{ textAlign: 'left' }}>{n + 1}</td>
              <td>{units.cut(mark.start_mm)}</td>
              <td>{units.cut(mark.end_mm)}</td>
              <td>{mark.angle_deg.toFixed(0)}°</td>
            </tr>
          ))}
        </tbody>
      </Box>
      {made.handed && (
        <Typography variant="body2">
          Not the same from either end: mark the {ends.low} end before it is bent.
        </Typography>
      )}
    </Box>
  )
}
