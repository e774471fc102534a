import { Box, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { CellPlan } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { Folded } from '../Folded'

/** What one cell bears, how it is tested, and what bars or lower pressure would change. */
export function CellFigures({ cell, alone }: { cell: CellPlan; alone: boolean }) {
  const units = useUnits()
  const kpa = (value: number) => units.quantity('finekpa', value)
  const min = (value: number) => units.quantity('min', Math.ceil(value))
  return (
    <Box component="section" aria-label={`Figures of the ${cell.cell}`} data-cell={cell.cell}>
      {!alone && <Typography variant="h2">{cell.cell}</Typography>}
      <Rows
        rows={[
          ['Safe pressure', kpa(cell.safe_kpa)],
          ['Safe vacuum', kpa(cell.safe_vacuum_kpa)],
          [
            'Weakest panel',
            cell.is_capped ? `${cell.panels[0]?.name ?? ''} (house rule caps)` : (cell.panels[0]?.name ?? ''),
          ],
          ['Air in it', units.volumeUnitText(cell.volume_l)],
          ['Water column', units.lengthUnitText(Math.round(cell.column_mm))],
          ['Leak limit at that pressure', units.quantity('sccm', cell.limit_sccm)],
          ['Least length, by gauge', min(cell.least_min.by_gauge)],
          ['Least length, by uncertainty', min(cell.least_min.by_uncertainty)],
          ...(cell.neighbours.length ? [['Stands open', cell.neighbours.join(', ')] as [string, string]] : []),
        ]}
      />
      <Folded title="Panels, weakest first">
        <Rows rows={cell.panels.map((panel) => [`${panel.name}, ${panel.held}`, kpa(panel.safe_kpa)])} />
      </Folded>
      <Folded title="With bars, or lower and longer">
        {cell.braced.length > 0 ? (
          <Rows
            rows={cell.braced.map((one) => [
              `${one.bars} ${one.bars === 1 ? 'bar' : 'bars'}, the last across the ${one.panel}, ${units.lengthUnitText(one.long_mm)}`,
              kpa(one.safe_kpa),
            ])}
          />
        ) : (
          <Typography variant="body2">Bars would change nothing.</Typography>
        )}
        <Rows
          rows={cell.lower.map((one) => [
            `At ${kpa(one.pressure_kpa)}: limit ${units.quantity('sccm', one.limit_sccm)}, bows ${units.cut(one.bow_mm)}${units.inches ? '' : ' mm'}`,
            min(one.least_min),
          ])}
        />
      </Folded>
    </Box>
  )
}

function Rows({ rows }: { rows: readonly (readonly [string, string])[] }) {
  const { inks } = useTheme()
  return (
    <Box component="dl" sx={{ m: 0, display: 'grid', gridTemplateColumns: '1fr auto', columnGap: 1.5 }}>
      {rows.map(([name, value]) => (
        <Box key={name} sx={{ display: 'contents' }}>
          <Box component="dt" sx={{ borderBottom: `1px solid ${inks.line}`, py: 0.5 }}>
            {name}
          </Box>
          <Box
            component="dd"
            sx={{
              m: 0,
              py: 0.5,
              borderBottom: `1px solid ${inks.line}`,
              textAlign: 'right',
              fontVariantNumeric: 'tabular-nums',
            }}
          >
            {value}
          </Box>
        </Box>
      ))}
    </Box>
  )
}
