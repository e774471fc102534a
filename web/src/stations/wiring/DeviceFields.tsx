import { Box, Button, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { Device, DeviceDoes } from '../../api/model'
import { Choice, LengthField, NumberField, QuantityField, ShareField } from '../../fields/fields'
import { WordsField } from '../../fields/WordsField'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { pair } from '../Row'
import { changeDoes, changeTerminals } from './edits'
import { terminalsOf } from './names'

type Of<K extends DeviceDoes['kind']> = Extract<DeviceDoes, { kind: K }>
interface Props {
  device: Device
  path: string
  readOnly: boolean
}

/** What a device carries, draws, opens at. */
export function DeviceFields({ device, path, readOnly }: Props) {
  const { does } = device
  return (
    <>
      <Amperes device={device} path={path} readOnly={readOnly} />
      {does.kind === 'cut-off' && <CutOff device={device} does={does} readOnly={readOnly} />}
      {does.kind === 'connector' && <Pins device={device} does={does} path={path} readOnly={readOnly} />}
      {does.kind === 'controller' && <Outputs device={device} does={does} path={path} readOnly={readOnly} />}
      {does.kind === 'level switch' && <Level device={device} does={does} path={path} readOnly={readOnly} />}
      {does.kind === 'lamp' && (
        <WordsField
          mayBeEmpty
          label="Meaning when lit"
          value={does.means}
          most={declared.LampDoes.most.means}
          disabled={readOnly}
          onCommit={(means) => changeDoes(device, { means })}
        />
      )}
    </>
  )
}

const RATED = new Set(['relay', 'cut-off', 'switch', 'changeover switch', 'connector', 'level switch', 'fuse'])
const REPLACED = new Set(['fuse', 'relay'])

function Amperes({ device, path, readOnly }: Props) {
  const units = useUnits()
  const rating = useWork((work) => work.evaluation?.wiring?.wired?.fuses.find((one) => one.id === device.id)?.rating_a)
  // Left empty it follows from what flows: the field shows what that is.
  const chosen = typeof rating === 'number' ? units.amount('a', rating) : '–'
  const does = device.does as unknown as Record<string, number | null | undefined>
  const field = (name: string, label: string, emptyText?: string) => (
    <QuantityField
      key={name}
      label={label}
      of="a"
      value={does[name] ?? null}
      emptyText={emptyText}
      path={`${path}.does.${name}`}
      disabled={readOnly}
      onCommit={(amps) => (amps !== null || emptyText) && changeDoes(device, { [name]: amps })}
    />
  )
  const fields = [
    ...(RATED.has(device.does.kind)
      ? [device.does.kind === 'fuse' ? field('rating_a', 'Rating', chosen) : field('rating_a', 'Contact rating')]
      : []),
    ...('current_a' in device.does ? [field('current_a', 'Current')] : []),
    ...('coil_a' in device.does ? [field('coil_a', 'Coil current')] : []),
    ...(REPLACED.has(device.does.kind)
      ? [
          <QuantityField
            key="minutes"
            label="Time to replace"
            of="min"
            value={does.minutes_to_replace ?? null}
            emptyText="–"
            path={`${path}.does.minutes_to_replace`}
            disabled={readOnly}
            onCommit={(minutes_to_replace) => changeDoes(device, { minutes_to_replace })}
          />,
        ]
      : []),
  ]
  return fields.length ? <Box sx={pair}>{fields}</Box> : null
}

function CutOff({ device, does, readOnly }: { device: Device; does: Of<'cut-off'>; readOnly: boolean }) {
  return (
    <>
      <Choice
        label="Opens"
        value={does.opens}
        options={declared.CutOffDoes.choices.opens}
        disabled={readOnly}
        onChange={(opens) => changeDoes(device, { opens })}
      />
      {does.opens !== 'in a crash' && (
        <WordsField
          mayBeEmpty
          label="How pumps run before the engine does"
          value={does.primes}
          most={declared.CutOffDoes.most.primes}
          disabled={readOnly}
          onCommit={(primes) => changeDoes(device, { primes })}
        />
      )}
    </>
  )
}

function Pins({ device, does, path, readOnly }: Props & { does: Of<'connector'> }) {
  return (
    <Box sx={pair}>
      <NumberField
        label="Pins"
        value={does.pins}
        path={`${path}.does.pins`}
        disabled={readOnly}
        onCommit={(pins) =>
          pins !== null &&
          changeTerminals(device, { pins }, terminalsOf({ does: { ...does, pins: Math.max(0, Math.min(99, pins)) } }))
        }
      />
      <QuantityField
        label="Pair of pins"
        of="mohm"
        value={does.contact_mohm}
        path={`${path}.does.contact_mohm`}
        disabled={readOnly}
        onCommit={(contact_mohm) => contact_mohm !== null && changeDoes(device, { contact_mohm })}
      />
    </Box>
  )
}

function Outputs({ device, does, path, readOnly }: Props & { does: Of<'controller'> }) {
  const put = (outputs: typeof does.outputs) =>
    changeTerminals(device, { outputs }, terminalsOf({ does: { ...does, outputs } }))
  const set = (place: number, part: object) =>
    put(does.outputs.map((one, n) => (n === place ? { ...one, ...part } : one)) as typeof does.outputs)
  return (
    <>
      {does.outputs.map((output, n) => (
        <Box key={n} data-output={n + 1}>
          <Typography variant="body2" sx={{ fontWeight: 650, mb: 1 }}>
            Output {n + 1}
          </Typography>
          <Box sx={pair}>
            <Choice
              label="Switches"
              value={output.switches}
              options={declared.StagedOutput.choices.switches}
              disabled={readOnly}
              onChange={(switches) => set(n, { switches })}
            />
            <QuantityField
              label="Output rating"
              of="a"
              value={output.rating_a}
              path={`${path}.does.outputs.${n}.rating_a`}
              disabled={readOnly}
              onCommit={(rating_a) => rating_a !== null && set(n, { rating_a })}
            />
            <ShareField
              label="On from"
              hint="of full power’s fuel"
              value={output.from_draw ?? null}
              emptyText="always"
              path={`${path}.does.outputs.${n}.from_draw`}
              disabled={readOnly}
              onCommit={(from_draw) => set(n, { from_draw })}
            />
            <QuantityField
              label="On from manifold"
              of="kpa"
              value={output.from_manifold_kpa ?? null}
              emptyText="always"
              path={`${path}.does.outputs.${n}.from_manifold_kpa`}
              disabled={readOnly}
              onCommit={(from_manifold_kpa) => set(n, { from_manifold_kpa })}
            />
          </Box>
        </Box>
      ))}
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button
          variant="outlined"
          disabled={readOnly || does.outputs.length >= declared.ControllerDoes.most.outputs}
          onClick={() => put([...does.outputs, { ...declared.StagedOutput.defaults }])}
        >
          Add an output
        </Button>
        {does.outputs.length > 1 && (
          <Button disabled={readOnly} onClick={() => put(does.outputs.slice(0, -1))}>
            Remove the last
          </Button>
        )}
      </Box>
    </>
  )
}

function Level({ device, does, path, readOnly }: Props & { does: Of<'level switch'> }) {
  const surge = useWork((work) => work.design.lines.parts).filter((part) => part.does.kind === 'surge tank')
  return (
    <>
      <Choice
        label="Tank it is in"
        value={does.tank ?? ''}
        options={[{ value: '', label: 'this tank' }, ...surge.map((part) => ({ value: part.id, label: part.name }))]}
        disabled={readOnly}
        onChange={(tank) => changeDoes(device, { tank: tank || null })}
      />
      <Box sx={pair}>
        <Choice
          label="Closes"
          value={does.closes}
          options={declared.LevelSwitchDoes.choices.closes}
          disabled={readOnly}
          onChange={(closes) => changeDoes(device, { closes })}
        />
        <LengthField
          label="Level over the floor"
          value={does.height_mm ?? null}
          emptyText="not set"
          path={`${path}.does.height_mm`}
          disabled={readOnly}
          onCommit={(height_mm) => changeDoes(device, { height_mm })}
        />
      </Box>
    </>
  )
}
