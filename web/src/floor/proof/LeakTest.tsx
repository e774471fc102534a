import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Build } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { BeginTest } from './BeginTest'
import { isRunning, planOf, proofOf, STANDING_WORDS, toneOf, VERDICT_WORDS } from './proof'
import { RoundView } from './RoundView'

/** The leak test of one cell at the bench: the test that runs, or the way to begin one; those before it below. */
export function LeakTest({ build, cell, mayWrite }: { build: Build; cell: string; mayWrite: boolean }) {
  const { inks } = useTheme()
  const { say } = useUnits()
  const [shown, setShown] = useState<string | null>(null)
  const proof = proofOf(build, cell)
  const plan = planOf(build, cell)
  if (!proof || !plan) return null
  const running = proof.rounds.find(isRunning)
  const chosen = proof.rounds.find((round) => round.begun.id === shown) ?? running
  return (
    <Box
      component="section"
      aria-label={`Leak test of the ${cell}`}
      data-proof={proof.standing}
      sx={{ display: 'grid', gap: 1.5 }}
    >
      <Box sx={{ fontWeight: 650, color: proof.standing === 'passed' ? inks.good : undefined }}>
        Leak test {STANDING_WORDS[proof.standing]}
        {proof.lacks && !['not tested', 'running'].includes(proof.standing) && `: ${say(proof.lacks)}`}
      </Box>
      {proof.rounds.map((round) => (
        <Button
          key={round.begun.id}
          variant="outlined"
          aria-pressed={round === chosen}
          sx={{ minHeight: 48, justifyContent: 'space-between', color: inks[toneOf(round.verdict)] }}
          onClick={() => setShown(round === chosen && !isRunning(round) ? null : round.begun.id)}
        >
          <span>
            {round.number}. {round.begun.method}
          </span>
          <span>{VERDICT_WORDS[round.verdict]}</span>
        </Button>
      ))}
      {chosen && <RoundView key={chosen.begun.id} build={build} round={chosen} mayWrite={mayWrite} />}
      {!running && !chosen && mayWrite && <BeginTest build={build} plan={plan} onBegun={setShown} />}
    </Box>
  )
}
