import { Box, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { Lines } from '../../api/model'
import { BoreField, Choice } from '../../fields/fields'
import { WordsField } from '../../fields/WordsField'
import { useWork } from '../../work/store'
import { pair } from '../Row'
import { setLines } from './edits'

type CellFuel = Lines['fuels'][number]

/** What each cell holds, what its filler says, and how wide a spout goes in there. */
export function CellFuels({ readOnly }: { readOnly: boolean }) {
  const cells = useWork((work) => work.evaluation?.shell?.capacity?.cells) ?? []
  const fuels = useWork((work) => work.design.lines.fuels)
  const usual = useWork((work) => work.design.brief.fuel)
  if (cells.length < 2) return <Typography variant="body2">One cell, one fuel: the brief’s.</Typography>
  const change = (cell: string, part: Partial<CellFuel>) => {
    const known = fuels.find((one) => one.cell === cell)
    const next: CellFuel = { ...declared.CellFuel.defaults, cell, fuel: usual, ...known, ...part }
    setLines({ fuels: known ? fuels.map((one) => (one.cell === cell ? next : one)) : [...fuels, next] })
  }
  return (
    <>
      {cells.map(({ cell }) => {
        const place = fuels.findIndex((one) => one.cell === cell)
        const held = fuels[place]
        return (
          <Box key={cell} data-cell={cell} sx={{ display: 'flex', flexDirection: 'column', gap: 1.5 }}>
            <Typography variant="h3">{cell}</Typography>
            <Box sx={pair}>
              <Choice
                label="Fuel"
                value={held?.fuel ?? usual}
                options={declared.CellFuel.choices.fuel}
                disabled={readOnly}
                onChange={(fuel) => change(cell, { fuel })}
              />
              <BoreField
                label="Widest spout"
                value={held?.spout_mm ?? null}
                emptyText="not restricted"
                path={`lines.fuels.${place}.spout_mm`}
                disabled={readOnly}
                onCommit={(spout_mm) => change(cell, { spout_mm })}
              />
            </Box>
            <WordsField
              mayBeEmpty
              label="Label at its filler"
              value={held?.label ?? ''}
              most={declared.CellFuel.most.label}
              disabled={readOnly}
              onCommit={(label) => change(cell, { label })}
            />
          </Box>
        )
      })}
    </>
  )
}
