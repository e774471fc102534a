import { Box, Button, TextField, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Port } from '../../api/model'
import { changePort } from '../../drawing/edits'
import { Choice, LengthField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { change, select, useWork } from '../../work/store'

const ROLES: { value: Port['role']; label: string }[] = [
  { value: 'pickup', label: 'pickup, where fuel is drawn' },
  { value: 'vent', label: 'vent, where air gets out' },
  { value: 'filler', label: 'filler' },
  { value: 'fitting', label: 'other fitting on the lid' },
]

/** Where fuel is drawn and air gets out; what it leaves behind and traps; and what stands up over the lid. */
export function PortsPanel({ readOnly }: { readOnly: boolean }) {
  const ports = useWork((work) => work.design.ports)
  const chosen = useWork((work) => (work.at?.kind === 'port' ? work.at.id : null))
  const add = (role: Port['role']) => {
    const fresh = freshPort(role)
    if (!fresh) return
    change((design) => ({ ...design, ports: [...design.ports, fresh] }))
    select({ kind: 'port', id: fresh.id })
  }
  return (
    <>
      <DrainedLines />
      {ports.map((port) => (
        <PortRow key={port.id} port={port} chosen={port.id === chosen} readOnly={readOnly} />
      ))}
      {ports.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          Place a pickup to see what it leaves behind, and a vent to see what air it traps. Both come off what you can use.
        </Typography>
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        {(['pickup', 'vent', 'filler', 'fitting'] as const).map((role) => (
          <Button key={role} variant="outlined" disabled={readOnly || ports.length >= 40} onClick={() => add(role)}>
            Add a {role}
          </Button>
        ))}
      </Box>
    </>
  )
}

/** In the attitude shown: what stays in each cell, pool by pool, and what air. */
function DrainedLines() {
  const drained = useWork((work) => work.evaluation?.drained) ?? []
  const units = useUnits()
  const told = drained.filter((cell) => cell.stranded_l !== null || cell.trapped_l !== null)
  return told.map((cell) => (
    <Typography key={cell.cell} variant="body2" data-drained={cell.cell}>
      {drained.length > 1 ? `${cell.cell}: ` : ''}
      {cell.stranded_l !== null && `${units.volumeUnitText(cell.stranded_l)} can’t be drawn as it stands${cell.pools.length > 1 ? `, in ${cell.pools.length} pools` : ''}. `}
      {cell.trapped_l !== null && cell.trapped_l >= 0.005 && `${units.volumeUnitText(cell.trapped_l)} of air can’t get out.`}
    </Typography>
  ))
}

function freshPort(role: Port['role']): Port | null {
  const { design, evaluation } = useWork.getState()
  const shape = evaluation?.geometry
  if (!shape) return null
  let number = 1
  while (design.ports.some((port) => port.id === `${role}-${number}`)) number += 1
  const { body } = shape
  const middle = (axis: 'x' | 'y') => Math.round((body.high[axis] - body.low[axis]) / 2)
  return { id: `${role}-${number}`, name: number > 1 ? `${role} ${number}` : role, role, x_mm: middle('x'), y_mm: middle('y'), z_mm: null, stands_mm: role === 'pickup' ? 0 : 40, across_mm: 60 }
}

function PortRow({ port, chosen, readOnly }: { port: Port; chosen: boolean; readOnly: boolean }) {
  const { inks } = useTheme()
  const units = useUnits()
  const [name, setName] = useState(port.name)
  const field = (label: string, key: 'x_mm' | 'y_mm' | 'stands_mm' | 'across_mm') => <LengthField label={label} value={port[key]} disabled={readOnly} onCommit={(mm) => mm !== null && changePort(port.id, { [key]: mm })} />
  return (
    <Box sx={{ border: `1px solid ${chosen ? inks.hand : inks.line}`, p: 1 }}>
      <Button fullWidth onClick={() => select(chosen ? null : { kind: 'port', id: port.id })} aria-expanded={chosen} sx={{ justifyContent: 'space-between', color: 'text.primary', px: 0.5 }}>
        <span>{port.name}</span>
        <span style={{ fontWeight: 500, fontSize: 13 }}>{port.role}</span>
      </Button>
      {chosen && (
        <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.5, mt: 1 }}>
          <TextField label="Name" value={name} disabled={readOnly} onChange={(event) => setName(event.target.value.slice(0, 80))} onBlur={() => (name.trim() ? changePort(port.id, { name: name.trim() }) : setName(port.name))} />
          <Choice label="Is a" value={port.role} options={ROLES} disabled={readOnly} onChange={(role) => changePort(port.id, { role })} />
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
            {field('From rear', 'x_mm')}
            {field('From right', 'y_mm')}
            <LengthField
              label={port.role === 'pickup' ? 'Inlet above underside' : 'Opening above underside'}
              value={port.z_mm ?? null}
              emptyText={port.role === 'pickup' ? 'off the floor' : 'flush under the lid'}
              hint={port.z_mm === null ? (port.role === 'pickup' ? `follows the floor, ${units.lengthUnitText(5)} off it (house rule)` : 'follows the lid') : 'typed; empty follows the tank'}
              disabled={readOnly}
              onCommit={(z_mm) => changePort(port.id, { z_mm })}
            />
            {field('Stands on the lid by', 'stands_mm')}
            {field('and is wide', 'across_mm')}
          </Box>
          <Button
            disabled={readOnly}
            onClick={() => {
              select(null)
              change((design) => ({ ...design, ports: design.ports.filter((item) => item.id !== port.id) }))
            }}
          >
            Remove {port.name}
          </Button>
        </Box>
      )}
    </Box>
  )
}
