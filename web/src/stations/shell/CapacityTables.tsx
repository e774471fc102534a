import { Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Downloads } from '../sheet/Downloads'

/** The sum of the capacity, line by line, to be checked by hand. */
export function CapacityTable() {
  const capacity = useWork((work) => work.evaluation?.capacity ?? null)
  const units = useUnits()
  if (!capacity) return null
  const row = (what: string, litres: number, how: string, strong = false) => (
    <TableRow key={what} sx={strong ? { '& td': { fontWeight: 700 } } : undefined}>
      <TableCell sx={{ pl: 0 }}>
        {what}
        <Typography variant="body2" color="textSecondary">
          {how}
        </Typography>
      </TableCell>
      <TableCell align="right" sx={{ pr: 0, whiteSpace: 'nowrap', verticalAlign: 'top' }}>
        {units.volume(litres, 3)}
      </TableCell>
    </TableRow>
  )
  return (
    <Table size="small" aria-label={`Capacity in ${units.volumeUnit}`}>
      <TableHead>
        <TableRow>
          <TableCell sx={{ pl: 0 }}>What</TableCell>
          <TableCell align="right" sx={{ pr: 0 }}>
            {units.volumeUnit}
          </TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {capacity.lines.slice(0, -1).map((line) => row(line.what, line.litres, units.say(line.how)))}
        {row('Brimful', capacity.brimful_l, '', true)}
        {capacity.lines.slice(-1).map((line) => row(line.what, line.litres, units.say(line.how)))}
        {row('Rated', capacity.rated_l, 'Air that a filler or vent traps comes off once they are placed.', true)}
        {capacity.not_counted.map((line) => row(`Not counted: ${line.what.toLowerCase()}`, line.litres, units.say(line.how)))}
      </TableBody>
    </Table>
  )
}

export function StrappingTable() {
  const rows = useWork((work) => work.evaluation?.strapping) ?? []
  const units = useUnits()
  return (
    <>
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell sx={{ pl: 0 }}>Level, {units.lengthUnit}</TableCell>
            <TableCell align="right">{units.volumeUnit}</TableCell>
            <TableCell align="right" sx={{ pr: 0 }}>
              Share
            </TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.map((row) => (
            <TableRow key={row.level_mm}>
              <TableCell sx={{ pl: 0 }} title={units.exact(row.level_mm)}>
                {units.length(row.level_mm)}
              </TableCell>
              <TableCell align="right">{units.volume(row.volume_l)}</TableCell>
              <TableCell align="right" sx={{ pr: 0 }}>
                {units.number(row.fraction * 100, 1)} %
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      <Downloads files={[{ name: 'strapping.csv', label: 'Strapping table, CSV' }]} />
    </>
  )
}
