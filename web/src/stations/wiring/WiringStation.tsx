import { Alert, Button, Typography } from '@mui/material'
import type { ReactNode } from 'react'
import type { Joined } from '../../api/model'
import { Papers } from '../../papers/Papers'
import { select, useWork } from '../../work/store'
import { Folded } from '../Folded'
import { Row } from '../Row'
import { AddDevice } from './AddDevice'
import { Bonds } from './Bonds'
import { DeviceRow } from './DeviceRow'
import { FeedWays } from './FeedWays'
import { endNamed, terminalsOfKind } from './names'
import { Terminals } from './Terminals'
import { drawFrom, useWiringView } from './view'
import { WireRow } from './WireRow'

/** Current to the pumps, signals of the senders, bonds. */
export function WiringStation({ findings }: { findings: ReactNode }) {
  const wiring = useWork((work) => work.design.wiring)
  const readOnly = useWork((work) => work.readOnly)
  const shaped = useWork((work) => Boolean(work.evaluation?.shell?.geometry))
  if (!shaped) return <Typography variant="body2">No tank to wire yet: give it a shape at Shell first.</Typography>
  const isEmpty = !wiring.devices.length
  return (
    <>
      {isEmpty && (
        <>
          <Typography variant="body2">
            Press a way to feed the pumps: battery, fuses, relays, cut-off, plug and wires are drawn with this design’s
            figures. Or add devices, then press “Wire from” at one terminal and “To here” at another.
          </Typography>
          <FeedWays />
        </>
      )}
      <Joining />
      {findings}
      <AddDevice readOnly={readOnly} />
      {wiring.devices.map((device, place) => (
        <DeviceRow key={device.id} device={device} place={place} readOnly={readOnly} />
      ))}
      <Loads readOnly={readOnly} />
      {wiring.wires.length > 0 && <Typography variant="h3">Wires</Typography>}
      {wiring.wires.map((wire, place) => (
        <WireRow key={wire.id} wire={wire} place={place} readOnly={readOnly} />
      ))}
      {!isEmpty && (
        <Folded title="Ways to feed the pumps">
          <FeedWays />
        </Folded>
      )}
      <Folded title="Bonds">
        <Bonds readOnly={readOnly} />
      </Folded>
      {!isEmpty && (
        <Folded title="Download">
          <Papers station="wiring" />
        </Folded>
      )}
    </>
  )
}

/** Where a wire is being drawn from, and how to leave it. */
function Joining() {
  const from = useWiringView((view) => view.from)
  const joined = useWork((work) => work.evaluation?.wiring?.runs?.joined)
  if (!from) return null
  return (
    <Alert
      severity="info"
      action={
        <Button size="small" onClick={() => drawFrom(null)}>
          Cancel
        </Button>
      }
    >
      Wire from {endNamed(from, joined)}: open what it goes to, here or on the drawing, and press “To here”.
    </Alert>
  )
}

/** Pumps and senders of other stations: their terminals. */
function Loads({ readOnly }: { readOnly: boolean }) {
  const joined = useWork((work) => work.evaluation?.wiring?.runs?.joined) ?? []
  const others = joined.filter((one) => one.of !== 'device')
  if (!others.length) return null
  return (
    <>
      <Typography variant="h3">Pumps and senders</Typography>
      {others.map((one) => (
        <LoadRow key={`${one.of}-${one.id}`} one={one} readOnly={readOnly} />
      ))}
    </>
  )
}

function LoadRow({ one, readOnly }: { one: Joined; readOnly: boolean }) {
  const kind = one.of === 'pump' ? 'line part' : 'sender'
  const open = useWork((work) => work.at?.kind === kind && work.at.id === one.id)
  const load = useWork((work) => work.evaluation?.wiring?.wired?.loads.find((l) => l.of === one.of && l.id === one.id))
  const lost = load?.drop_v
  return (
    <Row
      name={one.name}
      aside={typeof lost === 'number' ? `${lost.toFixed(2)} V lost` : one.of === 'pump' ? 'no way to it yet' : 'sender'}
      open={open}
      onToggle={() => select(open ? null : { kind, id: one.id })}
      data-row={one.id}
    >
      <Terminals
        of={one.of === 'pump' ? 'pump' : 'sender'}
        id={one.id}
        names={terminalsOfKind(one.of === 'pump' ? 'pump' : 'sender')}
        readOnly={readOnly}
      />
    </Row>
  )
}
