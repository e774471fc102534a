import { Box, Button } from '@mui/material'
import * as declared from '../../api/declared'
import type { Foot, Stop } from '../../api/model'
import { Choice, LengthField, MaybeChoice, SheetField } from '../../fields/fields'
import { NameField } from '../../fields/WordsField'
import { select, useFaultUnder, useWork } from '../../work/store'
import { pair, Row } from '../Row'
import { BoltedFields } from './BoltedFields'
import { changeHeld, removeHeld } from './edits'

const PLACES = { x_mm: 'From the bay’s rear', y_mm: 'From the bay’s right', z_mm: 'From the bay’s floor' } as const

/** A foot, a tab, a bolt through a flange. */
export function FootRow({ foot, place, readOnly }: { foot: Foot; place: number; readOnly: boolean }) {
  const open = useWork((work) => work.at?.kind === 'mount' && work.at.id === foot.id)
  const path = `mount.feet.${place}`
  const set = (part: Partial<Foot>) => changeHeld('feet', foot.id, part)
  const fault = useFaultUnder(path)
  const metal = useWork((work) => work.design.shell?.metal ?? 'mild steel')
  return (
    <Row
      name={foot.name}
      aside={`${foot.bolts.count} × ${foot.bolts.size}`}
      open={open}
      onToggle={() => select(open ? null : { kind: 'mount', id: foot.id })}
      fault={fault}
      data-row={foot.id}
    >
      <NameField value={foot.name} disabled={readOnly} onCommit={(name) => set({ name })} />
      <PlaceFields at={foot} path={path} readOnly={readOnly} onChange={set} />
      <Box sx={pair}>
        <Choice
          label="Bolt direction"
          value={foot.axis}
          options={[
            { value: 'z', label: 'upright' },
            { value: 'x', label: 'lengthwise' },
            { value: 'y', label: 'across' },
          ]}
          disabled={readOnly}
          onChange={(axis) => set({ axis })}
        />
        <MaybeChoice
          label="Its structure lies"
          value={foot.structure_at ?? null}
          options={declared.Foot.choices.structure_at}
          none={foot.axis === 'z' ? 'below it' : 'away from the tank'}
          disabled={readOnly}
          onChange={(structure_at) => set({ structure_at })}
        />
        <SheetField
          label="Foot thickness"
          metal={metal}
          value={foot.foot_mm}
          path={`${path}.foot_mm`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && set({ foot_mm: mm })}
        />
        <LengthField
          label="Weld to the tank, length"
          value={foot.weld_mm}
          hint="0: not welded to it"
          path={`${path}.weld_mm`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && set({ weld_mm: mm })}
        />
      </Box>
      <BoltedFields
        bolts={foot.bolts}
        structure={foot.structure}
        matchMade={foot.match_made}
        path={path}
        readOnly={readOnly}
        onChange={set}
      />
      <Button disabled={readOnly} onClick={() => removeHeld('feet', foot.id)}>
        Remove {foot.name}
      </Button>
    </Row>
  )
}

const STOP_SIZES = [
  { name: 'pad_mm', label: 'Pad thickness', hint: '' },
  { name: 'wide_mm', label: 'Face, width', hint: '' },
  { name: 'arm_mm', label: 'Face, height', hint: 'Its middle above the bolts' },
  { name: 'base_mm', label: 'Foot, length', hint: 'Bolts to the edge it tips over' },
] as const

/** A block or a lip that a side of the tank pushes against. */
export function StopRow({ stop, place, readOnly }: { stop: Stop; place: number; readOnly: boolean }) {
  const open = useWork((work) => work.at?.kind === 'mount' && work.at.id === stop.id)
  const path = `mount.stops.${place}`
  const set = (part: Partial<Stop>) => changeHeld('stops', stop.id, part)
  const fault = useFaultUnder(path)
  return (
    <Row
      name={stop.name}
      aside={`${stop.bolts.count} × ${stop.bolts.size}`}
      open={open}
      onToggle={() => select(open ? null : { kind: 'mount', id: stop.id })}
      fault={fault}
      data-row={stop.id}
    >
      <NameField value={stop.name} disabled={readOnly} onCommit={(name) => set({ name })} />
      <Choice
        label="Side of the tank"
        value={stop.side}
        options={declared.Stop.choices.side}
        disabled={readOnly}
        onChange={(side) => set({ side })}
      />
      <PlaceFields at={stop} path={path} readOnly={readOnly} onChange={set} />
      <Box sx={pair}>
        {STOP_SIZES.map(({ name, label, hint }) => (
          <LengthField
            key={name}
            label={label}
            hint={hint}
            value={stop[name]}
            path={`${path}.${name}`}
            disabled={readOnly}
            onCommit={(mm) => mm !== null && set({ [name]: mm })}
          />
        ))}
      </Box>
      <BoltedFields
        bolts={stop.bolts}
        structure={stop.structure}
        matchMade={stop.match_made}
        path={path}
        readOnly={readOnly}
        onChange={set}
      />
      <Button disabled={readOnly} onClick={() => removeHeld('stops', stop.id)}>
        Remove {stop.name}
      </Button>
    </Row>
  )
}

type At = Pick<Foot, 'x_mm' | 'y_mm' | 'z_mm'>

function PlaceFields({
  at,
  path,
  readOnly,
  onChange,
}: {
  at: At
  path: string
  readOnly: boolean
  onChange: (part: Partial<At>) => void
}) {
  return (
    <Box sx={pair}>
      {(Object.keys(PLACES) as (keyof At)[]).map((name) => (
        <LengthField
          key={name}
          label={PLACES[name]}
          value={at[name]}
          path={`${path}.${name}`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && onChange({ [name]: mm })}
        />
      ))}
    </Box>
  )
}
