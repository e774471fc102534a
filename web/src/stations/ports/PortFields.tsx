import { Box, Button, MenuItem, TextField, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import * as declared from '../../api/declared'
import type { Port, PortPart } from '../../api/model'
import { changePort } from '../../drawing/edits'
import { Choice, LengthField, QuantityField, Toggle } from '../../fields/fields'
import { NameField } from '../../fields/WordsField'
import { useUnits } from '../../units/useUnits'
import { select, useFaultUnder, useWork } from '../../work/store'
import { workshopQuery } from '../../workshop/query'
import { Folded } from '../Folded'
import { pair, Row } from '../Row'
import { BendFields } from './BendFields'
import { changeRole, fitPart, removePort, ROLES } from './edits'
import { HangerFields } from './HangerFields'
import { NeckFields, VentFields } from './PathFields'
import { SeatFields } from './SeatFields'

/** One port: which part it is, where it sits, what stands and hangs there, and its path. */
export function PortRow({
  port,
  place,
  chosen,
  readOnly,
}: {
  port: Port
  place: number
  chosen: boolean
  readOnly: boolean
}) {
  const units = useUnits()
  const reach = useWork((work) => work.evaluation?.ports?.reaches?.find((item) => item.id === port.id))
  const fault = useFaultUnder(`ports.${place}`)
  const short = reach && reach.short_mm > 0.05 ? `, ${units.lengthUnitText(reach.short_mm)} short` : ''
  return (
    <Row
      name={port.name}
      aside={port.role + (port.capped ? ', capped' : short)}
      open={chosen}
      onToggle={() => select(chosen ? null : { kind: 'port', id: port.id })}
      fault={fault}
      data-row={port.id}
    >
      <FromLibrary port={port} readOnly={readOnly} />
      <NameField value={port.name} disabled={readOnly} onCommit={(name) => changePort(port.id, { name })} />
      <Choice
        label="Role"
        value={port.role}
        options={ROLES}
        disabled={readOnly}
        onChange={(role) => changeRole(port, role)}
      />
      <Choice
        label="Face"
        value={port.face}
        options={declared.Port.choices.face}
        disabled={readOnly}
        onChange={(face) => changePort(port.id, { face })}
      />
      <Box sx={pair}>
        <PortLength port={port} place={place} name="x_mm" label="From rear" readOnly={readOnly} />
        <PortLength port={port} place={place} name="y_mm" label="From right" readOnly={readOnly} />
      </Box>
      <OpeningField port={port} place={place} readOnly={readOnly} />
      <Folded title="Outside and inside the tank">
        <Box sx={pair}>
          <PortLength port={port} place={place} name="stands_mm" label="Outside height" readOnly={readOnly} />
          <PortLength port={port} place={place} name="across_mm" label="Outside width" readOnly={readOnly} />
          <PortLength port={port} place={place} name="hangs_mm" label="Inside depth" readOnly={readOnly} />
          <PortLength port={port} place={place} name="hangs_across_mm" label="Inside width" readOnly={readOnly} />
          <PortLength port={port} place={place} name="diagonal_mm" label="Insertion diagonal" readOnly={readOnly} />
          <PortLength
            port={port}
            place={place}
            name="spanner_mm"
            label="Spanner clearance radius"
            readOnly={readOnly}
          />
        </Box>
      </Folded>
      <BendFields port={port} place={place} readOnly={readOnly} />
      <SeatFields port={port} place={place} readOnly={readOnly} />
      {(port.role === 'pickup' || port.role === 'transfer') && (
        <HangerFields port={port} place={place} readOnly={readOnly} />
      )}
      {(port.role === 'vent' || port.role === 'overflow') && port.vent && (
        <VentFields port={port} vent={port.vent} place={place} readOnly={readOnly} />
      )}
      {port.role === 'filler' && port.neck && (
        <NeckFields port={port} neck={port.neck} place={place} readOnly={readOnly} />
      )}
      <Box sx={pair}>
        <QuantityField
          label="First bolt or mark, angle"
          of="deg"
          value={port.clock_deg}
          disabled={readOnly}
          onCommit={(clock_deg) => clock_deg !== null && changePort(port.id, { clock_deg })}
        />
        {port.seat?.kind === 'lock ring' && (
          <QuantityField
            label="Lock ring stop"
            of="deg"
            value={port.stop_deg ?? null}
            emptyText="not said"
            disabled={readOnly}
            onCommit={(stop_deg) => changePort(port.id, { stop_deg })}
          />
        )}
        <QuantityField
          label="Hose direction"
          of="deg"
          value={port.hose_deg ?? null}
          emptyText={port.bend ? 'forward' : 'not said'}
          disabled={readOnly}
          onCommit={(hose_deg) => changePort(port.id, { hose_deg })}
        />
      </Box>
      <Typography variant="body2" color="textSecondary">
        Angles from forward, to the left, seen from outside. Turn them on the plan by their grips too.
      </Typography>
      {port.role === 'transfer' && (
        <Toggle
          label="Driven by its own pump"
          checked={port.pumped}
          disabled={readOnly}
          onChange={(pumped) => changePort(port.id, { pumped })}
        />
      )}
      <Toggle
        label="Capped, not in use"
        checked={port.capped}
        disabled={readOnly}
        onChange={(capped) => changePort(port.id, { capped })}
      />
      <Button disabled={readOnly} onClick={() => removePort(port.id)}>
        Remove {port.name}
      </Button>
    </Row>
  )
}

function FromLibrary({ port, readOnly }: { port: Port; readOnly: boolean }) {
  const parts = useQuery(workshopQuery).data?.settings.parts ?? []
  const place = parts.findIndex((part) => part.name === port.part)
  if (!parts.length) return null
  const fit = (part: PortPart | undefined) => part && fitPart(port, part)
  return (
    <TextField
      select
      label="Part from the library"
      value={place < 0 ? '' : place}
      disabled={readOnly}
      helperText="its sizes are copied; change them freely"
      onChange={(event) => fit(parts[Number(event.target.value)])}
    >
      {parts.map((part, here) => (
        <MenuItem key={part.name} value={here} sx={{ minHeight: 44 }}>
          {part.name}, {part.role}
        </MenuItem>
      ))}
    </TextField>
  )
}

type LengthName =
  'x_mm' | 'y_mm' | 'stands_mm' | 'across_mm' | 'hangs_mm' | 'hangs_across_mm' | 'diagonal_mm' | 'spanner_mm'

function PortLength({
  port,
  place,
  name,
  label,
  readOnly,
}: {
  port: Port
  place: number
  name: LengthName
  label: string
  readOnly: boolean
}) {
  return (
    <LengthField
      label={label}
      value={port[name]}
      path={`ports.${place}.${name}`}
      disabled={readOnly}
      onCommit={(mm) => mm !== null && changePort(port.id, { [name]: mm })}
    />
  )
}

function OpeningField({ port, place, readOnly }: { port: Port; place: number; readOnly: boolean }) {
  const draws = port.role === 'pickup' || port.role === 'transfer'
  const low = draws || port.role === 'drain'
  return (
    <LengthField
      label={draws ? 'Inlet above underside' : 'Opening above underside'}
      value={port.z_mm ?? null}
      emptyText={draws ? 'off the floor' : low ? 'on the floor' : 'flush under the lid'}
      hint={port.z_mm === null ? (low ? 'follows the floor' : 'follows the lid') : 'typed; empty follows the tank'}
      path={`ports.${place}.z_mm`}
      disabled={readOnly}
      onCommit={(z_mm) => changePort(port.id, { z_mm })}
    />
  )
}
