import { create } from 'zustand'
import type { Build, OperationState } from '../../api/model'

/** Which step is looked at; empty: the one that is next. */
export const useStepView = create<{ step: string | null }>()(() => ({ step: null }))

export const chooseStep = (step: string | null) => useStepView.setState({ step })

/** The step at hand among the last ones. */
export function stepAtHand(build: Build, chosen: string | null): OperationState | undefined {
  const { operations, next } = build.state
  return (
    operations.find((one) => one.operation.id === chosen) ??
    operations.find((one) => one.operation.id === next) ??
    operations.find((one) => one.standing === 'open' || one.standing === 'started')
  )
}
