import { Box, Button, MenuItem, TextField, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import * as declared from '../../api/declared'
import type { LinePart } from '../../api/model'
import { Choice, LengthField, MaybeChoice, NumberField, QuantityField, Toggle } from '../../fields/fields'
import { NameField, WordsField } from '../../fields/WordsField'
import { useUnits } from '../../units/useUnits'
import { select, useFaultUnder, useWork } from '../../work/store'
import { workshopQuery } from '../../workshop/query'
import { Folded } from '../Folded'
import { pair, Row } from '../Row'
import { PartConnections } from './ConnectionFields'
import { changeDoes, changePart, fitComponent, removePart } from './edits'
import { FigureField } from './FigureField'
import { FIGURES, TOGGLES, WORDS } from './partFields'
import { useModePlace } from './view'

/** One part of the line: where it is, what it does, what it is joined by. */
export function LinePartRow({ part, place, readOnly }: { part: LinePart; place: number; readOnly: boolean }) {
  const open = useWork((work) => work.at?.kind === 'line part' && work.at.id === part.id)
  const path = `lines.parts.${place}`
  const fault = useFaultUnder(path)
  const aside = useAside(part)
  const length = (name: 'x_mm' | 'y_mm' | 'z_mm' | 'long_mm' | 'across_mm', label: string) => (
    <LengthField
      label={label}
      value={part[name]}
      path={`${path}.${name}`}
      disabled={readOnly}
      onCommit={(mm) => mm !== null && changePart(part.id, { [name]: mm })}
    />
  )
  return (
    <Row
      name={part.name}
      aside={aside}
      open={open}
      onToggle={() => select(open ? null : { kind: 'line part', id: part.id })}
      fault={fault}
      data-row={part.id}
    >
      <NameField value={part.name} disabled={readOnly} onCommit={(name) => changePart(part.id, { name })} />
      <FromLibrary part={part} readOnly={readOnly} />
      <DoesFields part={part} path={`${path}.does`} readOnly={readOnly} />
      {DRAWS.includes(part.does.kind) && (
        <MaybeChoice
          label="Fuel it is for"
          value={part.fuels[0]}
          options={declared.CellFuel.choices.fuel}
          none="any"
          disabled={readOnly}
          onChange={(fuel) => changePart(part.id, { fuels: fuel ? [fuel] : [] })}
        />
      )}
      <HangsIn part={part} readOnly={readOnly} />
      <Typography variant="body2">Its middle in the bay</Typography>
      <Box sx={pair}>
        {length('x_mm', 'From the rear')}
        {length('y_mm', 'From the right')}
        {length('z_mm', 'Above the floor')}
        <NumberField
          label="Direction of flow"
          unit="°"
          value={part.heading_deg}
          path={`${path}.heading_deg`}
          disabled={readOnly}
          onCommit={(deg) => deg !== null && changePart(part.id, { heading_deg: deg })}
        />
      </Box>
      <Toggle
        label="Flow is upward"
        checked={part.upright}
        disabled={readOnly}
        onChange={(upright) => changePart(part.id, { upright })}
      />
      <Folded title="Size, rating, materials">
        <WordsField
          mayBeEmpty
          label="Removable board it is on"
          value={part.board}
          most={declared.LinePart.most.board}
          disabled={readOnly}
          onCommit={(board) => changePart(part.id, { board })}
        />
        <Box sx={pair}>
          {length('long_mm', 'Length')}
          {length('across_mm', 'Width')}
          <QuantityField
            label="Rated pressure"
            of="kpa"
            value={part.rated_kpa ?? null}
            emptyText="not known"
            path={`${path}.rated_kpa`}
            disabled={readOnly}
            onCommit={(rated_kpa) => changePart(part.id, { rated_kpa })}
          />
          <NumberField
            label="Price"
            value={part.price ?? null}
            emptyText="not known"
            path={`${path}.price`}
            disabled={readOnly}
            onCommit={(price) => changePart(part.id, { price })}
          />
        </Box>
        <Choice
          label="Metal in the fuel"
          value={part.metal ?? 'none'}
          options={['none', ...declared.LinePart.choices.metal]}
          disabled={readOnly}
          onChange={(metal) => changePart(part.id, { metal: metal === 'none' ? null : metal })}
        />
        <WordsField
          mayBeEmpty
          label="Approval on it"
          value={part.approval}
          most={declared.LinePart.most.approval}
          disabled={readOnly}
          onCommit={(approval) => changePart(part.id, { approval })}
        />
      </Folded>
      <PartConnections part={part} readOnly={readOnly} />
      <Button disabled={readOnly} onClick={() => removePart(part.id)}>
        Remove {part.name}
      </Button>
    </Row>
  )
}

/** What it does in the mode at hand, in a few words. */
function useAside(part: LinePart): string {
  const units = useUnits()
  const mode = useModePlace()
  const flow = useWork((work) => work.evaluation?.lines?.flows?.parts.find((one) => one.id === part.id))
  if (part.does.kind === 'pump' && part.does.spare) return 'spare'
  const lph = flow?.flow_lph[mode]
  return lph === null || lph === undefined ? part.does.kind : units.flowText(Math.abs(lph), 0)
}

function FromLibrary({ part, readOnly }: { part: LinePart; readOnly: boolean }) {
  const known = useQuery(workshopQuery).data?.settings.line_parts ?? []
  const alike = known.filter((one) => one.does.kind === part.does.kind)
  const place = alike.findIndex((one) => one.name === part.part)
  if (!alike.length) return null
  return (
    <TextField
      select
      label="Part from the library"
      value={place < 0 ? '' : place}
      disabled={readOnly}
      helperText="its figures are copied; change them freely"
      onChange={(event) => {
        const chosen = alike[Number(event.target.value)]
        if (chosen) fitComponent(part, chosen)
      }}
    >
      {alike.map((one, here) => (
        <MenuItem key={one.name} value={here} sx={{ minHeight: 44 }}>
          {one.name}
        </MenuItem>
      ))}
    </TextField>
  )
}

/** Figures, switches and words of what it does. */
function DoesFields({ part, path, readOnly }: { part: LinePart; path: string; readOnly: boolean }) {
  const { does } = part
  const value = (name: string) => (does as unknown as Record<string, unknown>)[name]
  const commit = (figure: { emptyText?: string; name: string }) => (typed: number | null) =>
    (typed !== null || figure.emptyText) && changeDoes(part, { [figure.name]: typed })
  return (
    <>
      <Box sx={pair}>
        {FIGURES[does.kind].map((figure) => (
          <FigureField
            key={figure.name}
            figure={figure}
            value={(value(figure.name) as number | null | undefined) ?? null}
            path={`${path}.${figure.name}`}
            disabled={readOnly}
            onCommit={commit(figure)}
          />
        ))}
      </Box>
      {does.kind === 'filter' && (
        <Box sx={pair}>
          <Choice
            label="Stage"
            value={does.stage}
            options={declared.FilterDoes.choices.stage}
            disabled={readOnly}
            onChange={(stage) => changeDoes(part, { stage })}
          />
          <Choice
            label="Element"
            value={does.element}
            options={declared.FilterDoes.choices.element}
            disabled={readOnly}
            onChange={(element) => changeDoes(part, { element })}
          />
        </Box>
      )}
      {does.kind === 'regulator' && (
        <Choice
          label="Kind of regulator"
          value={does.way}
          options={declared.RegulatorDoes.choices.way}
          hint="bypass: what is too much goes back; dead-head: it isn’t let by"
          disabled={readOnly}
          onChange={(way) => changeDoes(part, { way })}
        />
      )}
      {TOGGLES[does.kind]?.map(({ name, label }) => (
        <Toggle
          key={name}
          label={label}
          checked={Boolean(value(name))}
          disabled={readOnly}
          onChange={(on) => changeDoes(part, { [name]: on })}
        />
      ))}
      {WORDS[does.kind]?.map(({ name, label, most }) => (
        <WordsField
          mayBeEmpty
          key={name}
          label={label}
          value={(value(name) as string | undefined) ?? ''}
          most={most}
          disabled={readOnly}
          onCommit={(text) => changeDoes(part, { [name]: text })}
        />
      ))}
    </>
  )
}

const DRAWS = ['rail', 'carburettor', 'injection pump', 'delivery nozzle', 'burner']
const IN_TANK = ['pump', 'filter', 'check valve', 'regulator', 'jet pump', 'tee']

function HangsIn({ part, readOnly }: { part: LinePart; readOnly: boolean }) {
  const ports = useWork((work) => work.design.ports)
  if (!IN_TANK.includes(part.does.kind)) return null
  return (
    <Choice
      label="Hangs in the tank, at port"
      value={part.hangs_in ?? ''}
      options={[
        { value: '', label: 'outside the tank' },
        ...ports.map((port) => ({ value: port.id, label: port.name })),
      ]}
      disabled={readOnly}
      onChange={(port) => changePart(part.id, { hangs_in: port || null })}
    />
  )
}
