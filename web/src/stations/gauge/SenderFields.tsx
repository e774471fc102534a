import { Box, Button, Typography } from '@mui/material'
import type { Sender, SenderReading, SwingArm } from '../../api/model'
import { Choice, LengthField, QuantityField } from '../../fields/fields'
import { NameField } from '../../fields/WordsField'
import { useUnits } from '../../units/useUnits'
import { select, useFaultUnder, useWork } from '../../work/store'
import { pair, Row } from '../Row'
import { changeAction, changeSender, NEW_ARM, NEW_TUBE, removeSender } from './edits'

/** One sender: where it hangs, how its float moves, its marks and ohms. */
export function SenderRow({
  sender,
  place,
  chosen,
  readOnly,
}: {
  sender: Sender
  place: number
  chosen: boolean
  readOnly: boolean
}) {
  const units = useUnits()
  const reading = useWork((work) => work.evaluation?.gauge?.truth?.readings.find((item) => item.id === sender.id))
  const fault = useFaultUnder(`gauge.senders.${place}`)
  const path = `gauge.senders.${place}`
  const length = (name: 'x_mm' | 'y_mm', label: string) => (
    <LengthField
      label={label}
      value={sender[name]}
      path={`${path}.${name}`}
      disabled={readOnly}
      onCommit={(mm) => mm !== null && changeSender(sender.id, { [name]: mm })}
    />
  )
  return (
    <Row
      name={sender.name}
      aside={reading ? `${units.volumeUnitText(reading.left_at_empty_l)} at E` : sender.action.kind}
      open={chosen}
      onToggle={() => select(chosen ? null : { kind: 'sender', id: sender.id })}
      fault={fault}
      data-row={sender.id}
    >
      <NameField value={sender.name} disabled={readOnly} onCommit={(name) => changeSender(sender.id, { name })} />
      <Choice
        label="Sensing principle"
        value={sender.action.kind}
        options={['swing arm', 'tube'] as const}
        disabled={readOnly}
        onChange={(kind) => changeSender(sender.id, { action: kind === 'tube' ? NEW_TUBE : NEW_ARM })}
      />
      <Box sx={pair}>
        {length('x_mm', 'From rear')}
        {length('y_mm', 'From right')}
      </Box>
      {sender.action.kind === 'swing arm' ? (
        <ArmFields sender={sender} arm={sender.action} path={`${path}.action`} readOnly={readOnly} />
      ) : (
        <TubeLength
          sender={sender}
          value={sender.action.length_mm ?? null}
          path={`${path}.action.length_mm`}
          readOnly={readOnly}
        />
      )}
      <Box sx={pair}>
        <LengthField
          label="Float at the E mark"
          value={sender.empty_mm ?? null}
          emptyText={reading ? units.editLength(reading.empty_mm) : 'clear of floor'}
          path={`${path}.empty_mm`}
          disabled={readOnly}
          onCommit={(empty_mm) => changeSender(sender.id, { empty_mm })}
        />
        <LengthField
          label="Float at the F mark"
          value={sender.full_mm ?? null}
          emptyText={reading ? units.editLength(reading.full_mm) : 'clear of roof'}
          path={`${path}.full_mm`}
          disabled={readOnly}
          onCommit={(full_mm) => changeSender(sender.id, { full_mm })}
        />
        <QuantityField
          label="Resistance at empty"
          of="ohm"
          value={sender.ohms_empty}
          path={`${path}.ohms_empty`}
          disabled={readOnly}
          onCommit={(ohms_empty) => ohms_empty !== null && changeSender(sender.id, { ohms_empty })}
        />
        <QuantityField
          label="Resistance at full"
          of="ohm"
          value={sender.ohms_full}
          path={`${path}.ohms_full`}
          disabled={readOnly}
          onCommit={(ohms_full) => ohms_full !== null && changeSender(sender.id, { ohms_full })}
        />
      </Box>
      {reading && <ArmWords reading={reading} />}
      <Button disabled={readOnly} onClick={() => removeSender(sender.id)}>
        Remove {sender.name}
      </Button>
    </Row>
  )
}

