import { Alert, Box, Button, LinearProgress, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import * as declared from '../../api/declared'
import type { Lap, Slosh } from '../../api/model'
import { labelled } from '../../fields/choices'
import { Choice, FlowField, NumberField, QuantityField, ShareField, Toggle, VolumeField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Folded } from '../Folded'
import { pair } from '../Row'
import { Downloads } from '../../papers/Downloads'
import { LapImport } from './LapImport'
import { lapsQuery, setManoeuvre, setSlosh, useRun } from './slosh'
import { useStudy } from './study'

const FILES = [
  { name: 'run.pdf', label: 'The run on a page, PDF', under: 'slosh' },
  { name: 'run.csv', label: 'The run with its lap, CSV', under: 'slosh' },
  { name: 'dry-spells.csv', label: 'Dry spells, CSV', under: 'slosh' },
]
const OVER = labelled(declared.Slosh.choices.over, {
  manoeuvre: 'one manoeuvre',
  'shipped lap': 'a made-up lap',
  'kept lap': 'a lap of the workshop’s',
})

/** What the tank is driven over, and with what. */
export function SloshStation() {
  const slosh = useWork((work) => work.design.slosh)
  const readOnly = useWork((work) => work.readOnly)
  const laps = useQuery(lapsQuery).data ?? []
  return (
    <>
      <Choice
        label="Driven over"
        value={slosh.over}
        options={OVER}
        disabled={readOnly}
        onChange={(over) => setSlosh({ over })}
      />
      {slosh.over === 'manoeuvre' && <ManoeuvreFields slosh={slosh} readOnly={readOnly} />}
      {slosh.over === 'shipped lap' && (
        <Choice
          label="Lap"
          value={slosh.lap}
          options={declared.Slosh.choices.lap}
          hint="made up, to try a tank on"
          disabled={readOnly}
          onChange={(lap) => setSlosh({ lap })}
        />
      )}
      {slosh.over === 'kept lap' && laps.length > 0 && (
        <Choice
          label="Lap from the library"
          value={String(slosh.kept_lap ?? '')}
          options={laps.map((lap) => ({ value: String(lap.id), label: `${lap.name}, ${Math.round(lap.seconds)} s` }))}
          disabled={readOnly}
          onChange={(id) => setSlosh({ kept_lap: Number(id) })}
        />
      )}
      {slosh.over === 'kept lap' && slosh.kept_lap && <Then slosh={slosh} laps={laps} readOnly={readOnly} />}
      {slosh.over !== 'manoeuvre' && (
        <NumberField
          label={slosh.then_laps.length ? 'Repeats of all laps' : 'Repeats'}
          value={slosh.laps}
          path="slosh.laps"
          disabled={readOnly}
          onCommit={(times) => times !== null && setSlosh({ laps: times })}
        />
      )}
      {slosh.over === 'kept lap' && <LapImport readOnly={readOnly} onKept={(id) => setSlosh({ kept_lap: id })} />}
      <Box sx={pair}>
        <ShareField
          label="Fill at the start"
          value={slosh.fill}
          path="slosh.fill"
          disabled={readOnly}
          onCommit={(fill) => fill !== null && setSlosh({ fill })}
        />
        <Draw slosh={slosh} readOnly={readOnly} />
      </Box>
      <Lowest />
      <Folded title="Return, transfer, surge tank" open={slosh.surge_l > 0 || slosh.return_l_per_h > 0}>
        <Box sx={pair}>
          <FlowField
            label="Return flow"
            value={slosh.return_l_per_h}
            path="slosh.return_l_per_h"
            disabled={readOnly}
            onCommit={(value) => value !== null && setSlosh({ return_l_per_h: value })}
          />
          <NumberField
            label="Jet-pump ratio"
            value={slosh.transfer_ratio}
            path="slosh.transfer_ratio"
            hint="times the return flow, at a transfer port"
            disabled={readOnly}
            onCommit={(value) => value !== null && setSlosh({ transfer_ratio: value })}
          />
          <VolumeField
            label="Surge tank"
            value={slosh.surge_l}
            path="slosh.surge_l"
            hint="0 for none"
            disabled={readOnly}
            onCommit={(value) => value !== null && setSlosh({ surge_l: value })}
          />
          <FlowField
            label="Lift pump"
            value={slosh.lift_l_per_h}
            path="slosh.lift_l_per_h"
            disabled={readOnly}
            onCommit={(value) => value !== null && setSlosh({ lift_l_per_h: value })}
          />
        </Box>
      </Folded>
      <Toggle
        label="Slosh lag: the surface swings"
        checked={slosh.lag}
        disabled={readOnly}
        onChange={(lag) => setSlosh({ lag })}
      />
      <Folded title="Download">
        <Downloads files={FILES} />
      </Folded>
      <Typography variant="body2" color="textSecondary">
        Baffles, foam and bladder are at Inside. This shows where fuel is likely to be, not that a vehicle is safe to
        drive.
      </Typography>
    </>
  )
}

/** Laps that follow the first, one after the other. */
function Then({ slosh, laps, readOnly }: { slosh: Slosh; laps: Lap[]; readOnly: boolean }) {
  const set = (then_laps: number[]) => setSlosh({ then_laps })
  const options = [
    { value: '', label: 'nothing more' },
    ...laps.map((lap) => ({ value: String(lap.id), label: `${lap.name}, ${Math.round(lap.seconds)} s` })),
  ]
  return (
    <>
      {slosh.then_laps.map((id, place) => (
        <Choice
          key={place}
          label={`Then, ${place + 2}`}
          value={String(id)}
          options={options}
          disabled={readOnly}
          onChange={(chosen) =>
            set(
              chosen
                ? slosh.then_laps.map((other, here) => (here === place ? Number(chosen) : other))
                : slosh.then_laps.filter((_, here) => here !== place),
            )
          }
        />
      ))}
      {slosh.then_laps.length < declared.Slosh.most.then_laps && (
        <Choice
          label="Next lap"
          value=""
          options={options}
          disabled={readOnly}
          onChange={(chosen) => chosen && set([...slosh.then_laps, Number(chosen)])}
        />
      )}
    </>
  )
}

function ManoeuvreFields({ slosh, readOnly }: { slosh: Slosh; readOnly: boolean }) {
  const { manoeuvre } = slosh
  return (
    <>
      <Choice
        label="Manoeuvre"
        value={manoeuvre.kind}
        options={declared.Manoeuvre.choices.kind}
        disabled={readOnly}
        onChange={(kind) => setManoeuvre({ kind })}
      />
      <Box sx={pair}>
        {manoeuvre.kind === 'hill' ? (
          <QuantityField
            label="Pitch, nose up"
            of="deg"
            value={manoeuvre.pitch_deg}
            path="slosh.manoeuvre.pitch_deg"
            disabled={readOnly}
            onCommit={(value) => value !== null && setManoeuvre({ pitch_deg: value })}
          />
        ) : (
          <QuantityField
            label="Acceleration"
            of="g"
            value={manoeuvre.g}
            path="slosh.manoeuvre.g"
            disabled={readOnly}
            onCommit={(g) => g !== null && setManoeuvre({ g })}
          />
        )}
        <QuantityField
          label="Duration"
          of="s"
          value={manoeuvre.seconds}
          path="slosh.manoeuvre.seconds"
          disabled={readOnly}
          onCommit={(seconds) => seconds !== null && setManoeuvre({ seconds })}
        />
        <QuantityField
          label="Ramp time"
          of="s"
          value={manoeuvre.ramp_s}
          path="slosh.manoeuvre.ramp_s"
          disabled={readOnly}
          onCommit={(ramp_s) => ramp_s !== null && setManoeuvre({ ramp_s })}
        />
        <NumberField
          label="Repeats"
          value={manoeuvre.again}
          path="slosh.manoeuvre.again"
          disabled={readOnly}
          onCommit={(again) => again !== null && setManoeuvre({ again })}
        />
      </Box>
    </>
  )
}

function Draw({ slosh, readOnly }: { slosh: Slosh; readOnly: boolean }) {
  const units = useUnits()
  const drawn = useRun((state) => state.run?.draw_l_per_h)
  return (
    <FlowField
      label="Engine fuel flow"
      value={slosh.draw_l_per_h ?? null}
      emptyText={drawn === undefined ? 'as the brief' : units.editVolume(Math.round(drawn * 10) / 10)}
      hint="empty: as the brief’s first case"
      path="slosh.draw_l_per_h"
      disabled={readOnly}
      onCommit={(value) => setSlosh({ draw_l_per_h: value })}
    />
  )
}

/** The lowest fill that runs through without a dry spell: looked for by a worker. */
function Lowest() {
  const units = useUnits()
  const readOnly = useWork((work) => work.readOnly)
  const { study, stale, start, stop } = useStudy('lowest')
  const row = study?.state === 'done' && !stale ? study.rows[0] : undefined
  return (
    <>
      {study?.state === 'running' ? (
        <Button variant="outlined" disabled={stop.isPending} onClick={() => stop.mutate(study)}>
          Stop looking for the lowest fill
        </Button>
      ) : (
        <Button variant="outlined" disabled={readOnly || start.isPending} onClick={() => start.mutate({})}>
          Find the lowest fill without a dry spell
        </Button>
      )}
      {study?.state === 'running' && <LinearProgress aria-label="Looking for the lowest fill" sx={{ flex: 'none' }} />}
      {(start.error ?? stop.error) && <Alert severity="error">{(start.error ?? stop.error)?.message}</Alert>}
      {row && (
        <Typography variant="body2" data-lowest>
          {row.problem ??
            (row.lowest_l === null ? (
              'It runs dry even from brimful.'
            ) : (
              <Found
                share={row.lowest_l / row.brimful_l}
                readOnly={readOnly}
                text={units.volumeUnitText(row.lowest_l, 1)}
              />
            ))}
        </Typography>
      )}
    </>
  )
}

function Found({ share, text, readOnly }: { share: number; text: string; readOnly: boolean }) {
  const units = useUnits()
  return (
    <>
      Runs through from <strong>{text}</strong>, {units.number(share * 100, 0)} % of brimful.{' '}
      <Button
        size="small"
        disabled={readOnly}
        onClick={() => setSlosh({ fill: Math.min(1, Math.ceil(share * 1000) / 1000) })}
      >
        Fill to that
      </Button>
    </>
  )
}
