import { Box, Typography } from '@mui/material'
import type { LineRun } from '../../api/model'
import { LengthField, Toggle } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { passThrough } from './edits'

/** Where the run goes through sheet, and whether there is a hole for it. */
export function RunPasses({ run, place, readOnly }: { run: LineRun; place: number; readOnly: boolean }) {
  const units = useUnits()
  const through = useWork((work) => work.evaluation?.lines?.crossings)?.filter((one) => one.id === run.id) ?? []
  return through.map((one) => {
    const own = run.passes.findIndex(({ panel }) => one.panel === panel || one.panel === `vehicle-${panel}`)
    const panel = run.passes[own]?.panel ?? one.panel.replace(/^vehicle-/, '')
    if (one.hole)
      return (
        <Typography key={`${one.panel}-${one.hole}`} variant="body2">
          Through {one.hole} of {one.panel_name}, {units.lengthUnitText(one.edge_mm)} from its edge: a grommet there.
        </Typography>
      )
    return (
      <Box key={one.panel} data-pass={one.panel} sx={{ display: 'flex', flexDirection: 'column', gap: 1.5 }}>
        <Toggle
          label={`Grommet in ${one.panel_name}`}
          checked={own >= 0}
          disabled={readOnly}
          onChange={(there) => passThrough(run, panel, there ? {} : null)}
        />
        {own >= 0 && (
          <LengthField
            label="Across the hole"
            value={run.passes[own]?.hole_mm ?? null}
            emptyText={units.length(one.needed_mm)}
            path={`lines.runs.${place}.passes.${own}.hole_mm`}
            disabled={readOnly}
            onCommit={(hole_mm) => passThrough(run, panel, { hole_mm })}
          />
        )}
      </Box>
    )
  })
}
