import { Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { Fragment } from 'react'
import type { Schemas } from '../../api/client'
import type { FlatPart } from '../../api/model'
import { isNumber } from '../../units/number'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Folded } from '../Folded'

/** Where each port's hole is marked out on its flat. */
export function Holes({ parts }: { parts: FlatPart[] }) {
  const units = useUnits()
  const checks = useWork((work) => work.evaluation?.sheet?.holes)
  const holes = parts.flatMap((part) =>
    (part.bores ?? [])
      .filter((bore) => !bore.bolt)
      .map((bore) => ({ part, bore, bolts: part.bores?.filter((o) => o.port === bore.port && o.bolt).length ?? 0 })),
  )
  if (!holes.length) return null
  return (
    <Folded title="Holes on the flats">
      <Typography variant="body2" color="textSecondary">
        Middles from the lower left corner, the inside facing you. On a bend or beside one a hole is cut after bending.
      </Typography>
      <Table size="small" aria-label="Holes on the flats">
        <TableHead>
          <TableRow>
            <TableCell sx={{ pl: 0 }}>Hole</TableCell>
            <TableCell align="right">from left, {units.lengthUnit}</TableCell>
            <TableCell align="right">up</TableCell>
            <TableCell align="right" sx={{ pr: 0 }}>
              ⌀
            </TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {holes.map(({ part, bore, bolts }) => (
            <TableRow key={`${part.name} ${bore.port}`}>
              <TableCell sx={{ pl: 0 }}>
                {bore.name}, on the {part.title.toLowerCase()}
                {bolts > 0 && `, ${bolts} bolts`}
              </TableCell>
              <TableCell align="right">{units.cut(bore.middle[0] as number)}</TableCell>
              <TableCell align="right">{units.cut(bore.middle[1] as number)}</TableCell>
              <TableCell align="right" sx={{ pr: 0 }}>
                {units.cut(bore.diameter_mm)}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {checks?.length ? <Clear checks={checks} /> : null}
    </Folded>
  )
}

/** How far each rim is from what it must stay clear of, and what a patch over a hole cut too large would take. */
function Clear({ checks }: { checks: Schemas['HoleCheck'][] }) {
  const units = useUnits()
  const currency = useWork((work) => work.evaluation?.sheet?.schemes?.[0]?.currency ?? '')
  const gap = (mm: number | null) => (mm === null ? '–' : units.length(mm))
  const patch = (check: Schemas['HoleCheck']) =>
    [
      `patch ⌀ ${units.length(check.patch_mm)}: the hole and ${units.length((check.patch_mm - check.diameter_mm) / 2)} of sound sheet round it`,
      `${units.quantity('m', check.patch_weld_mm / 1000)} of seam`,
      isNumber(check.patch_minutes) ? `${units.number(check.patch_minutes, 0)} min` : '',
      isNumber(check.patch_money) ? `${units.number(check.patch_money, 0)} ${currency}`.trim() : '',
    ]
      .filter(Boolean)
      .join(', ')
  return (
    <>
      <Typography variant="body2" color="textSecondary">
        From the rim to the nearest bend, edge and other hole; under it what a patch would take if the hole were cut too
        large. Measure the part that goes in first.
      </Typography>
      <Table size="small" aria-label="Room round the holes">
        <TableHead>
          <TableRow>
            <TableCell sx={{ pl: 0 }}>Hole</TableCell>
            <TableCell align="right">bend</TableCell>
            <TableCell align="right">edge</TableCell>
            <TableCell align="right" sx={{ pr: 0 }}>
              hole
            </TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {checks.map((check) => (
            <Fragment key={`${check.part} ${check.port}`}>
              <TableRow sx={{ '& td': { borderBottom: 0, pb: 0 } }}>
                <TableCell sx={{ pl: 0 }}>{check.name}</TableCell>
                <TableCell align="right">{gap(check.bend_mm)}</TableCell>
                <TableCell align="right">{gap(check.edge_mm)}</TableCell>
                <TableCell align="right" sx={{ pr: 0 }}>
                  {gap(check.other_mm)}
                </TableCell>
              </TableRow>
              <TableRow>
                <TableCell colSpan={4} sx={{ px: 0, pt: 0, fontSize: 12, color: 'text.secondary' }}>
                  {patch(check)}
                </TableCell>
              </TableRow>
            </Fragment>
          ))}
        </TableBody>
      </Table>
    </>
  )
}
