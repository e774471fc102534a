import { Alert, Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { api, asked } from '../../api/client'
import { sendFile } from '../../api/sendFile'
import type { Calibration } from '../../api/model'
import { FileButton } from '../../fields/FileButton'
import { VolumeField } from '../../fields/fields'
import { Plot } from '../../plots/Plot'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Block, Board, Sheet } from '../Board'
import { Problems } from '../Problems'
import { calibrationQuery, calibrationsQuery, useOnBench } from './bench'

/** The calibration at hand: meters, pours, the curve that comes of them. */
export function BenchBoard({ designId }: { designId: number }) {
  const chosen = useOnBench((bench) => bench.id)
  const list = useQuery(calibrationsQuery(designId)).data
  const id = list?.find((item) => item.id === chosen)?.id ?? list?.[0]?.id
  if (id === undefined) {
    return (
      <Board label="Bench">
        <Block title="Nothing measured yet">
          <Typography color="textSecondary" sx={{ maxWidth: '36em' }}>
            Start measuring a sender at the right. Then pour in steps, best eight or more, from empty to full.
          </Typography>
        </Block>
      </Board>
    )
  }
  return <OneCalibration key={id} id={id} />
}

function OneCalibration({ id }: { id: number }) {
  const item = useQuery(calibrationQuery(id)).data
  useListFollowing(item)
  const readOnly = useWork((work) => work.readOnly)
  if (!item) return <Board label="Bench">{null}</Board>
  return (
    <Board label="Bench">
      <Block
        title={`${item.sender_name}, against revision ${item.revision}`}
        about={`Started ${new Date(item.started).toLocaleString('en-GB')} by ${item.author}${item.note ? `: ${item.note}` : ''}.`}
      >
        {item.simulated && (
          <Alert severity="info" sx={{ mt: 1, maxWidth: 720 }} data-simulated>
            Simulated: readings of the stand-in meters are in this. It shows how the bench works, not how the tank
            reads.
          </Alert>
        )}
        {!item.closed && <Pouring item={item} readOnly={readOnly} />}
      </Block>
      <Outcome item={item} />
      <Readings item={item} />
    </Board>
  )
}

/** The list counts the readings too. */
function useListFollowing(item: Calibration | undefined) {
  const queries = useQueryClient()
  const count = item?.readings.length
  useEffect(() => {
    if (count) void queries.invalidateQueries({ queryKey: ['calibrations'] })
  }, [count, queries])
}

function Pouring({ item, readOnly }: { item: Calibration; readOnly: boolean }) {
  const units = useUnits()
  const { inks } = useTheme()
  const queries = useQueryClient()
  const [litres, setLitres] = useState(5)
  const [token, setToken] = useState('')
  const keep = (next: Calibration) => {
    queries.setQueryData(['calibration', item.id], next)
    if (next.closed) void queries.invalidateQueries({ queryKey: ['calibrations'] })
  }
  const path = { params: { path: { calibration_id: item.id } } }
  const pour = useMutation({
    mutationFn: () => asked(api.POST('/api/calibrations/{calibration_id}/pour', { ...path, body: { litres } })),
    onSuccess: keep,
  })
  const read = useMutation({
    mutationFn: (file: globalThis.File) => sendFile<Calibration>(`/api/calibrations/${item.id}/readings.csv`, file),
    onSuccess: keep,
  })
  const close = useMutation({
    mutationFn: () => asked(api.POST('/api/calibrations/{calibration_id}/close', path)),
    onSuccess: keep,
  })
  const give = useMutation({
    mutationFn: () => asked(api.POST('/api/calibrations/{calibration_id}/token', path)),
    onSuccess: (made) => setToken(made.token),
  })
  const failed = pour.error ?? read.error ?? close.error ?? give.error
  const last = item.readings.at(-1)
  const shown = item.live ?? (last ? { litres: last.litres, ohms: last.ohms } : null)
  const readout = { border: `1px solid ${inks.line}`, background: inks.paper, p: 1.25, minWidth: 150 }
  return (
    <Box sx={{ mt: 2, display: 'grid', gap: 1.5, maxWidth: 720 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5 }} aria-live="polite">
        <Box sx={readout} data-meter="flow">
          <Box sx={{ fontSize: 12, color: 'text.secondary' }}>poured in all{item.live && ', simulated meter'}</Box>
          <Box sx={{ fontSize: 26, fontVariantNumeric: 'tabular-nums' }}>
            {shown ? units.volumeUnitText(shown.litres) : '–'}
          </Box>
        </Box>
        <Box sx={readout} data-meter="ohm">
          <Box sx={{ fontSize: 12, color: 'text.secondary' }}>sender reads{item.live && ', simulated meter'}</Box>
          <Box sx={{ fontSize: 26, fontVariantNumeric: 'tabular-nums' }}>
            {shown ? `${units.number(shown.ohms, 1)} Ω` : '–'}
          </Box>
        </Box>
        <Box sx={{ alignSelf: 'end', minHeight: 24, color: 'text.secondary' }}>
          {item.live ? `pouring, ${units.number(item.live.left_s, 0)} s left` : ''}
        </Box>
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'start' }}>
        <Box sx={{ width: 150 }}>
          <VolumeField
            label="Pour"
            value={litres}
            disabled={readOnly}
            onCommit={(value) => value && setLitres(value)}
          />
        </Box>
        <Button
          variant="contained"
          sx={{ minHeight: 44 }}
          disabled={readOnly || pour.isPending || Boolean(item.live)}
          onClick={() => pour.mutate()}
        >
          Pour, simulated
        </Button>
        <FileButton
          label="Import readings, CSV"
          accept=".csv,text/csv"
          disabled={readOnly}
          onFile={(file) => read.mutate(file)}
        />
        <Button variant="outlined" disabled={readOnly} onClick={() => give.mutate()}>
          Connect an instrument
        </Button>
        <Button
          variant="outlined"
          disabled={readOnly || item.readings.length < 3 || Boolean(item.live)}
          onClick={() => close.mutate()}
        >
          Finish and keep
        </Button>
      </Box>
      {read.data && (
        <Problems problems={read.data.problems ?? []} taken={`Readings now: ${read.data.readings.length}.`} />
      )}
      {failed && <Alert severity="error">{failed.message}</Alert>}
      {token && (
        <Alert severity="success" data-token>
          Shown once. The instrument posts <code>{'{"litres": …, "ohms": …}'}</code> to{' '}
          <code>{`${location.origin}/api/bench/readings`}</code> with the header{' '}
          <code style={{ overflowWrap: 'anywhere' }}>{`Authorization: Bearer ${token}`}</code>. It is good until this is
          finished, or until another is asked for.
        </Alert>
      )}
      <Typography variant="body2" color="textSecondary">
        Petrol vapour is about whenever fuel is poured: bond tank and can to each other and to earth first, outdoors, no
        meter with sparking contacts. Water or test fluid reads the same on a float sender.
      </Typography>
    </Box>
  )
}

