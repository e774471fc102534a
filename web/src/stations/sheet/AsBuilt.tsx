import { Box, Button, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { useState } from 'react'
import type { Schemas } from '../../api/client'
import { Choice, LengthField } from '../../fields/fields'
import { isNumber } from '../../units/number'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Folded } from '../Folded'
import { asPlanned, typeAsBuilt } from './edits'
import { AsBent } from './AsBent'
import { sizesOf } from './sizes'

type Change = Schemas['PartChange']

/** A size that came out otherwise is typed as it was built: litres, and every part that has to be another. */
export function AsBuilt() {
  const design = useWork((work) => work.design)
  const readOnly = useWork((work) => work.readOnly)
  const log = useWork((work) => work.evaluation?.sheet?.departures)
  const changed = useWork((work) => work.evaluation?.sheet?.parts_changed)
  const units = useUnits()
  const sizes = sizesOf(design)
  const [wanted, setWanted] = useState('')
  const size = sizes.find((one) => one.of === wanted) ?? sizes[0]
  if (!size) return null
  return (
    <Folded title="As built" open={Boolean(log?.length)}>
      <Typography variant="body2" color="textSecondary">
        A side, an opening or a corner came out otherwise? Type it as it is. Volume, reach and gaps are figured again,
        and the parts that have to follow are named.
      </Typography>
      <Choice
        label="What came out otherwise"
        value={size.of}
        options={sizes.map((one) => ({ value: one.of, label: `${one.name}, ${units.length(one.mm)}` }))}
        disabled={readOnly}
        onChange={setWanted}
      />
      <LengthField
        key={size.of}
        label="As built"
        value={null}
        emptyText={units.editLength(size.mm)}
        disabled={readOnly}
        onCommit={(mm) => mm !== null && typeAsBuilt(size, mm)}
      />
      <AsBent />
      {log?.map((one) => (
        <Box key={one.id} data-departure={one.of} sx={{ display: 'flex', gap: 1, alignItems: 'baseline' }}>
          <Typography sx={{ flex: 1, fontSize: 14 }}>
            <strong>{one.name}</strong>:{' '}
            {isNumber(one.built_mm) ? units.lengthUnitText(one.built_mm) : 'no longer there'}, planned{' '}
            {units.lengthUnitText(one.planned_mm)}
            {isNumber(one.brimful_l) &&
              `, ${one.brimful_l < 0 ? '−' : '+'}${units.volumeUnitText(Math.abs(one.brimful_l))} brimful`}
          </Typography>
          <Button size="small" disabled={readOnly} onClick={() => asPlanned(one.id)}>
            As planned
          </Button>
        </Box>
      ))}
      {changed?.length ? <Changed parts={changed} /> : null}
    </Folded>
  )
}

function Changed({ parts }: { parts: Change[] }) {
  const units = useUnits()
  const said = (mm: readonly number[] | null | undefined) =>
    mm ? mm.map((one) => units.length(one)).join(' × ') : 'none'
  return (
    <Table size="small" aria-label="Parts that change">
      <TableHead>
        <TableRow>
          <TableCell sx={{ pl: 0 }}>Part that changes</TableCell>
          <TableCell align="right">planned</TableCell>
          <TableCell align="right" sx={{ pr: 0 }}>
            now
          </TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {parts.map((part) => (
          <TableRow key={part.name}>
            <TableCell sx={{ pl: 0 }}>
              {part.title}
              {part.cut && <strong>, cut already</strong>}
            </TableCell>
            <TableCell align="right">{said(part.was_mm as number[] | null)}</TableCell>
            <TableCell align="right" sx={{ pr: 0 }}>
              {part.moved ? 'holes or bends elsewhere' : said(part.is_mm as number[] | null)}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  )
}
