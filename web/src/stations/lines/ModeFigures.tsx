import { Box, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { ReactNode } from 'react'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { TANK } from './edits'
import { showMode, useModePlace } from './view'

const LEAST_LPH = 0.05

/** The running modes to flip through, and what stands at the engine in the one at hand. */
export function ModeFigures() {
  const { inks } = useTheme()
  const lines = useWork((work) => work.evaluation?.lines)
  const place = useModePlace()
  const mode = lines?.modes?.[place]
  if (!lines?.modes || !mode) return null
  const bad = new Set(lines.flows?.unsettled.concat(lines.flows.unfed))
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
      <ToggleButtonGroup
        exclusive
        size="small"
        aria-label="Running mode"
        value={mode.id}
        onChange={(_, next: string | null) => next && showMode(next)}
        sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', '& button': { minHeight: 44, lineHeight: 1.15 } }}
      >
        {lines.modes.map((one, n) => (
          <ToggleButton key={one.id} value={one.id} sx={{ color: bad.has(n) ? inks.stop : undefined }}>
            {one.name}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Figures place={place} />
    </Box>
  )
}

function Figures({ place }: { place: number }) {
  const units = useUnits()
  const lines = useWork((work) => work.evaluation?.lines)
  const parts = useWork((work) => work.design.lines.parts)
  const mode = lines?.modes?.[place]
  if (!lines || !mode) return null
  const kpa = (value: number | null | undefined) => (typeof value === 'number' ? units.pressure(value) : 'none')
  const lph = (value: number | null | undefined) => (typeof value === 'number' ? units.flowText(value, 0) : 'none')
  const rows: { key: string; name: string; value: ReactNode }[] = []
  for (const feed of lines.feeds ?? []) {
    const row = feed.modes[place]
    if (!row) continue
    const set = row.wanted_kpa === null ? '' : `, set ${kpa(row.wanted_kpa)}`
    rows.push({ key: `${feed.part}-kpa`, name: `Pressure at ${feed.name}`, value: `${kpa(row.kpa)}${set}` })
    if (row.across_kpa !== null)
      rows.push({ key: `${feed.part}-across`, name: 'Across the injectors', value: kpa(row.across_kpa) })
    const able = row.able_lph === null ? '' : `, injectors give up to ${lph(row.able_lph)}`
    rows.push({ key: `${feed.part}-lph`, name: 'Drawn', value: `${lph(row.drawn_lph)}${able}` })
  }
  for (const one of lines.surplus ?? []) {
    const row = one.modes[place]
    if (row) rows.push({ key: `${one.part}-back`, name: `Back from ${one.name}`, value: lph(row.back_lph) })
  }
  for (const part of lines.flows?.parts ?? []) {
    const kind = parts.find((one) => one.id === part.id)?.does.kind
    const name = parts.find((one) => one.id === part.id)?.name ?? 'the surge tank'
    if (kind === 'jet pump')
      rows.push({ key: `${part.id}-moved`, name: `Moved by ${name}`, value: lph(part.moved_lph[place]) })
    if (kind === 'surge tank' || part.id === TANK) {
      rows.push({ key: `${part.id}-over`, name: `Overflows from ${name}`, value: lph(part.flow_lph[place]) })
      const lost = part.moved_lph[place] ?? 0
      if (lost > LEAST_LPH) rows.push({ key: `${part.id}-lost`, name: `Emptied from ${name}`, value: lph(lost) })
    }
  }
  for (const inlet of lines.inlets ?? []) {
    const row = inlet.modes[place]
    if (row && row.margin_kpa !== null)
      rows.push({
        key: `${inlet.part}-margin`,
        name: `${inlet.name}, over vapour pressure`,
        value: kpa(row.margin_kpa),
      })
  }
  const at = `${mode.fuel ?? 'fuel'} of ${units.quantity('c', mode.fuel_c)}, ${mode.voltage_v} V${mode.altitude_m ? `, ${mode.altitude_m} m high` : ''}`
  return (
    <Box
      component="table"
      aria-label={`Figures at ${mode.name}`}
      sx={{ fontSize: 14, borderSpacing: 0, width: '100%' }}
    >
      <Typography component="caption" variant="body2" sx={{ textAlign: 'left', captionSide: 'top', pb: 0.5 }}>
        Filters due for a swap, {at}
        {lines.stopped?.modes.includes(place) &&
          '. Less comes than the engine wants: it stops, and the drawing shows what is left.'}
      </Typography>
      <tbody>
        {rows.map((row) => (
          <Box component="tr" key={row.key} sx={{ '& td': { py: 0.25 } }}>
            <td>{row.name}</td>
            <Box component="td" sx={{ textAlign: 'right', fontWeight: 650 }}>
              {row.value}
            </Box>
          </Box>
        ))}
      </tbody>
    </Box>
  )
}
