import { create } from 'zustand'
import type { Build, OperationState } from '../../api/model'

/** Which step is looked at; empty: the one that is next. */
export const useStepView = create<{ step: string | null; joint: string | null }>()(() => ({ step: null, joint: null }))

export const chooseStep = (step: string | null) => useStepView.setState({ step, joint: null })
export const chooseJoint = (joint: string | null) => useStepView.setState({ joint })

/** The step at hand among the last ones. */
export function stepAtHand(build: Build, chosen: string | null): OperationState | undefined {
  const { operations, next } = build.state
  return (
    operations.find((one) => one.operation.id === chosen) ??
    operations.find((one) => one.operation.id === next) ??
    operations.find((one) => one.standing === 'open' || one.standing === 'started')
  )
}
