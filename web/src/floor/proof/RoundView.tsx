import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Build, ProofRound } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { moment } from '../time'
import { Leaks } from './Leaks'
import { seamsOf } from './proof'
import { EndTest, Readings } from './RunningTest'
import { SeamList, Walk } from './Walk'
import { Verdict } from './Verdict'

interface Props {
  build: Build
  round: ProofRound
  mayWrite: boolean
  at?: string | null
  along?: number
  onSeam?: (id: string | null) => void
  onAlong?: (mm: number) => void
}

/** One test of a cell: readings or walk, leaks, and its end. */
export function RoundView({ build, round, mayWrite, ...walk }: Props) {
  const { inks } = useTheme()
  const units = useUnits()
  const [ownSeam, setOwnSeam] = useState<string | null>(null)
  const [ownAlong, setOwnAlong] = useState(0)
  const running = round.ended === null
  const byReadings = round.begun.method === 'pressure decay'
  const seams = seamsOf(build, round.begun.subject)
  const at = walk.at === undefined ? ownSeam : walk.at
  const onSeam = walk.onSeam ?? setOwnSeam
  return (
    <Box data-round={round.number} sx={{ display: 'flex', flexDirection: 'column', gap: 1.5 }}>
      <Box sx={{ color: 'text.secondary' }}>
        Test {round.number}: {round.begun.method}, begun {moment(round.when)} by {round.author}
        {round.begun.neighbours_open?.length ? `, ${round.begun.neighbours_open.join(', ')} open` : ''}
        {round.ended?.note && `. ${round.ended.note}`}
        {round.ended?.stopped && `. Broken off: ${round.ended.stopped}`}
      </Box>
      {round.cautions.map((caution, n) => (
        <Box key={n} sx={{ color: inks.caution }}>
          {units.say(caution)}
        </Box>
      ))}
      {byReadings ? (
        <Readings build={build} round={round} mayWrite={mayWrite} />
      ) : (
        !running && (
          <Verdict verdict={round.verdict}>
            At {units.quantity('finekpa', round.begun.pressure_kpa)}, {round.walked.length} of {seams.length} seams
            walked
          </Verdict>
        )
      )}
      <Leaks build={build} round={round} mayWrite={mayWrite} />
      {running && mayWrite && !round.begun.simulated && (
        <Walk
          build={build}
          round={round}
          seams={seams}
          at={at}
          along={walk.along ?? ownAlong}
          onSeam={onSeam}
          onAlong={walk.onAlong ?? setOwnAlong}
        />
      )}
      {!running && !byReadings && (
        <SeamList
          seams={seams}
          at={at}
          walked={new Set(round.walked)}
          leaks={round.leaks.map((leak) => leak.found)}
          onSeam={onSeam}
        />
      )}
      {running && mayWrite && <EndTest build={build} round={round} />}
    </Box>
  )
}
