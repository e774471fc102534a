import { Box, Button, Table, TableBody, TableCell, TableHead, TableRow } from '@mui/material'
import { useState } from 'react'
import * as declared from '../api/declared'
import type { Schemas } from '../api/client'
import { Choice, LengthField, SheetField } from '../fields/fields'
import { gaugeText } from '../units/sheet'
import { useUnits } from '../units/useUnits'

type Stock = Schemas['StockSheet']

export function StockTable({
  stock,
  disabled,
  onChange,
}: {
  stock: Stock[]
  disabled: boolean
  onChange: (stock: Stock[]) => void
}) {
  const units = useUnits()
  const [fresh, setFresh] = useState<Stock>({
    metal: declared.BoxShell.defaults.metal,
    thickness_mm: declared.BoxShell.defaults.thickness_mm,
    length_mm: 2500,
    width_mm: 1250,
  })
  return (
    <>
      <Box sx={{ maxHeight: 300, overflowY: 'auto', mb: 2 }} tabIndex={0} role="region" aria-label="Stock sheets">
        <Table size="small" stickyHeader>
          <TableHead>
            <TableRow>
              <TableCell>Metal</TableCell>
              <TableCell align="right">Thickness, {units.lengthUnit}</TableCell>
              <TableCell align="right">Sheet, {units.lengthUnit}</TableCell>
              <TableCell />
            </TableRow>
          </TableHead>
          <TableBody>
            {stock.map((sheet, place) => (
              <TableRow key={place}>
                <TableCell>{sheet.metal}</TableCell>
                <TableCell align="right">
                  {units.editLength(sheet.thickness_mm)}
                  {units.inches && gaugeText(sheet.metal, sheet.thickness_mm)
                    ? `, ${gaugeText(sheet.metal, sheet.thickness_mm)}`
                    : ''}
                </TableCell>
                <TableCell align="right">
                  {units.length(sheet.length_mm)} × {units.length(sheet.width_mm)}
                </TableCell>
                <TableCell align="right">
                  <Button
                    disabled={disabled}
                    onClick={() => onChange(stock.filter((_, other) => other !== place))}
                    aria-label={`Remove ${sheet.metal} ${units.editLength(sheet.thickness_mm)} ${units.lengthUnit}`}
                  >
                    Remove
                  </Button>
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Box>
      {!disabled && (
        <Box sx={{ display: 'grid', gridTemplateColumns: '1.4fr 1fr 1fr 1fr auto', gap: 2, alignItems: 'start' }}>
          <Choice
            label="Metal"
            value={fresh.metal}
            options={declared.StockSheet.choices.metal}
            onChange={(metal) => setFresh({ ...fresh, metal })}
          />
          <SheetField
            label="Thickness"
            metal={fresh.metal}
            value={fresh.thickness_mm}
            onCommit={(value) => value && setFresh({ ...fresh, thickness_mm: value })}
          />
          <LengthField
            label="Length"
            value={fresh.length_mm}
            onCommit={(value) => value && setFresh({ ...fresh, length_mm: value })}
          />
          <LengthField
            label="Width"
            value={fresh.width_mm}
            onCommit={(value) => value && setFresh({ ...fresh, width_mm: value })}
          />
          <Button variant="outlined" onClick={() => onChange([...stock, fresh])}>
            Add sheet
          </Button>
        </Box>
      )}
    </>
  )
}
