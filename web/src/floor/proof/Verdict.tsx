import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { ReactNode } from 'react'
import type { ProofRound, SeriesResult } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { leastOf, toneOf, VERDICT_HELP, VERDICT_WORDS } from './proof'

/** What a test proves, in one line; below it what the gauge alone would have said. */
export function Verdict({ verdict, children }: { verdict: ProofRound['verdict']; children?: ReactNode }) {
  const { inks } = useTheme()
  return (
    <Box data-verdict={verdict} sx={{ borderLeft: `5px solid ${inks[toneOf(verdict)]}`, pl: 1.5, py: 0.25 }}>
      <Box sx={{ fontSize: 22, fontWeight: 700, color: inks[toneOf(verdict)] }}>{VERDICT_WORDS[verdict]}</Box>
      {VERDICT_HELP[verdict] && <Box>{VERDICT_HELP[verdict]}</Box>}
      {children}
    </Box>
  )
}

/** The figures behind a verdict, and what temperature and barometer did to the gauge. */
export function VerdictFigures({ result, limit }: { result: SeriesResult; limit: number }) {
  const { inks } = useTheme()
  const units = useUnits()
  const { decay } = result
  if (!decay) return <Box>Two readings say something, {result.count} so far.</Box>
  const leak = (value: number) => units.quantity('sccm', value)
  const differs = decay.uncorrected_verdict !== decay.verdict
  return (
    <>
      <Box sx={{ fontVariantNumeric: 'tabular-nums' }}>
        Leak {units.number(decay.leak_sccm, 2)} ± {leak(decay.uncertainty_sccm)}, limit {leak(limit)}; readings over{' '}
        {units.quantity('min', decay.minutes)}, at least {units.quantity('min', leastOf(decay.least_min))}
      </Box>
      {typeof decay.decided_min === 'number' && (
        <Box>
          It decides after about {units.quantity('min', Math.ceil(decay.decided_min))}, if it goes on like this.
        </Box>
      )}
      <Box sx={{ color: differs ? inks.caution : 'text.secondary' }} data-uncorrected={decay.uncorrected_verdict}>
        The gauge alone, without temperature and barometer: {leak(decay.uncorrected_sccm)}
        {differs && `, which would have been ${decay.uncorrected_verdict === 'pass' ? 'passed' : 'failed'}`}
      </Box>
      {result.cautions.map((caution, n) => (
        <Box key={n} sx={{ color: inks.caution }}>
          {units.say(caution)}
        </Box>
      ))}
    </>
  )
}
