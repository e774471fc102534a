import { Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { Build, GateState } from '../api/model'
import { useUnits } from '../units/useUnits'
import { record } from './build'
import { ConditionRow } from './ConditionRow'
import { ReasonDialog, useAsking } from './ReasonDialog'
import { moment } from './time'

export const GATE_WORDS: Record<GateState['standing'], string> = {
  open: 'open',
  overridden: 'passed unmet',
  shut: 'shut',
}

/** A gate before an operation: what it asks for, what it costs to pass it unmet, and that somebody did. */
export function GateCard({ build, state, mayWrite }: { build: Build; state: GateState; mayWrite: boolean }) {
  const { inks } = useTheme()
  const { say } = useUnits()
  const { asking, ask, close } = useAsking()
  const colour = { open: inks.good, overridden: inks.stop, shut: inks.hand }[state.standing]
  return (
    <Box
      component="section"
      aria-label={`Gate: ${say(state.gate.title)}`}
      data-gate={state.gate.id}
      data-standing={state.standing}
      sx={{ border: `2px solid ${colour}`, p: 1.5 }}
    >
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline' }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          {say(state.gate.title)}
        </Typography>
        <b style={{ color: colour }}>{GATE_WORDS[state.standing]}</b>
      </Box>
      <Box sx={{ fontSize: 14, color: 'text.secondary', mb: 1 }}>{say(state.gate.why)}</Box>
      {state.override && (
        <Box data-override sx={{ color: inks.stop, mb: 1 }}>
          Passed unmet by {state.override.name}, {moment(state.override.when)}: {state.override.reason}
        </Box>
      )}
      {state.conditions.map((condition, n) => (
        <ConditionRow key={n} build={build} gate={state.gate.id} state={condition} mayWrite={mayWrite} />
      ))}
      {mayWrite && state.standing === 'shut' && !state.gate.firm && (
        <Button color="error" sx={{ minHeight: 56, mt: 1 }} onClick={ask}>
          Pass unmet, with name and reason
        </Button>
      )}
      {asking && (
        <ReasonDialog
          title={`Pass “${say(state.gate.title)}” unmet`}
          warning="It stands in red on every paper from now on."
          label="Pass unmet"
          named
          onClose={close}
          onGiven={(reason, name) => void record(build, { kind: 'override', subject: state.gate.id, name, reason })}
        />
      )}
    </Box>
  )
}
