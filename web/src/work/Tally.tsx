import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useShallow } from 'zustand/react/shallow'
import type { Figures } from '../api/model'
import { readOutOnly } from '../app/hidden'
import { useUnits } from '../units/useUnits'
import { SeverityMark } from './Marks'
import { pin, useWork } from './store'

type Name = keyof Figures

const SPACE = { xs: 1, lg: 1.5 } as const

const ROWS: { name: Name; label: string }[] = [
  { name: 'brimful_l', label: 'Brimful' },
  { name: 'rated_l', label: 'Rated' },
  { name: 'usable_l', label: 'Usable' },
  { name: 'stranded_l', label: 'Stranded' },
  { name: 'empty_kg', label: 'Empty mass' },
  { name: 'full_kg', label: 'Full mass' },
  { name: 'weld_m', label: 'Weld' },
]

/** The figures that are always in sight, and how far each moved with the last change. */
export function Tally({ onFindings }: { onFindings: () => void }) {
  const { inks } = useTheme()
  const units = useUnits()
  const { evaluation, before, pinned, trial, unreachable, faults } = useWork(
    useShallow(({ evaluation, before, pinned, trial, unreachable, faults }) => ({
      evaluation,
      before,
      pinned,
      trial,
      unreachable,
      faults,
    })),
  )
  const figures = evaluation?.shell?.figures ?? null
  const ghost = trial?.evaluation?.shell?.figures ?? null
  const against = ghost ? figures : (pinned?.shell?.figures ?? before)
  const shown = ghost ?? figures
  const compared = ghost ? 'if taken' : pinned ? 'against the pin' : 'last change'
  const old = unreachable || faults.length > 0
  const value = (name: Name, amount: number) =>
    name.endsWith('_l')
      ? units.volume(amount, 2)
      : name === 'weld_m'
        ? units.amount('m', amount)
        : units.amount('kg', amount, 1)
  const unit = (name: Name) => (name.endsWith('_l') ? units.volumeUnit : units.unit(name === 'weld_m' ? 'm' : 'kg'))
  return (
    <Box
      component="section"
      aria-label="Tally"
      data-old={old || undefined}
      sx={{
        display: 'flex',
        alignItems: 'stretch',
        height: 72,
        flexShrink: 0,
        borderTop: `2px solid ${ghost ? inks.hand : inks.metal}`,
        background: inks.sheet,
        overflowX: 'auto',
      }}
    >
      {ROWS.map(({ name, label }) => {
        const now = shown?.[name] ?? null
        const then = against?.[name] ?? null
        const moved = now !== null && then !== null ? now - then : null
        const still = moved === null || Math.abs(moved) < 0.005
        return (
          <Box
            key={name}
            data-tally={name}
            sx={{
              px: SPACE,
              py: 1,
              borderRight: `1px solid ${inks.line}`,
              minWidth: { xs: 76, lg: 104 },
              flexShrink: 0,
            }}
          >
            <Box sx={{ fontSize: 12, color: 'text.secondary' }}>{label}</Box>
            <Box
              sx={{
                fontSize: { xs: 17, lg: 20 },
                fontWeight: 650,
                lineHeight: 1.15,
                whiteSpace: 'nowrap',
                color: old ? 'text.secondary' : name === 'rated_l' ? inks.fuelText : ghost ? inks.hand : 'text.primary',
                fontStyle: old ? 'italic' : 'normal',
              }}
            >
              {now === null ? '–' : value(name, now)}{' '}
              <span style={{ fontSize: 12, fontWeight: 500 }}>{now === null ? '' : unit(name)}</span>
            </Box>
            <Box data-delta sx={{ fontSize: 12, height: 15, whiteSpace: 'nowrap', color: inks.hand, fontWeight: 600 }}>
              {still ? '' : `${moved > 0 ? '+' : '−'}${value(name, Math.abs(moved))}`}
            </Box>
          </Box>
        )
      })}
      <FindingCount onFindings={onFindings} />
      <Box sx={{ flex: 1 }} />
      <Box
        sx={{
          display: 'flex',
          alignItems: 'center',
          px: SPACE,
          gap: 1.5,
          fontSize: 12,
          color: 'text.secondary',
          whiteSpace: { xs: 'normal', lg: 'nowrap' },
        }}
        role="status"
      >
        {unreachable
          ? 'No answer from the server: figures are from before'
          : faults.length
            ? 'What is typed can’t be made: figures are from before'
            : (ghost ?? (against && figures))
              ? `Change shown: ${compared}`
              : ''}
        <Button
          variant={pinned ? 'contained' : 'outlined'}
          onClick={pin}
          disabled={!figures}
          aria-pressed={Boolean(pinned)}
        >
          {pinned ? 'Unpin' : 'Pin'}
        </Button>
      </Box>
    </Box>
  )
}

function FindingCount({ onFindings }: { onFindings: () => void }) {
  const findings = useWork((work) => (work.trial?.evaluation ?? work.evaluation)?.findings)
  const count = (severity: 'stop' | 'caution' | 'note') =>
    findings?.filter((item) => item.severity === severity).length ?? 0
  return (
    <Button
      onClick={onFindings}
      sx={{ px: SPACE, color: 'text.primary', alignItems: 'flex-start', flexDirection: 'column', flexShrink: 0 }}
    >
      <Box sx={{ fontSize: 12, color: 'text.secondary', fontWeight: 400 }}>Findings</Box>
      <Box sx={{ display: 'flex', gap: 1.25, fontSize: 18, alignItems: 'center' }}>
        {(['stop', 'caution', 'note'] as const).map((severity) => (
          <Box
            key={severity}
            sx={{ display: 'flex', gap: 0.5, alignItems: 'center', opacity: count(severity) ? 1 : 0.55 }}
          >
            <SeverityMark severity={severity} /> {count(severity)}
            <Box component="span" sx={readOutOnly}>
              {severity}s
            </Box>
          </Box>
        ))}
      </Box>
    </Button>
  )
}
