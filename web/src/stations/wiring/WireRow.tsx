import { Box, Button, FormControlLabel, Checkbox, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import * as declared from '../../api/declared'
import type { Wire } from '../../api/model'
import { AskedField, Choice, LengthField, QuantityField, Toggle, WireField } from '../../fields/fields'
import { NameField, WordsField } from '../../fields/WordsField'
import { useUnits } from '../../units/useUnits'
import { select, useFaultUnder, useWork } from '../../work/store'
import { Folded } from '../Folded'
import { pair, Row } from '../Row'
import { changeWire, removeWire } from './edits'
import { endNamed } from './names'

/** One wire: where from and to, how thick, what it carries and loses, where it lies. */
export function WireRow({ wire, place, readOnly }: { wire: Wire; place: number; readOnly: boolean }) {
  const units = useUnits()
  const open = useWork((work) => work.at?.kind === 'wire' && work.at.id === wire.id)
  const joined = useWork((work) => work.evaluation?.wiring?.runs?.joined)
  const figures = useWork((work) => work.evaluation?.wiring?.wired?.wires.find((one) => one.id === wire.id))
  const path = `wiring.wires.${place}`
  const fault = useFaultUnder(path)
  const change = (part: Partial<Wire>) => changeWire(wire.id, part)
  return (
    <Row
      name={`${wire.name} ${endNamed(wire.start, joined)} → ${endNamed(wire.end, joined)}`}
      aside={figures ? units.wire(figures.area_mm2) : ''}
      open={open}
      onToggle={() => select(open ? null : { kind: 'wire', id: wire.id })}
      fault={fault}
      data-row={wire.id}
    >
      <Figures wire={wire} />
      <Box sx={pair}>
        <NameField label="Number" value={wire.name} disabled={readOnly} onCommit={(name) => change({ name })} />
        <WordsField
          mayBeEmpty
          label="Colour"
          value={wire.colour}
          most={declared.Wire.most.colour}
          disabled={readOnly}
          onCommit={(colour) => change({ colour })}
        />
        <WireField
          label="Size"
          value={wire.area_mm2 ?? null}
          emptyText={figures ? units.editWire(figures.area_mm2) : 'by its current'}
          hint="empty: current, length, drop"
          path={`${path}.area_mm2`}
          disabled={readOnly}
          onCommit={(area_mm2) => change({ area_mm2 })}
        />
        <LengthField
          label="Length"
          value={wire.length_mm ?? null}
          emptyText={figures ? units.length(figures.length_mm) : 'by its way'}
          hint="empty: along its way"
          path={`${path}.length_mm`}
          disabled={readOnly}
          onCommit={(length_mm) => change({ length_mm })}
        />
        <QuantityField
          label="Warmest place"
          of="c"
          value={wire.air_c}
          path={`${path}.air_c`}
          disabled={readOnly}
          onCommit={(air_c) => air_c !== null && change({ air_c })}
        />
      </Box>
      <Choice
        label="Insulation"
        value={wire.insulation}
        options={declared.Wire.choices.insulation}
        disabled={readOnly}
        onChange={(insulation) => change({ insulation })}
      />
      <AskedField
        label="Tied down all along"
        value={wire.supported}
        disabled={readOnly}
        onChange={(supported) => change({ supported })}
      />
      <Toggle
        label="Grommets wherever it goes through sheet"
        checked={wire.grommets}
        disabled={readOnly}
        onChange={(grommets) => change({ grommets })}
      />
      <Along wire={wire} readOnly={readOnly} />
      {wire.corners.length > 0 && (
        <Button disabled={readOnly} onClick={() => change({ corners: wire.corners.slice(0, -1) })}>
          Remove the last corner
        </Button>
      )}
      <Button
        disabled={readOnly}
        onClick={() => change({ start: wire.end, end: wire.start, along: [...wire.along].reverse(), corners: [] })}
      >
        Turn it round
      </Button>
      <Button disabled={readOnly} onClick={() => removeWire(wire.id)}>
        Remove {wire.name}
      </Button>
    </Row>
  )
}

/** What it carries against what it may, what it loses, which fuse is before it. */
function Figures({ wire }: { wire: Wire }) {
  const { inks } = useTheme()
  const units = useUnits()
  const figures = useWork((work) => work.evaluation?.wiring?.wired?.wires.find((one) => one.id === wire.id))
  const loads = useWork((work) => work.evaluation?.wiring?.wired?.loads)
  if (!figures) return null
  const feeds = figures.loads.map((key) => loads?.find((load) => load.key === key)?.name ?? key)
  const over = figures.current_a !== null && figures.current_a > figures.carries_a
  return (
    <Box>
      <Typography variant="body2" sx={{ color: over ? inks.stop : undefined }}>
        {figures.current_a === null ? 'Current not known' : `Carries ${units.quantity('a', figures.current_a)}`}, limit{' '}
        {units.quantity('a', figures.carries_a)} · loses {figures.drop_v.toFixed(3)} V ·{' '}
        {figures.fuse_a === null ? 'no fuse before it' : `fuse ${units.quantity('a', figures.fuse_a)}`}
      </Typography>
      <Typography variant="body2" color="textSecondary">
        {feeds.length ? `For ${feeds.join(', ')}` : 'Nothing draws current through it yet'}
      </Typography>
    </Box>
  )
}

/** Hoses and tubes that it is tied to. */
function Along({ wire, readOnly }: { wire: Wire; readOnly: boolean }) {
  const runs = useWork((work) => work.design.lines.runs).filter((run) => run.kind !== 'direct')
  if (!runs.length) return null
  const toggle = (id: string, on: boolean) =>
    changeWire(wire.id, { along: on ? [...wire.along, id] : wire.along.filter((one) => one !== id) })
  return (
    <Folded title={wire.along.length ? `Tied to ${wire.along.length} of the lines` : 'Tied to none of the lines'}>
      {runs.map((run) => (
        <FormControlLabel
          key={run.id}
          sx={{ minHeight: 44 }}
          label={run.name}
          control={
            <Checkbox
              checked={wire.along.includes(run.id)}
              disabled={readOnly || (!wire.along.includes(run.id) && wire.along.length >= declared.Wire.most.along)}
              onChange={(event) => toggle(run.id, event.target.checked)}
            />
          }
        />
      ))}
    </Folded>
  )
}
