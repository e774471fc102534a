import { Box, Button, Typography } from '@mui/material'
import { useState } from 'react'
import * as declared from '../../api/declared'
import type { Brief, DemandCase } from '../../api/model'
import { Choice, FlowField, MaybeChoice, QuantityField, ShareField } from '../../fields/fields'
import { NameField } from '../../fields/WordsField'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { pair, Row } from '../Row'
import { addCase, changeCase, removeCase } from './edits'

/** What the engine asks for: one case for now, more for later or for each running mode. */
export function CaseFields({ brief, readOnly }: { brief: Brief; readOnly: boolean }) {
  const [open, setOpen] = useState<string | null>(null)
  return (
    <>
      {brief.cases.map((item, place) => (
        <CaseRow
          key={item.id}
          item={item}
          place={place}
          readOnly={readOnly}
          open={open === item.id || (open === null && place === 0)}
          onToggle={() => setOpen(open === item.id ? '' : item.id)}
        />
      ))}
      {brief.cases.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          Say what the engine burns: by its power, or measured. Several cases side by side show what later power would
          outgrow.
        </Typography>
      )}
      <Button
        variant="outlined"
        disabled={readOnly || brief.cases.length >= declared.Brief.most.cases}
        onClick={() => setOpen(addCase())}
      >
        {brief.cases.length ? 'Another demand case' : 'Add the engine’s demand'}
      </Button>
    </>
  )
}

function CaseRow({
  item,
  place,
  readOnly,
  open,
  onToggle,
}: {
  item: DemandCase
  place: number
  readOnly: boolean
  open: boolean
  onToggle: () => void
}) {
  const units = useUnits()
  const demand = useWork((work) => work.evaluation?.brief?.demands?.find((other) => other.id === item.id))
  const set = (part: Partial<DemandCase>) => changeCase(item.id, part)
  const pathOf = (field: string) => `brief.cases.${place}.${field}`
  return (
    <Row
      name={item.name}
      aside={demand ? units.flowText(demand.flow_l_per_h) : 'no power yet'}
      open={open}
      onToggle={onToggle}
      data-row={item.id}
    >
      <NameField value={item.name} disabled={readOnly} onCommit={(name) => set({ name })} />
      <Choice
        label="Engine"
        value={item.engine}
        options={declared.DemandCase.choices.engine}
        disabled={readOnly}
        onChange={(engine) => set({ engine })}
      />
      <MaybeChoice
        label="Fuel of this case"
        value={item.fuel}
        options={declared.DemandCase.choices.fuel}
        none="as the brief"
        disabled={readOnly}
        onChange={(fuel) => set({ fuel })}
      />
      <Box sx={pair}>
        <QuantityField
          of="kw"
          label="Power at full load"
          value={item.power_kw ?? null}
          emptyText="none yet"
          path={pathOf('power_kw')}
          disabled={readOnly}
          onCommit={(power_kw) => set({ power_kw })}
        />
        <ShareField
          label="Average duty"
          value={item.duty}
          path={pathOf('duty')}
          disabled={readOnly}
          onCommit={(duty) => duty !== null && set({ duty })}
        />
      </Box>
      <QuantityField
        label="BSFC"
        of="kgkwh"
        value={item.bsfc_kg_per_kwh ?? null}
        emptyText={demand?.bsfc ? units.amount('kgkwh', demand.bsfc[1]) : 'middle'}
        hint={
          demand?.bsfc
            ? `usual ${units.amount('kgkwh', demand.bsfc[0])} to ${units.amount('kgkwh', demand.bsfc[2])}`
            : undefined
        }
        path={pathOf('bsfc_kg_per_kwh')}
        disabled={readOnly}
        onCommit={(bsfc_kg_per_kwh) => set({ bsfc_kg_per_kwh })}
      />
      <Box sx={pair}>
        <FlowField
          label="Measured fuel flow"
          value={item.measured_l_per_h ?? null}
          emptyText="not measured"
          path={pathOf('measured_l_per_h')}
          disabled={readOnly}
          onCommit={(measured_l_per_h) => set({ measured_l_per_h })}
        />
        <QuantityField
          label="Rail pressure"
          of="kpa"
          value={item.rail_kpa}
          path={pathOf('rail_kpa')}
          disabled={readOnly}
          onCommit={(rail_kpa) => rail_kpa !== null && set({ rail_kpa })}
        />
        <QuantityField
          label="Supply voltage"
          of="v"
          value={item.supply_v}
          path={pathOf('supply_v')}
          disabled={readOnly}
          onCommit={(supply_v) => supply_v !== null && set({ supply_v })}
        />
        <QuantityField
          label="Lowest voltage"
          of="v"
          value={item.low_v}
          path={pathOf('low_v')}
          disabled={readOnly}
          onCommit={(low_v) => low_v !== null && set({ low_v })}
        />
      </Box>
      <Button disabled={readOnly} onClick={() => removeCase(item.id)}>
        Remove {item.name}
      </Button>
    </Row>
  )
}
