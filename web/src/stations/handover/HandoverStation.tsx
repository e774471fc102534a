import { Button, ToggleButton, ToggleButtonGroup } from '@mui/material'
import { useState } from 'react'
import { Link } from 'react-router'
import { Actions } from '../../floor/Actions'
import { useBuild, withSteps } from '../../floor/build'
import { OperationCard } from '../../floor/OperationCard'
import { OperationList } from '../../floor/OperationList'
import { WaitingStrip } from '../../floor/WaitingStrip'
import { Papers } from '../../papers/Papers'
import { useWork } from '../../work/store'
import { Folded } from '../Folded'
import type { PanelProps } from '../station'
import { Ledger } from './Ledger'
import { chooseStep, stepAtHand, useStepView } from './steps'
import { useStepFill } from './useStepFill'

/** What is still open, and the steps from first fuel to hand-over. */
export function HandoverStation({ designId, findings }: PanelProps) {
  const { build } = useBuild(designId)
  const readOnly = useWork((work) => work.readOnly)
  const chosen = useStepView((view) => view.step)
  const [shown, setShown] = useState<'open' | 'steps'>('open')
  const last = build && withSteps(build, true)
  const state = last && stepAtHand(last, chosen)
  useStepFill(build, shown === 'steps' ? state?.operation.id : undefined)
  if (!build || !last) return findings
  if (!last.state.operations.length)
    return (
      <>
        Nothing to hand over yet: give the tank a shape at Shell that can be made of sheet.
        {findings}
      </>
    )
  const open = build.state.ledger.filter((one) => !one.stays).length
  return (
    <>
      <WaitingStrip />
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={shown}
        aria-label="What is shown"
        onChange={(_, value: 'open' | 'steps' | null) => value && setShown(value)}
      >
        <ToggleButton value="open">Open, {open}</ToggleButton>
        <ToggleButton value="steps">First fuel and fill</ToggleButton>
      </ToggleButtonGroup>
      {shown === 'open' && <Ledger build={build} mayWrite={!readOnly} onStep={() => setShown('steps')} />}
      {shown === 'steps' && state && (
        <>
          <OperationCard
            key={state.operation.id}
            build={build}
            state={state}
            mayWrite={!readOnly}
            among={last.state.operations}
          />
          {!readOnly && <Actions build={build} state={state} onSettled={() => chooseStep(null)} />}
          <Folded title={`All ${last.state.operations.length} steps`}>
            <OperationList build={last} at={state.operation.id} onChoose={chooseStep} />
          </Folded>
          <Button component={Link} to={`/floor/${build.job_number}?design=${designId}`} variant="outlined">
            Open at the bench, for a phone
          </Button>
        </>
      )}
      <Papers station="handover" />
      {findings}
    </>
  )
}