/** What to do to the arm for this depth. */
function ArmWords({ reading }: { reading: SenderReading }) {
  const units = useUnits()
  if (reading.arm_mm === null || reading.arm_more_mm === null || reading.pivot_mm === null) return null
  const more = reading.arm_more_mm
  return (
    <Typography variant="body2" data-arm={reading.id}>
      {Math.abs(more) < 0.05
        ? 'The arm stays as it is'
        : `${more > 0 ? 'Lengthen' : 'Shorten'} the arm by ${units.lengthUnitText(Math.abs(more))}, to ${units.lengthUnitText(reading.arm_mm)}`}
      ; its pivot stands {units.lengthUnitText(reading.pivot_mm)} over the inner floor there.
    </Typography>
  )
}

type Measured = 'empty_rise_mm' | 'full_rise_mm'

function ArmFields({
  sender,
  arm,
  path,
  readOnly,
}: {
  sender: Sender
  arm: SwingArm
  path: string
  readOnly: boolean
}) {
  const measured = arm.empty_rise_mm !== null || arm.full_rise_mm !== null
  const set = (part: Partial<SwingArm>) => changeAction(sender, part)
  const rise = (name: Measured, label: string) => (
    <LengthField
      label={label}
      value={arm[name] ?? null}
      path={`${path}.${name}`}
      disabled={readOnly}
      onCommit={(mm) => mm !== null && set({ [name]: mm })}
    />
  )
  return (
    <>
      <Choice
        label="Stops given by"
        value={measured ? 'measured' : 'angles'}
        options={[
          { value: 'angles', label: 'known by their angles' },
          { value: 'measured', label: 'measured: the float against the pivot' },
        ]}
        disabled={readOnly}
        onChange={(way) => {
          const half = Math.round(arm.made_arm_mm * 0.7)
          set(
            way === 'measured'
              ? { empty_deg: null, full_deg: null, empty_rise_mm: -half, full_rise_mm: half }
              : { empty_deg: -45, full_deg: 45, empty_rise_mm: null, full_rise_mm: null },
          )
        }}
      />
      <Box sx={pair}>
        <LengthField
          label="Arm length as delivered"
          value={arm.made_arm_mm}
          path={`${path}.made_arm_mm`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && set({ made_arm_mm: mm })}
        />
        <LengthField
          label="Float diameter"
          value={arm.float_mm}
          path={`${path}.float_mm`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && set({ float_mm: mm })}
        />
        {measured ? (
          <>
            {rise('empty_rise_mm', 'Over pivot, empty')}
            {rise('full_rise_mm', 'Over pivot, full')}
          </>
        ) : (
          <>
            <QuantityField
              label="Angle at the empty stop"
              of="deg"
              value={arm.empty_deg ?? null}
              path={`${path}.empty_deg`}
              disabled={readOnly}
              onCommit={(deg) => deg !== null && set({ empty_deg: deg })}
            />
            <QuantityField
              label="Angle at the full stop"
              of="deg"
              value={arm.full_deg ?? null}
              path={`${path}.full_deg`}
              disabled={readOnly}
              onCommit={(deg) => deg !== null && set({ full_deg: deg })}
            />
          </>
        )}
        <QuantityField
          label="Arm direction"
          of="deg"
          value={arm.heading_deg}
          hint="from forward, to the left"
          path={`${path}.heading_deg`}
          disabled={readOnly}
          onCommit={(heading_deg) => heading_deg !== null && set({ heading_deg })}
        />
      </Box>
      <Choice
        label="Fitting method"
        value={arm.method}
        options={[
          { value: 'new arm and pivot', label: 'with arm and pivot made for this depth' },
          { value: 'as supplied', label: 'as it comes' },
        ]}
        disabled={readOnly}
        onChange={(method) => set({ method })}
      />
      {arm.method === 'as supplied' && (
        <LengthField
          label="Pivot height over the inner floor"
          value={arm.pivot_mm ?? null}
          emptyText="true at full"
          path={`${path}.pivot_mm`}
          disabled={readOnly}
          onCommit={(pivot_mm) => set({ pivot_mm })}
        />
      )}
    </>
  )
}

function TubeLength({
  sender,
  value,
  path,
  readOnly,
}: {
  sender: Sender
  value: number | null
  path: string
  readOnly: boolean
}) {
  return (
    <LengthField
      label="Tube’s working length"
      value={value}
      emptyText="the depth there"
      path={path}
      disabled={readOnly}
      onCommit={(length_mm) => changeAction(sender, { length_mm })}
    />
  )
}
