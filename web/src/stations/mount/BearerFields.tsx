import { Box, Button } from '@mui/material'
import * as declared from '../../api/declared'
import type { Bearer } from '../../api/model'
import { Choice, LengthField, SheetField } from '../../fields/fields'
import { NameField } from '../../fields/WordsField'
import { select, useFaultUnder, useWork } from '../../work/store'
import { pair, Row } from '../Row'
import { BoltedFields } from './BoltedFields'
import { changeHeld, removeHeld } from './edits'

/** A tube of a cradle under the tank, or of a cage over it. */
export function BearerRow({ bearer, place, readOnly }: { bearer: Bearer; place: number; readOnly: boolean }) {
  const open = useWork((work) => work.at?.kind === 'mount' && work.at.id === bearer.id)
  const path = `mount.bearers.${place}`
  const set = (part: Partial<Bearer>) => changeHeld('bearers', bearer.id, part)
  const fault = useFaultUnder(path)
  const across = bearer.along === 'y'
  const bar = bearer.shape === 'flat bar'
  const length = (name: 'at_mm' | 'low_mm' | 'high_mm' | 'outer_mm', label: string) => (
    <LengthField
      label={label}
      value={bearer[name]}
      path={`${path}.${name}`}
      disabled={readOnly}
      onCommit={(mm) => mm !== null && set({ [name]: mm })}
    />
  )
  return (
    <Row
      name={bearer.name}
      aside={bearer.stands === 'under' ? 'under the tank' : 'over the tank'}
      open={open}
      onToggle={() => select(open ? null : { kind: 'mount', id: bearer.id })}
      fault={fault}
      data-row={bearer.id}
    >
      <NameField value={bearer.name} disabled={readOnly} onCommit={(name) => set({ name })} />
      <Box sx={pair}>
        <Choice
          label="Side of the tank"
          value={bearer.stands}
          options={declared.Bearer.choices.stands}
          disabled={readOnly}
          onChange={(stands) => set({ stands })}
        />
        <Choice
          label="Direction"
          value={bearer.along}
          options={[
            { value: 'y', label: 'right to left' },
            { value: 'x', label: 'rear to front' },
          ]}
          disabled={readOnly}
          onChange={(along) => set({ along })}
        />
        {length('at_mm', across ? 'From the bay’s rear' : 'From the bay’s right')}
        <Choice
          label="Section"
          value={bearer.shape}
          options={declared.Bearer.choices.shape}
          disabled={readOnly}
          onChange={(shape) => set({ shape })}
        />
        {length('low_mm', across ? 'Right support' : 'Rear support')}
        {length('high_mm', across ? 'Left support' : 'Front support')}
        {length('outer_mm', bar ? 'Height' : 'Outside of the tube')}
        <SheetField
          label={bar ? 'Width' : 'Wall'}
          metal={bearer.metal}
          value={bearer.wall_mm}
          path={`${path}.wall_mm`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && set({ wall_mm: mm })}
        />
      </Box>
      <Choice
        label="Metal of the bearer"
        value={bearer.metal}
        options={declared.Bearer.choices.metal}
        disabled={readOnly}
        onChange={(metal) => set({ metal })}
      />
      <BoltedFields
        bolts={bearer.bolts}
        structure={bearer.structure}
        matchMade={bearer.match_made}
        path={path}
        readOnly={readOnly}
        onChange={set}
      />
      <Button disabled={readOnly} onClick={() => removeHeld('bearers', bearer.id)}>
        Remove {bearer.name}
      </Button>
    </Row>
  )
}
