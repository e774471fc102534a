import { Box, Button, MenuItem, TextField, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import * as declared from '../../api/declared'
import type { Brief, FittedPump, Pump } from '../../api/model'
import { FlowField, QuantityField, Toggle } from '../../fields/fields'
import { NameField } from '../../fields/WordsField'
import { isNumber } from '../../units/number'
import { useUnits } from '../../units/useUnits'
import { freshId } from '../../work/naming'
import { useFaultUnder, useWork } from '../../work/store'
import { workshopQuery } from '../../workshop/query'
import { Row } from '../Row'
import { changePump, removePump, setBrief } from './edits'

const BLANK: Pump = {
  ...declared.Pump.defaults,
  name: 'Pump',
  curves: [
    {
      voltage_v: 13.5,
      points: [
        { kpa: 0, l_per_h: 250 },
        { kpa: 300, l_per_h: 200 },
        { kpa: 500, l_per_h: 140 },
      ],
    },
  ],
}

/** The pumps of this design in the order in which they come on, from the shop's library or typed. */
export function PumpFields({ brief, readOnly }: { brief: Brief; readOnly: boolean }) {
  const library = useQuery(workshopQuery).data?.settings.pumps ?? []
  const [open, setOpen] = useState<string | null>(null)
  const add = (pump: Pump) => {
    const id = freshId('pump', brief.pumps)
    setBrief({ pumps: [...brief.pumps, { ...declared.FittedPump.defaults, id, pump }] })
    setOpen(id)
  }
  return (
    <>
      {brief.pumps.map((item, place) => (
        <PumpRow
          key={item.id}
          item={item}
          place={place}
          readOnly={readOnly}
          open={open === item.id}
          onToggle={() => setOpen(open === item.id ? null : item.id)}
        />
      ))}
      {brief.pumps.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          Fit a pump to see whether it gives the demand at rail pressure and real voltage. The shop’s pumps are kept at{' '}
          <Link to="/workshop">Workshop</Link>.
        </Typography>
      )}
      <Box sx={{ display: 'grid', gap: 1 }}>
        {library.length > 0 && (
          <TextField
            select
            label="Add a pump from the library"
            value=""
            disabled={readOnly || brief.pumps.length >= declared.Brief.most.pumps}
            onChange={(event) => add(library[Number(event.target.value)] ?? BLANK)}
          >
            {library.map((pump, place) => (
              <MenuItem key={pump.name} value={place} sx={{ minHeight: 44 }}>
                {pump.name}
              </MenuItem>
            ))}
          </TextField>
        )}
        <Button
          variant="outlined"
          disabled={readOnly || brief.pumps.length >= declared.Brief.most.pumps}
          onClick={() => add(BLANK)}
        >
          Type a pump’s figures
        </Button>
      </Box>
    </>
  )
}

function PumpRow({
  item,
  place,
  readOnly,
  open,
  onToggle,
}: {
  item: FittedPump
  place: number
  readOnly: boolean
  open: boolean
  onToggle: () => void
}) {
  const units = useUnits()
  const flow = useWork(
    (work) => work.evaluation?.brief?.demands?.[0]?.pumps.find((other) => other.id === item.id)?.flow_l_per_h,
  )
  const fault = useFaultUnder(`brief.pumps.${place}`)
  return (
    <Row
      name={item.pump.name}
      aside={item.spare ? 'spare' : isNumber(flow) ? units.flowText(flow) : ''}
      open={open}
      onToggle={onToggle}
      fault={fault}
      data-row={item.id}
    >
      <NameField
        value={item.pump.name}
        disabled={readOnly}
        onCommit={(name) => changePump(item.id, { pump: { ...item.pump, name } })}
      />
      <Toggle
        label="Spare: on standby, not counted"
        checked={item.spare}
        disabled={readOnly}
        onChange={(spare) => changePump(item.id, { spare })}
      />
      <CurveFields pump={item.pump} readOnly={readOnly} onChange={(pump) => changePump(item.id, { pump })} />
      <Button disabled={readOnly} onClick={() => removePump(item.id)}>
        Remove {item.pump.name}
      </Button>
    </Row>
  )
}

/** A pump's tables: pressure and flow, a table a voltage. */
export function CurveFields({
  pump,
  readOnly,
  onChange,
}: {
  pump: Pump
  readOnly: boolean
  onChange: (pump: Pump) => void
}) {
  const units = useUnits()
  const setCurve = (place: number, part: Partial<Pump['curves'][number]>) =>
    onChange({ ...pump, curves: pump.curves.map((curve, here) => (here === place ? { ...curve, ...part } : curve)) })
  return pump.curves.map((curve, place) => (
    <Box key={place} sx={{ display: 'grid', gap: 1 }}>
      <QuantityField
        label="Voltage"
        of="v"
        value={curve.voltage_v}
        disabled={readOnly}
        onCommit={(voltage_v) => voltage_v !== null && setCurve(place, { voltage_v })}
      />
      {curve.points.map((point, row) => {
        const set = (part: Partial<typeof point>) =>
          setCurve(place, { points: curve.points.map((other, here) => (here === row ? { ...other, ...part } : other)) })
        return (
          <Box key={row} sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 0.9fr 44px', gap: 1 }}>
            <QuantityField
              of="kpa"
              label={`Pressure ${row + 1}, ${units.unit('kpa')}`}
              compact
              value={point.kpa}
              disabled={readOnly}
              onCommit={(kpa) => kpa !== null && set({ kpa })}
            />
            <FlowField
              label={`Flow ${row + 1}, ${units.unit('lph')}`}
              compact
              value={point.l_per_h}
              disabled={readOnly}
              onCommit={(l_per_h) => l_per_h !== null && set({ l_per_h })}
            />
            <QuantityField
              of="a"
              label={`Current ${row + 1}, A`}
              compact
              value={point.current_a ?? null}
              emptyText=""
              disabled={readOnly}
              onCommit={(current_a) => set({ current_a })}
            />
            <Button
              disabled={readOnly || curve.points.length <= 2}
              aria-label={`Remove point ${row + 1}`}
              onClick={() => setCurve(place, { points: curve.points.filter((_, here) => here !== row) })}
              sx={{ minWidth: 44 }}
            >
              ×
            </Button>
          </Box>
        )
      })}
      <Button
        disabled={readOnly}
        onClick={() => {
          const last = curve.points[curve.points.length - 1] ?? { kpa: 0, l_per_h: 0 }
          setCurve(place, { points: [...curve.points, { kpa: last.kpa + 100, l_per_h: last.l_per_h }] })
        }}
      >
        Another point
      </Button>
    </Box>
  ))
}
