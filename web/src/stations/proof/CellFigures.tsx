import { Box, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { Schemas } from '../../api/client'
import type { CellPlan } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { Folded } from '../Folded'

type Plan = Schemas['ProofPlan']
type Line = readonly [name: string, value: string, why?: string]

/** What one cell bears, how it is tested, and what bars or lower pressure would change; each with where it comes from. */
export function CellFigures({ plan, cell }: { plan: Plan; cell: CellPlan }) {
  const units = useUnits()
  const kpa = (value: number) => units.quantity('finekpa', value)
  const min = (value: number) => units.quantity('min', Math.ceil(value))
  const { rules, gauge } = plan
  const [weakest] = cell.panels
  const share = `${units.number(100 * rules.stress_share, 0)} % of the yield as welded (house rule)`
  const isLower = cell.limit_sccm < rules.limit_sccm - HAIR
  return (
    <Box component="section" aria-label={`Figures of the ${cell.cell}`} data-cell={cell.cell}>
      {plan.cells.length > 1 && <Typography variant="h2">{cell.cell}</Typography>}
      <Rows
        rows={[
          ['Safe pressure', kpa(cell.safe_kpa), cell.is_capped ? 'highest test pressure (house rule)' : share],
          ['Weakest panel', weakest?.name ?? '', weakest?.held],
          ['Safe vacuum', kpa(cell.safe_vacuum_kpa), 'bending, or a third of what buckles rolled walls'],
          ['Air in it', units.volumeUnitText(cell.volume_l), 'brimful, hoses added, parts inside taken off'],
          [
            'Water column',
            units.lengthUnitText(Math.round(cell.column_mm)),
            `at ${kpa(cell.limiter_kpa)}, where the limiter opens`,
          ],
          [
            'Leak limit',
            units.quantity('sccm', cell.limit_sccm),
            `${units.quantity('sccm', rules.limit_sccm)} from ${kpa(rules.known_kpa)} up (house rule)` +
              (isLower ? '; the same hole loses less here' : ''),
          ],
          [
            'Least length, by gauge',
            min(cell.least_min.by_gauge),
            `until that leak lets off ${units.number(rules.length_factor, 0)} × ${kpa(gauge.resolution_kpa)}`,
          ],
          [
            'Least length, by uncertainty',
            min(cell.least_min.by_uncertainty),
            'until ± of all three instruments is as small as the limit',
          ],
          ...(cell.neighbours.length
            ? [['Stands open', cell.neighbours.join(', '), 'so that the wall between them shows its leaks'] as Line]
            : []),
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

const HAIR = 1e-9

function Rows({ rows }: { rows: readonly Line[] }) {
  const { inks } = useTheme()
  const cell = { py: 0.5, borderBottom: `1px solid ${inks.line}` }
  return (
    <Box component="dl" sx={{ m: 0, display: 'grid', gridTemplateColumns: '1fr auto', columnGap: 1.5 }}>
      {rows.map(([name, value, why]) => (
        <Box key={name} sx={{ display: 'contents' }}>
          <Box component="dt" sx={cell}>
            {name}
            {why && <Box sx={{ fontSize: 13, color: 'text.secondary' }}>{why}</Box>}
          </Box>
          <Box component="dd" sx={{ ...cell, m: 0, textAlign: 'right', fontVariantNumeric: 'tabular-nums' }}>
            {value}
          </Box>
        </Box>
      ))}
    </Box>
  )
}
