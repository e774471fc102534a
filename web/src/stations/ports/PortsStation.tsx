import { MenuItem, TextField, Typography } from '@mui/material'
import type { ReactNode } from 'react'
import * as declared from '../../api/declared'
import type { Port } from '../../api/model'
import { useWork } from '../../work/store'
import { Folded } from '../Folded'
import { FillFields } from '../shell/FillFields'
import { Papers } from '../../papers/Papers'
import { addPort, ROLES } from './edits'
import { FillingFields } from './FillingFields'
import { PortRow } from './PortFields'

/** Where fuel is drawn, air gets out and fuel comes in. */
export function PortsStation({ findings }: { findings: ReactNode }) {
  const ports = useWork((work) => work.design.ports)
  const chosen = useWork((work) => (work.at?.kind === 'port' ? work.at.id : null))
  const readOnly = useWork((work) => work.readOnly)
  const shaped = useWork((work) => Boolean(work.evaluation?.shell?.geometry))
  if (!shaped)
    return <Typography variant="body2">Ports go through the tank’s faces: give it a shape at Shell first.</Typography>
  return (
    <>
      {ports.map((port, place) => (
        <PortRow key={port.id} port={port} place={place} chosen={port.id === chosen} readOnly={readOnly} />
      ))}
      {ports.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          Place a pickup to see what it leaves behind, a filler and a vent to see how it fills and what air it traps.
          All of it comes off what you can use.
        </Typography>
      )}
      <TextField
        select
        label="Add a port"
        value=""
        disabled={readOnly || ports.length >= declared.Design.most.ports}
        onChange={(event) => addPort(event.target.value as Port['role'])}
      >
        {ROLES.map(({ value, label }) => (
          <MenuItem key={value} value={value} sx={{ minHeight: 44 }}>
            {label}
          </MenuItem>
        ))}
      </TextField>
      {findings}
      <Folded title="Filling and drawing" open={ports.some((port) => port.role === 'filler')}>
        <FillingFields readOnly={readOnly} />
      </Folded>
      <Folded title="Fuel shown, and what stays" open={ports.length > 0}>
        <FillFields />
      </Folded>
      <Folded title="Download">
        <Papers station="ports" />
      </Folded>
    </>
  )
}
