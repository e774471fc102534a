import { Box, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { LineRun, Passing } from '../../api/model'
import { LengthField, MaybeChoice } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { pair } from '../Row'
import { passThrough } from './edits'

/** Where the run goes through sheet, and how. */
export function RunPasses({ run, place, readOnly }: { run: LineRun; place: number; readOnly: boolean }) {
  const units = useUnits()
  const through = useWork((work) => work.evaluation?.lines?.crossings)?.filter((one) => one.run === run.id) ?? []
  return through.map((one) => {
    const own = run.passes.findIndex(
      (passing) => one.panel === passing.panel || one.panel === `vehicle-${passing.panel}`,
    )
    const panel = run.passes[own]?.panel ?? one.panel.replace(/^vehicle-/, '')
    if (one.hole)
      return (
        <Typography key={`${one.panel}-${one.hole}`} variant="body2">
          Through {one.hole} of {one.panel_name}, {units.lengthUnitText(one.edge_mm)} from its edge: a grommet there.
        </Typography>
      )
    return (
      <Box key={one.panel} sx={pair} data-pass={one.panel}>
        <MaybeChoice
          label={`Through ${one.panel_name}`}
          value={run.passes[own]?.way}
          options={declared.Passing.choices.way}
          none="no hole"
          disabled={readOnly}
          onChange={(way) => passThrough(run, panel, way ? { way: way as Passing['way'] } : null)}
        />
        <LengthField
          label="Across the hole"
          value={run.passes[own]?.hole_mm ?? null}
          emptyText={units.lengthUnitText(one.needed_mm)}
          path={`lines.runs.${place}.passes.${own}.hole_mm`}
          disabled={readOnly || own < 0}
          onCommit={(hole_mm) => passThrough(run, panel, { hole_mm })}
        />
      </Box>
    )
  })
}
