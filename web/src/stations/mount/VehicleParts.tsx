import { Box, Button } from '@mui/material'
import * as declared from '../../api/declared'
import type { PanelGap, Vehicle, VehiclePanel, VehiclePart } from '../../api/model'
import { FileButton } from '../../fields/FileButton'
import { Choice, LengthField, MaybeChoice, SheetField, Toggle } from '../../fields/fields'
import { NameField } from '../../fields/WordsField'
import { freshName } from '../../work/naming'
import { select, useWork } from '../../work/store'
import { sendScan } from '../bay/scans'
import { pair, Row } from '../Row'

interface Props {
  vehicle: Vehicle
  readOnly: boolean
  onChange: (make: (vehicle: Vehicle) => Vehicle) => void
}

const AXES = { x: ['y', 'z'], y: ['x', 'z'], z: ['x', 'y'] } as const
const SIZES = { length_mm: 'Length', width_mm: 'Width', height_mm: 'Height' } as const
const PLACES = { x_mm: 'Rear face', y_mm: 'Right face', z_mm: 'Lower face' } as const
const TRAVELS = { travel_x_mm: 'Travel forward', travel_y_mm: 'Travel left', travel_z_mm: 'Travel up' } as const

/** Panels and parts of a vehicle, in its own axes. */
export function VehicleParts({ vehicle, readOnly, onChange }: Props) {
  const present = [...vehicle.panels, ...vehicle.parts]
  const setPanel = (id: string, part: Partial<VehiclePanel>) =>
    onChange((now) => ({ ...now, panels: now.panels.map((one) => (one.id === id ? { ...one, ...part } : one)) }))
  const setPart = (id: string, part: Partial<VehiclePart>) =>
    onChange((now) => ({ ...now, parts: now.parts.map((one) => (one.id === id ? { ...one, ...part } : one)) }))
  const addPanel = () => {
    const named = freshName('panel', present)
    const at = { at_mm: 0, a_mm: 0, b_mm: 0, long_mm: 600, wide_mm: 400 }
    const fresh = { ...declared.VehiclePanel.defaults, ...named, ...at }
    onChange((now) => ({ ...now, panels: [...now.panels, fresh] }))
    select({ kind: 'mount', id: named.id })
  }
  const addPart = () => {
    const named = freshName('part', present)
    const fresh = { ...declared.VehiclePart.defaults, ...named, x_mm: 0, y_mm: 0, z_mm: 0 }
    onChange((now) => ({ ...now, parts: [...now.parts, fresh] }))
    select({ kind: 'mount', id: named.id })
  }
  return (
    <>
      {vehicle.panels.map((panel) => (
        <PanelRow
          key={panel.id}
          panel={panel}
          readOnly={readOnly}
          onChange={(part) => setPanel(panel.id, part)}
          onRemove={() => onChange((now) => ({ ...now, panels: now.panels.filter((one) => one.id !== panel.id) }))}
        />
      ))}
      {vehicle.parts.map((part) => (
        <PartRow
          key={part.id}
          part={part}
          readOnly={readOnly}
          onChange={(change) => setPart(part.id, change)}
          onRemove={() => onChange((now) => ({ ...now, parts: now.parts.filter((one) => one.id !== part.id) }))}
        />
      ))}
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button variant="outlined" disabled={readOnly} onClick={addPanel}>
          Add a panel
        </Button>
        <Button variant="outlined" disabled={readOnly} onClick={addPart}>
          Add a vehicle part
        </Button>
      </Box>
    </>
  )
}

interface PanelProps {
  panel: VehiclePanel
  readOnly: boolean
  onChange: (part: Partial<VehiclePanel>) => void
  onRemove: () => void
}

function PanelRow({ panel, readOnly, onChange, onRemove }: PanelProps) {
  const open = useWork((work) => work.at?.kind === 'mount' && work.at.id === panel.id)
  const [a, b] = AXES[panel.axis]
  const length = (name: 'at_mm' | 'a_mm' | 'b_mm' | 'long_mm' | 'wide_mm', label: string) => (
    <LengthField
      label={label}
      value={panel[name]}
      path={`vehicle.panels.${panel.id}.${name}`}
      disabled={readOnly}
      onCommit={(mm) => mm !== null && onChange({ [name]: mm })}
    />
  )
  return (
    <Row
      name={panel.name}
      aside={panel.closes ? 'fitted after the tank' : 'panel'}
      open={open}
      onToggle={() => select(open ? null : { kind: 'mount', id: panel.id })}
      data-row={panel.id}
    >
      <NameField value={panel.name} disabled={readOnly} onCommit={(name) => onChange({ name })} />
      <Choice
        label="Square to"
        value={panel.axis}
        options={[
          { value: 'x', label: 'the length, a bulkhead' },
          { value: 'y', label: 'the width, a side' },
          { value: 'z', label: 'the height, a floor or a lid' },
        ]}
        disabled={readOnly}
        onChange={(axis) => onChange({ axis })}
      />
      <Box sx={pair}>
        {length('at_mm', `Place along ${panel.axis}`)}
        <SheetField
          label="Thickness"
          metal={panel.metal ?? 'mild steel'}
          value={panel.thickness_mm}
          path={`vehicle.panels.${panel.id}.thickness_mm`}
          disabled={readOnly}
          onCommit={(mm) => mm !== null && onChange({ thickness_mm: mm })}
        />
        {length('a_mm', `From, along ${a}`)}
        {length('long_mm', `Size along ${a}`)}
        {length('b_mm', `From, along ${b}`)}
        {length('wide_mm', `Size along ${b}`)}
      </Box>
      <MaybeChoice
        label="Metal"
        value={panel.metal}
        options={declared.VehiclePanel.choices.metal}
        none="no metal"
        disabled={readOnly}
        onChange={(metal) => onChange({ metal })}
      />
      <Toggle
        label="Fitted after the tank"
        checked={panel.closes}
        disabled={readOnly}
        onChange={(closes) => onChange({ closes })}
      />
      {panel.gaps.map((gap, place) => (
        <GapFields
          key={place}
          gap={gap}
          axes={[a, b]}
          readOnly={readOnly}
          path={`vehicle.panels.${panel.id}.gaps.${place}`}
          onChange={(part) => onChange({ gaps: panel.gaps.map((one, n) => (n === place ? { ...one, ...part } : one)) })}
          onRemove={() => onChange({ gaps: panel.gaps.filter((_, n) => n !== place) })}
        />
      ))}
      <Button
        disabled={readOnly}
        onClick={() => {
          const at = { a_mm: panel.a_mm + 50, b_mm: panel.b_mm + 50, long_mm: 60, wide_mm: 60 }
          onChange({
            gaps: [...panel.gaps, { ...declared.PanelGap.defaults, name: `gap ${panel.gaps.length + 1}`, ...at }],
          })
        }}
      >
        Add a gap in it
      </Button>
      <Button disabled={readOnly} onClick={onRemove}>
        Remove {panel.name}
      </Button>
    </Row>
  )
}