function Outcome({ item }: { item: Calibration }) {
  const units = useUnits()
  const { inks } = useTheme()
  if (item.readings.length < 2) return null
  const calculated = item.curve.map((point) => [point.ohms, point.calculated_l] as const)
  const measured = item.curve.map((point) => [point.ohms, point.litres] as const)
  return (
    <Block title="The curve">
      {item.worst_l !== null && item.rms_l !== null ? (
        <Typography variant="body2" data-fitted>
          Measured against calculated: off by {units.volumeUnitText(Math.abs(item.worst_l))} at the worst,{' '}
          {units.volumeUnitText(item.rms_l)} in the mean square. Between readings the curve is straight; it isn’t
          carried on beyond them.
        </Typography>
      ) : (
        <Typography variant="body2" color="textSecondary">
          Three readings make a curve.
        </Typography>
      )}
      <Plot
        label={`Litres against ohms of ${item.sender_name}${item.simulated ? ', simulated' : ''}`}
        width={620}
        height={230}
        fromZero={false}
        lines={[
          { points: calculated, colour: inks.quiet, dash: '6 4' },
          { points: measured, colour: inks.fuel },
        ].filter((line) => line.points.length)}
        dots={item.readings.map((reading) => ({
          at: [reading.ohms, reading.litres] as const,
          colour: inks.hand,
          hollow: reading.simulated,
        }))}
        xText="Ω"
        yText={`${units.volumeUnit}: dashed calculated, full measured${item.simulated ? '; hollow dots simulated' : ''}`}
        showX={(value) => units.number(value, 0)}
        showY={(value) => units.volume(value, 0)}
        perY={units.litresPer}
      />
      {item.curve.length > 0 && (
        <Button variant="outlined" href={`/api/calibrations/${item.id}/curve.csv`} download>
          Download the curve, CSV
        </Button>
      )}
    </Block>
  )
}

function Readings({ item }: { item: Calibration }) {
  const units = useUnits()
  if (!item.readings.length) return null
  return (
    <Block title="Readings">
      <Sheet
        label="Readings"
        width={760}
        columns={[
          { name: units.volumeUnit, right: true },
          { name: 'Ω', right: true },
          { name: 'calculated', right: true },
          { name: 'off by', right: true },
          { name: 'from' },
          { name: 'at' },
        ]}
        rows={item.readings.map((reading, place) => ({
          key: `${place}`,
          cells: [
            units.volume(reading.litres),
            units.number(reading.ohms, 1),
            reading.calculated_l === null ? '–' : units.volume(reading.calculated_l),
            reading.off_l === null ? '–' : units.volume(reading.off_l),
            reading.simulated ? <strong key="s">{reading.source}</strong> : reading.source,
            new Date(reading.at).toLocaleTimeString('en-GB'),
          ],
        }))}
      />
    </Block>
  )
}
