import { Box, Button } from '@mui/material'
import * as declared from '../../api/declared'
import type { Port } from '../../api/model'
import { changePort } from '../../drawing/edits'
import { labelled } from '../../fields/choices'
import { Choice, LengthField, MaybeChoice, NumberField, QuantityField } from '../../fields/fields'
import { WordsField } from '../../fields/WordsField'
import { Folded } from '../Folded'
import { pair } from '../Row'
import { changeInner, NEW_SEAT } from './edits'

type Seat = NonNullable<Port['seat']>
type LengthName = 'hole_mm' | 'outer_mm' | 'bolt_circle_mm' | 'bolt_mm' | 'plate_mm'
const KINDS = labelled(declared.Seat.choices.kind, {
  boss: 'threaded boss',
  flange: 'flange ring with bolts',
  'lock ring': 'ring with a lock that turns',
  neck: 'welded neck',
})

/** What is welded or bolted in round the hole. */
export function SeatFields({ port, place, readOnly }: { port: Port; place: number; readOnly: boolean }) {
  const { seat } = port
  if (!seat) {
    return (
      <Button variant="outlined" disabled={readOnly} onClick={() => changePort(port.id, { seat: NEW_SEAT })}>
        Add a seat
      </Button>
    )
  }
  const length = (name: LengthName, label: string, empty?: string) => (
    <LengthField
      label={label}
      value={seat[name] ?? null}
      emptyText={empty}
      path={`ports.${place}.seat.${name}`}
      disabled={readOnly}
      onCommit={(mm) => (mm !== null || empty !== undefined) && changeInner(port, 'seat', { [name]: mm })}
    />
  )
  return (
    <Folded title={`Seat: ${seat.kind}`}>
      <Choice
        label="Seat type"
        value={seat.kind}
        options={KINDS}
        disabled={readOnly}
        onChange={(kind) => changeInner(port, 'seat', { kind })}
      />
      <Box sx={pair}>
        {length('hole_mm', 'Hole')}
        {length('outer_mm', 'Outside')}
        {length('plate_mm', 'Ring thickness', 'none')}
        {seat.kind === 'flange' && (
          <>
            {length('bolt_circle_mm', 'Bolt circle', 'not said')}
            <NumberField
              label="Bolts"
              value={seat.bolts ?? null}
              emptyText="none"
              path={`ports.${place}.seat.bolts`}
              disabled={readOnly}
              onCommit={(bolts) => changeInner(port, 'seat', { bolts })}
            />
            {length('bolt_mm', 'Bolt hole', 'not said')}
            <QuantityField
              label="Full torque"
              of="nm"
              value={seat.torque_nm ?? null}
              emptyText="not said"
              path={`ports.${place}.seat.torque_nm`}
              disabled={readOnly}
              onCommit={(torque_nm) => changeInner(port, 'seat', { torque_nm })}
            />
          </>
        )}
        {seat.kind === 'boss' && <Thread key={seat.thread} port={port} seat={seat} readOnly={readOnly} />}
      </Box>
      <MaybeChoice
        label="Seal"
        value={seat.seal}
        options={declared.Seat.choices.seal}
        none="not said"
        disabled={readOnly}
        onChange={(seal) => changeInner(port, 'seat', { seal })}
      />
      <Button disabled={readOnly} onClick={() => changePort(port.id, { seat: null })}>
        Remove the seat
      </Button>
    </Folded>
  )
}

function Thread({ port, seat, readOnly }: { port: Port; seat: Seat; readOnly: boolean }) {
  return (
    <WordsField
      label="Thread"
      mayBeEmpty
      value={seat.thread}
      most={declared.Seat.most.thread}
      disabled={readOnly}
      onCommit={(thread) => changeInner(port, 'seat', { thread })}
    />
  )
}
