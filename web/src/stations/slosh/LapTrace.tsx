import { Alert, Box, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { api, asked, type Schemas } from '../../api/client'
import { sendFile } from '../../api/sendFile'
import { ConfirmedButton } from '../../fields/ConfirmedButton'
import { Plot } from '../../plots/Plot'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { lapsQuery } from './slosh'

/** As keel's `LapColumns`; it goes along as text, beside the file. */
export interface Columns {
  time: string
  forward: string
  left: string
  up: string
  throttle: string
  fuel: string
  fuel_unit: 'L/h' | 'cm³/min'
  time_unit: 's' | 'ms'
  unit: 'g' | 'm/s²'
  forward_flipped: boolean
  left_flipped: boolean
  up_has_gravity: boolean
}
export const columnsText = (columns: Columns) => encodeURIComponent(JSON.stringify(columns))

/** The file's lap as it would be kept, by the columns as they stand. */
export function TriedTrace({ file, columns }: { file: globalThis.File; columns: Columns }) {
  const ready = Boolean(columns.time && (columns.forward || columns.left))
  const trace = useQuery({
    queryKey: ['lap trace', file.name, file.size, file.lastModified, columns],
    enabled: ready,
    retry: false,
    queryFn: () => sendFile<Schemas['LapTrace']>(`/api/laps/trace?columns=${columnsText(columns)}`, file),
  })
  if (!ready)
    return <Typography variant="body2">Say which column is the time, and which is forward or sideways.</Typography>
  if (trace.error) return <Alert severity="warning">{trace.error.message}</Alert>
  if (!trace.data) return <Typography variant="body2">Reading it.</Typography>
  return (
    <Box data-preview>
      <Trace lap={trace.data} name={file.name} />
    </Box>
  )
}

/** A lap's trace, to check the senses against what is known of the road, and what was odd. */
function Trace({ lap, name }: { lap: Schemas['LapTrace']; name: string }) {
  const { inks } = useTheme()
  const units = useUnits()
  const points = (values: number[]) => values.map((v, i) => [i * lap.dt_s, v] as const)
  return (
    <>
      <Plot
        label={`Accelerations of ${name}`}
        lines={[
          { points: points(lap.forward_g), colour: inks.metal },
          { points: points(lap.left_g), colour: inks.hand },
        ]}
        xText="s"
        yText="g: forward grey-blue, left violet"
        showX={(value) => units.number(value, 0)}
        showY={(value) => units.number(value, 1)}
        fromZero={false}
      />
      <Typography variant="body2" color="textSecondary">
        Check it: braking has to go down, a left turn up.
      </Typography>
      {lap.notes.map((note) => (
        <Typography key={note} variant="body2">
          {note}.
        </Typography>
      ))}
    </>
  )
}

/** The kept lap at hand. */
export function KeptTrace() {
  const queries = useQueryClient()
  const id = useWork((work) => work.design.slosh.kept_lap)
  const readOnly = useWork((work) => work.readOnly)
  const lap = useQuery(lapsQuery).data?.find((item) => item.id === id)
  if (!lap) return null
  return (
    <Box data-lap={lap.id}>
      <Trace lap={lap} name={lap.name} />
      <ConfirmedButton
        label={`Delete ${lap.name}`}
        warning="The lap goes from the workshop’s laps, for everybody. Studies that are done keep their figures. It can’t be undone."
        disabled={readOnly}
        onConfirm={() =>
          void asked(api.DELETE('/api/laps/{lap_id}', { params: { path: { lap_id: lap.id } } })).then(() =>
            queries.invalidateQueries({ queryKey: lapsQuery.queryKey }),
          )
        }
      />
    </Box>
  )
}
