import { Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
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
            <TableRow key={bore.port}>
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
  return (
    <>
      <Typography variant="body2" color="textSecondary">
        From the rim to the nearest bend, edge and other hole. Cut too large it is a disc as wide as shown, with a seam
        all round and its heat: measure the part that goes in first.
      </Typography>
      <Table size="small" aria-label="Room round the holes">
        <TableHead>
          <TableRow>
            <TableCell sx={{ pl: 0 }}>Hole</TableCell>
            <TableCell align="right">bend</TableCell>
            <TableCell align="right">edge</TableCell>
            <TableCell align="right">hole</TableCell>
            <TableCell align="right" sx={{ pr: 0 }}>
              patch
            </TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {checks.map((check) => (
            <TableRow key={`${check.part} ${check.port}`}>
              <TableCell sx={{ pl: 0 }}>{check.name}</TableCell>
              <TableCell align="right">{gap(check.bend_mm)}</TableCell>
              <TableCell align="right">{gap(check.edge_mm)}</TableCell>
              <TableCell align="right">{gap(check.other_mm)}</TableCell>
              <TableCell align="right" sx={{ pr: 0 }}>
                ⌀&nbsp;{units.length(check.patch_mm)}
                <Typography sx={{ fontSize: 12, whiteSpace: 'nowrap' }} color="textSecondary">
                  {[
                    isNumber(check.patch_minutes) ? `${units.number(check.patch_minutes, 0)} min` : '',
                    isNumber(check.patch_money) ? `${units.number(check.patch_money, 0)} ${currency}`.trim() : '',
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </Typography>
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </>
  )
}
