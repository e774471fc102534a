import { Box, Button, MenuItem, TextField, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import * as declared from '../../api/declared'
import { Choice, VolumeField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { workshopQuery } from '../../workshop/query'
import { Folded } from '../Folded'
import { Papers } from '../../papers/Papers'
import { addSender, setGauge } from './edits'
import { SenderRow } from './SenderFields'

/** Senders, how they read together, and the reserve. */
export function GaugeStation({ findings }: { findings: ReactNode }) {
  const gauge = useWork((work) => work.design.gauge)
  const chosen = useWork((work) => (work.at?.kind === 'sender' ? work.at.id : null))
  const readOnly = useWork((work) => work.readOnly)
  const shaped = useWork((work) => Boolean(work.evaluation?.shell?.geometry))
  const library = useQuery(workshopQuery).data?.settings.senders ?? []
  if (!shaped) return <Typography variant="body2">A sender hangs in a tank: give it a shape at Shell first.</Typography>
  const full = readOnly || gauge.senders.length >= declared.Gauge.most.senders
  return (
    <>
      {gauge.senders.map((sender, place) => (
        <SenderRow key={sender.id} sender={sender} place={place} chosen={sender.id === chosen} readOnly={readOnly} />
      ))}
      {gauge.senders.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          Hang a sender in the tank to see what its needle says against what is in there, eighth by eighth.
        </Typography>
      )}
      <Box sx={{ display: 'grid', gap: 1 }}>
        {library.length > 0 && (
          <TextField
            select
            label="Add a sender from the library"
            value=""
            disabled={full}
            onChange={(event) => addSender(library[Number(event.target.value)] ?? null)}
          >
            {library.map((part, place) => (
              <MenuItem key={part.name} value={place} sx={{ minHeight: 44 }}>
                {part.name}
              </MenuItem>
            ))}
          </TextField>
        )}
        <Button variant="outlined" disabled={full} onClick={() => addSender(null)}>
          Add a sender and type its figures
        </Button>
      </Box>
      {gauge.senders.length > 1 && (
        <Choice
          label="Senders in one cell"
          value={gauge.joined}
          options={declared.Gauge.choices.joined}
          disabled={readOnly}
          onChange={(joined) => setGauge({ joined })}
        />
      )}
      <VolumeField
        label="Low-level warning volume"
        value={gauge.reserve_l ?? null}
        emptyText="no lamp"
        hint="litres left to use as a reserve"
        path="gauge.reserve_l"
        disabled={readOnly}
        onCommit={(reserve_l) => setGauge({ reserve_l })}
      />
      <SwitchLines />
      {findings}
      {gauge.senders.length > 0 && (
        <Folded title="Download">
          <Papers station="gauge" />
        </Folded>
      )}
    </>
  )
}

/** The switch's height, once for all senders of a space that have it alike. */
function SwitchLines() {
  const readings = (useWork((work) => work.evaluation?.gauge?.truth?.readings) ?? []).filter(
    (reading) => reading.switch_mm !== null,
  )
  const units = useUnits()
  const several = new Set(readings.map((reading) => reading.cell)).size > 1
  const said = readings.map((reading) => ({
    ...reading,
    text: `low-level switch stands ${units.lengthUnitText(reading.switch_mm ?? 0)} over the lowest inner point${several ? ` of ${reading.cell}` : ''}.`,
  }))
  const alike = new Set(said.map((one) => one.text)).size === 1
  return (alike ? said.slice(0, 1) : said).map((one) => (
    <Typography key={one.id} variant="body2" data-switch={one.id}>
      {alike ? 'The' : `${one.name}: the`} {one.text}
    </Typography>
  ))
}
