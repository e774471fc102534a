import { Box, Button, ButtonBase } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Build, OperationState } from '../api/model'
import { useUnits } from '../units/useUnits'
import { isSettled } from './build'
import { STANDING_WORDS } from './OperationCard'

interface Props {
  build: Build
  at: string | null
  onChoose: (id: string) => void
}

/** All operations in their order, how far each is, what holds it. What is settled and in order folds away. */
export function OperationList({ build, at, onChoose }: Props) {
  const [unfolded, setUnfolded] = useState(false)
  const lines = build.state.operations.map((one, n) => ({ one, number: n + 1 }))
  const folded = lines.filter(({ one }) => isSettled(one) && !needsALook(build, one) && one.operation.id !== at)
  const shown = unfolded ? lines : lines.filter((line) => !folded.includes(line))
  return (
    <Box>
      {folded.length > 0 && (
        <Button
          fullWidth
          aria-expanded={unfolded}
          onClick={() => setUnfolded(!unfolded)}
          sx={{ justifyContent: 'flex-start' }}
        >
          {unfolded ? 'Fold what is done' : `${folded.length} done`}
        </Button>
      )}
      <Box component="ol" aria-label="Operations" sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {shown.map(({ one, number }) => (
          <li key={one.operation.id}>
            <Line build={build} one={one} number={number} here={one.operation.id === at} onChoose={onChoose} />
          </li>
        ))}
      </Box>
    </Box>
  )
}

const passedUnmet = (build: Build, one: OperationState) =>
  build.state.gates.some((gate) => gate.standing === 'overridden' && gate.gate.before.includes(one.operation.id))

const needsALook = (build: Build, one: OperationState) => one.changed.length > 0 || passedUnmet(build, one)

function Line({
  build,
  one,
  number,
  here,
  onChoose,
}: {
  build: Build
  one: OperationState
  number: number
  here: boolean
  onChoose: (id: string) => void
}) {
  const { inks } = useTheme()
  const { say } = useUnits()
  const { operation } = one
  const isNext = build.state.next === operation.id
  const overridden = passedUnmet(build, one)
  const held = one.shut.length ? 'gate shut' : one.changed.length ? 'changed since' : ''
  return (
    <ButtonBase
      aria-current={here ? 'step' : undefined}
      data-line={operation.id}
      data-standing={one.standing}
      onClick={() => onChoose(operation.id)}
      sx={{
        width: '100%',
        minHeight: 44,
        justifyContent: 'flex-start',
        textAlign: 'left',
        gap: 1,
        px: 1,
        py: 0.5,
        font: 'inherit',
        fontSize: 15,
        borderTop: `1px solid ${inks.line}`,
        background: isNext ? inks.handFill : here ? inks.paper : 'transparent',
        boxShadow: here ? `inset 4px 0 0 ${inks.hand}` : 'none',
        color: one.standing === 'done' || one.standing === 'skipped' ? 'text.secondary' : 'text.primary',
      }}
    >
      <Box component="span" sx={{ minWidth: 22, textAlign: 'right', fontVariantNumeric: 'tabular-nums' }}>
        {one.standing === 'done' ? '✓' : number}
      </Box>
      <Box sx={{ flex: 1 }}>{say(operation.title)}</Box>
      <Box sx={{ fontSize: 13, color: overridden ? inks.stop : one.changed.length ? inks.caution : 'text.secondary' }}>
        {overridden
          ? 'passed unmet'
          : held || (one.standing === 'open' ? (isNext ? 'next' : '') : STANDING_WORDS[one.standing])}
      </Box>
    </ButtonBase>
  )
}
