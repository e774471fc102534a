import { Alert, Button } from '@mui/material'
import { useMutation } from '@tanstack/react-query'
import { api, asked } from '../../api/client'
import type { Patch } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { applyPatch, useWork } from '../../work/store'
import { Block, Sheet } from '../Board'

/** The same lap with other insides, side by side with their price. */
export function Variants() {
  const units = useUnits()
  const readOnly = useWork((work) => work.readOnly)
  const design = useWork((work) => work.design)
  const ask = useMutation({ mutationFn: async () => ({ of: design, rows: await asked(api.POST('/api/slosh/variants', { body: { design: design as unknown as Record<string, unknown> } })) }) })
  const rows = ask.data?.rows ?? []
  const stale = ask.data !== undefined && ask.data.of !== design
  const first = rows[0]
  const more = (value: number, base: number | undefined, text: (v: number) => string) => (base === undefined || Math.abs(value - base) < 0.005 ? '–' : `${value > base ? '+' : '−'}${text(Math.abs(value - base))}`)
  return (
    <Block title="Other insides on the same lap" about="Each replaces the baffles that are drawn, or adds to them what it says. Litres, metal and weld are against the tank as drawn.">
      <Button variant="outlined" disabled={ask.isPending} onClick={() => ask.mutate()} sx={{ my: 1 }}>
        {ask.isPending ? 'Running them' : stale ? 'The tank has changed: run them again' : 'Run them'}
      </Button>
      {ask.error && <Alert severity="error">{ask.error.message}</Alert>}
      {rows.length > 0 && (
        <Sheet
          label="Other insides on the same lap"
          columns={[{ name: 'Inside' }, { name: 'dry', right: true }, { name: 'runs through from', right: true }, { name: 'holds', right: true }, { name: 'metal', right: true }, { name: 'weld', right: true }, { name: '' }]}
          rows={rows.map((row) => ({
            key: row.name,
            strong: row.favoured,
            cells: [
              row.problem ? `${row.name}: ${units.inText(row.problem)}` : row.name,
              row.problem ? '' : `${units.number(row.dry_s, 2)} s`,
              row.problem ? '' : row.lowest_l === null ? 'never' : units.volumeUnitText(row.lowest_l, 1),
              row === first ? units.volumeUnitText(row.brimful_l) : row.problem ? '' : more(row.brimful_l, first?.brimful_l, (v) => units.volumeUnitText(v)),
              row === first ? `${units.number(row.empty_kg, 1)} kg` : row.problem ? '' : more(row.empty_kg, first?.empty_kg, (v) => `${units.number(v, 2)} kg`),
              row === first ? `${units.number(row.weld_m, 2)} m` : row.problem ? '' : more(row.weld_m, first?.weld_m, (v) => `${units.number(v, 2)} m`),
              row.patch && !row.problem ? (
                <Button disabled={readOnly || stale} onClick={() => applyPatch(row.patch as Patch)}>
                  Take it
                </Button>
              ) : (
                ''
              ),
            ],
          }))}
        />
      )}
    </Block>
  )
}
