import { Box, Button, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { Device } from '../../api/model'
import { Choice, LengthField, NumberField, Toggle } from '../../fields/fields'
import { NameField, WordsField } from '../../fields/WordsField'
import { useUnits } from '../../units/useUnits'
import { select, useFaultUnder, useWork } from '../../work/store'
import { pair, Row } from '../Row'
import { DeviceFields } from './DeviceFields'
import { changeDevice, removeDevice } from './edits'
import { terminalsOf } from './names'
import { Terminals } from './Terminals'

/** One device: its terminals with their wires, what it carries, where it stands. */
export function DeviceRow({ device, place, readOnly }: { device: Device; place: number; readOnly: boolean }) {
  const open = useWork((work) => work.at?.kind === 'device' && work.at.id === device.id)
  const path = `wiring.devices.${place}`
  const fault = useFaultUnder(path)
  const length = (name: 'x_mm' | 'y_mm' | 'z_mm', label: string) => (
    <LengthField
      label={label}
      value={device[name]}
      path={`${path}.${name}`}
      disabled={readOnly}
      onCommit={(mm) => mm !== null && changeDevice(device.id, { [name]: mm })}
    />
  )
  return (
    <Row
      name={device.name}
      aside={useAside(device)}
      open={open}
      onToggle={() => select(open ? null : { kind: 'device', id: device.id })}
      fault={fault}
      data-row={device.id}
    >
      <NameField value={device.name} disabled={readOnly} onCommit={(name) => changeDevice(device.id, { name })} />
      <DeviceFields device={device} path={path} readOnly={readOnly} />
      <Terminals of="device" id={device.id} names={terminalsOf(device)} readOnly={readOnly} />
      <Choice
        label="Stands"
        value={device.stands}
        options={declared.Device.choices.stands}
        disabled={readOnly}
        onChange={(stands) => changeDevice(device.id, { stands })}
      />
      {device.stands === 'in the tank' && (
        <Toggle
          label="Sealed: no spark reaches vapour"
          checked={device.sealed}
          disabled={readOnly}
          onChange={(sealed) => changeDevice(device.id, { sealed })}
        />
      )}
      <Typography variant="body2">Its middle in the bay</Typography>
      <Box sx={pair}>
        {length('x_mm', 'From the rear')}
        {length('y_mm', 'From the right')}
        {length('z_mm', 'Above the floor')}
        <NumberField
          label="Price"
          value={device.price ?? null}
          emptyText="not known"
          path={`${path}.price`}
          disabled={readOnly}
          onCommit={(price) => changeDevice(device.id, { price })}
        />
      </Box>
      <WordsField
        mayBeEmpty
        label="Markings at its terminals"
        value={device.marking}
        most={declared.Device.most.marking}
        disabled={readOnly}
        onCommit={(marking) => changeDevice(device.id, { marking })}
      />
      <Button disabled={readOnly} onClick={() => removeDevice(device.id)}>
        Remove {device.name}
      </Button>
    </Row>
  )
}

/** What flows through it against what it may carry, in a few words. */
function useAside(device: Device): string {
  const units = useUnits()
  const wired = useWork((work) => work.evaluation?.wiring?.wired)
  const fuse = wired?.fuses.find((one) => one.id === device.id)
  if (fuse && fuse.rating_a !== null)
    return `${units.quantity('a', fuse.rating_a, 1)}, carries ${units.amount('a', fuse.current_a)}`
  const contacts = wired?.contacts.filter((one) => one.id === device.id) ?? []
  const most = contacts.reduce<number | null>((best, one) => Math.max(best ?? 0, one.current_a), null)
  if (most !== null) return `carries ${units.quantity('a', most)}`
  return 'current_a' in device.does ? units.quantity('a', device.does.current_a) : device.does.kind
}
