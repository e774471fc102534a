import { Alert, Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, asked } from '../../api/client'
import type { Build, ProofRound, TestReadings } from '../../api/model'
import { sendFile } from '../../api/sendFile'
import { FileButton } from '../../fields/FileButton'
import { useUnits } from '../../units/useUnits'
import { record } from '../build'
import { ReasonDialog, useAsking } from '../ReasonDialog'
import { DecayPlot } from './DecayPlot'
import { HandReading } from './HandReading'
import { PlotKey } from './PlotKey'
import { readingsQuery } from './proof'
import { Simulation } from './Simulation'
import { Verdict, VerdictFigures } from './Verdict'

interface Props {
  build: Build
  round: ProofRound
  mayWrite: boolean
}

/** A test by its readings: what the gauge shows, the curve, what it says so far; and how readings come in. */
export function Readings({ build, round, mayWrite }: Props) {
  const { inks } = useTheme()
  const units = useUnits()
  const { id, limit_sccm, safe_kpa, simulated } = round.begun
  const running = round.ended === null
  const query = useQuery(readingsQuery(build.design_id, id, running))
  const answer = query.data as TestReadings | undefined
  if (!answer) return query.error ? <Alert severity="error">{units.inText(query.error.message)}</Alert> : null
  const { result, latest } = answer
  const found = round.ended?.found
  const verdict = running ? (result.decay?.verdict ?? 'running') : round.verdict
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.25 }} data-readings={result.count}>
      {result.stopped && (
        <Alert severity="error" variant="filled" role="alert" sx={{ fontSize: 18, fontWeight: 700 }}>
          {units.say(result.stopped)}
        </Alert>
      )}
      {simulated && (
        <Alert severity="info" data-simulated>
          Simulated: this tank and its gauge are stand-ins. It proves nothing.
        </Alert>
      )}
      {running && latest && (
        <Box sx={{ display: 'flex', gap: 3, flexWrap: 'wrap', fontVariantNumeric: 'tabular-nums' }} aria-live="polite">
          <Figure label="Gauge" text={units.quantity('finekpa', latest.gauge_kpa)} />
          <Figure label="Air in the tank" text={units.quantity('c', latest.temperature_c, 1)} />
          <Figure label="Barometer" text={units.quantity('barokpa', latest.barometer_kpa)} />
          <Figure label="Time" text={units.quantity('min', latest.minute)} />
        </Box>
      )}
      {(result.count > 1 || !running) && (
        <Verdict verdict={running && verdict === 'too short' ? 'running' : verdict}>
          {found && !result.decay ? (
            <Box>
              Leak {units.number(found.leak_sccm, 2)} ± {units.quantity('sccm', found.uncertainty_sccm)}, limit{' '}
              {units.quantity('sccm', limit_sccm ?? 0)}; its {found.readings} readings came with another log
            </Box>
          ) : (
            <VerdictFigures result={result} limit={limit_sccm ?? 0} />
          )}
        </Verdict>
      )}
      {result.count > 1 && (
        <>
          <DecayPlot result={result} />
          <PlotKey />
        </>
      )}
      {running && mayWrite && <Incoming build={build} round={round} answer={answer} />}
      {typeof safe_kpa === 'number' && (
        <Box sx={{ fontSize: 14, color: inks.quiet }}>
          Begun at {units.quantity('finekpa', round.begun.pressure_kpa)}, limiter at{' '}
          {units.quantity('finekpa', round.begun.limiter_kpa)}, the cell bears {units.quantity('finekpa', safe_kpa)};{' '}
          {units.volumeUnitText(round.begun.volume_l ?? 0)} of air
        </Box>
      )}
    </Box>
  )
}

function Figure({ label, text }: { label: string; text: string }) {
  return (
    <Box>
      <Box sx={{ fontSize: 13, color: 'text.secondary' }}>{label}</Box>
      <Box sx={{ fontSize: 24, fontWeight: 650 }}>{text}</Box>
    </Box>
  )
}

/** By hand, from a file, from a gauge with a token, or simulated. */
function Incoming({ build, round, answer }: { build: Build; round: ProofRound; answer: TestReadings }) {
  const units = useUnits()
  const queries = useQueryClient()
  const [token, setToken] = useState('')
  const path = { design_id: build.design_id, proof: round.begun.id }
  const again = () => queries.invalidateQueries({ queryKey: ['leak test', build.design_id, round.begun.id] })
  const read = useMutation({
    mutationFn: (file: globalThis.File) =>
      sendFile<TestReadings>(`/api/leak-tests/readings?design=${path.design_id}&proof=${path.proof}`, file),
    onSuccess: again,
  })
  const give = useMutation({
    mutationFn: () => asked(api.POST('/api/designs/{design_id}/leak-tests/{proof}/token', { params: { path } })),
    onSuccess: (made) => setToken(made.token),
  })
  const failed = read.error ?? give.error
  if (round.begun.simulated) return answer.result.count ? null : <Simulation path={path} onBegun={again} />
  return (
    <>
      <HandReading build={build} proof={round.begun.id} />
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <FileButton label="Import readings, CSV" accept=".csv,text/csv" onFile={(file) => read.mutate(file)} />
        <Button variant="outlined" onClick={() => give.mutate()}>
          Connect a gauge
        </Button>
      </Box>
      {failed && <Alert severity="error">{units.inText(failed.message)}</Alert>}
      {read.data?.problems?.map((problem) => (
        <Alert key={`${problem.field} ${problem.message}`} severity="warning">
          {units.inText(problem.message)}
        </Alert>
      ))}
      {token && (
        <Alert severity="info">
          The gauge posts its readings to /api/gauge/readings with this token, shown once:{' '}
          <code style={{ overflowWrap: 'anywhere' }}>{token}</code>
        </Alert>
      )}
    </>
  )
}

/** To its end, or broken off with a reason. */
export function EndTest({ build, round }: { build: Build; round: ProofRound }) {
  const { asking, ask, close } = useAsking()
  const end = (stopped: string) => void record(build, { kind: 'proof ended', of: round.begun.id, stopped })
  return (
    <Box sx={{ display: 'flex', gap: 1 }}>
      <Button variant="contained" sx={{ minHeight: 56, flex: 1 }} onClick={() => end('')}>
        End test
      </Button>
      <Button variant="outlined" sx={{ minHeight: 56 }} onClick={ask}>
        Break off
      </Button>
      {asking && (
        <ReasonDialog title="Break the test off" label="Break off" onClose={close} onGiven={(reason) => end(reason)} />
      )}
    </Box>
  )
}