interface GapProps {
  gap: PanelGap
  axes: readonly [string, string]
  path: string
  readOnly: boolean
  onChange: (part: Partial<PanelGap>) => void
  onRemove: () => void
}

function GapFields({ gap, axes: [a, b], path, readOnly, onChange, onRemove }: GapProps) {
  const length = (name: 'a_mm' | 'b_mm' | 'long_mm' | 'wide_mm', label: string) => (
    <LengthField
      label={label}
      value={gap[name]}
      path={`${path}.${name}`}
      disabled={readOnly}
      onCommit={(mm) => mm !== null && onChange({ [name]: mm })}
    />
  )
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      <NameField value={gap.name} disabled={readOnly} onCommit={(name) => onChange({ name })} />
      <Box sx={pair}>
        {length('a_mm', `Gap from, along ${a}`)}
        {length('long_mm', `Gap along ${a}`)}
        {length('b_mm', `Gap from, along ${b}`)}
        {length('wide_mm', `Gap along ${b}`)}
      </Box>
      <Toggle
        label={`${gap.name} is sealed`}
        checked={gap.sealed}
        disabled={readOnly}
        onChange={(sealed) => onChange({ sealed })}
      />
      <Button disabled={readOnly} onClick={onRemove}>
        Remove {gap.name}
      </Button>
    </Box>
  )
}

interface PartProps {
  part: VehiclePart
  readOnly: boolean
  onChange: (part: Partial<VehiclePart>) => void
  onRemove: () => void
}

function PartRow({ part, readOnly, onChange, onRemove }: PartProps) {
  const open = useWork((work) => work.at?.kind === 'mount' && work.at.id === part.id)
  const fields = <Name extends keyof VehiclePart>(labels: Partial<Record<Name, string>>) =>
    (Object.keys(labels) as Name[]).map((name) => (
      <LengthField
        key={String(name)}
        label={labels[name] ?? ''}
        value={part[name] as number}
        path={`vehicle.parts.${part.id}.${String(name)}`}
        disabled={readOnly}
        onCommit={(mm) => mm !== null && onChange({ [name]: mm })}
      />
    ))
  return (
    <Row
      name={part.name}
      aside={part.kind}
      open={open}
      onToggle={() => select(open ? null : { kind: 'mount', id: part.id })}
      data-row={part.id}
    >
      <NameField value={part.name} disabled={readOnly} onCommit={(name) => onChange({ name })} />
      <Choice
        label="Kind"
        value={part.kind}
        options={declared.VehiclePart.choices.kind.filter((kind) => kind !== 'scan' || part.scan !== null)}
        disabled={readOnly}
        onChange={(kind) => onChange({ kind })}
      />
      <Box sx={pair}>
        {fields(PLACES)}
        {part.kind !== 'scan' && fields(SIZES)}
        {part.kind === 'moving part' && fields(TRAVELS)}
      </Box>
      {part.kind === 'hot part' &&
        declared.VehiclePart.choices.shielded.map((face) => (
          <Toggle
            key={face}
            label={`Shield on its ${face}`}
            checked={part.shielded.includes(face)}
            disabled={readOnly}
            onChange={(has) =>
              onChange({ shielded: has ? [...part.shielded, face] : part.shielded.filter((one) => one !== face) })
            }
          />
        ))}
      <FileButton
        label={part.scan ? 'Another scan, STL in mm' : 'Shape from a scan, STL in mm'}
        accept=".stl"
        disabled={readOnly}
        onFile={(file) => sendScan(file, 'mm').then((scan) => onChange({ kind: 'scan', scan: scan.fingerprint }))}
      />
      <Button disabled={readOnly} onClick={onRemove}>
        Remove {part.name}
      </Button>
    </Row>
  )
}
