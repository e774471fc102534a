import { Box, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { useState } from 'react'
import { LengthField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Papers } from '../../papers/Papers'

/** The sum of the capacity, line by line, to be checked by hand. */
export function CapacityTable() {
  const capacity = useWork((work) => work.evaluation?.shell?.capacity ?? null)
  const units = useUnits()
  if (!capacity) return null
  const last = capacity.lines.findIndex((line) => line.what === 'Ullage')
  const [inside, off] = [capacity.lines.slice(0, last), capacity.lines.slice(last)]
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
        {inside.map((line) => row(line.what, line.litres, units.say(line.how)))}
        {row('Brimful', capacity.brimful_l, '', true)}
        {off.map((line) => row(line.what, line.litres, units.say(line.how)))}
        {row(
          'Rated',
          capacity.rated_l,
          capacity.cells.every((cell) => cell.trapped_l === null)
            ? 'Air that a vent traps comes off once one is placed.'
            : '',
          true,
        )}
        {capacity.why_none && (
          <TableRow>
            <TableCell sx={{ pl: 0 }} colSpan={2}>
              Usable on the level: {units.say(capacity.why_none)}
            </TableCell>
          </TableRow>
        )}
        {capacity.usable_l !== null &&
          row(
            'Usable on the level',
            capacity.usable_l,
            `Rated less ${units.volumeUnitText(capacity.stranded_l ?? 0)} that the pickup can’t draw.`,
            true,
          )}
        {capacity.cells.length > 1 &&
          capacity.cells.map((cell) =>
            row(cell.cell, cell.rated_l, `rated; brimful ${units.volumeUnitText(cell.brimful_l)}`),
          )}
        {capacity.not_counted.map((line) =>
          row(`Not counted: ${line.what.toLowerCase()}`, line.litres, units.say(line.how)),
        )}
      </TableBody>
    </Table>
  )
}

export function StrappingTable() {
  const [pitch, setPitch] = useState<number | null>(null)
  const cells = useWork((work) => work.evaluation?.shell?.strapping) ?? []
  const query = pitch === null ? '' : `?pitch_mm=${pitch}`
  const units = useUnits()
  return (
    <>
      {cells.map(({ cell, rows }) => (
        <Table key={cell} size="small" aria-label={`Strapping table of ${cell}`}>
          {cells.length > 1 && (
            <Box
              component="caption"
              sx={{ captionSide: 'top', textAlign: 'left', fontWeight: 650, color: 'text.primary', pb: 0 }}
            >
              {cell}, {units.volumeUnitText(rows.at(-1)?.volume_l ?? 0)}
            </Box>
          )}
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
      ))}
      <LengthField
        label="Step between rows, in the files"
        value={pitch}
        emptyText="a twentieth of the depth"
        onCommit={(mm) => setPitch(mm === null ? null : Math.min(1000, Math.max(1, mm)))}
      />
      <Papers station="shell" query={query} />
    </>
  )
}
