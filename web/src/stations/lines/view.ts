import { create } from 'zustand'
import { useWork } from '../../work/store'

/** A connection of a part, or a port of the tank. */
export interface At {
  part: string
  port: string
}

interface View {
  /** The running mode that is shown. */
  mode: string | null
  /** Where a run is being drawn from. */
  from: At | null
}

export const useLinesView = create<View>(() => ({ mode: null, from: null }))
export const showMode = (mode: string) => useLinesView.setState({ mode })
export const drawFrom = (from: At | null) => useLinesView.setState({ from })

/** Which of the modes is shown: the one that was pressed, or full power. */
export function useModePlace(): number {
  const modes = useWork((work) => work.evaluation?.lines?.modes)
  const mode = useLinesView((view) => view.mode)
  const place = modes?.findIndex((one) => one.id === mode) ?? -1
  if (place >= 0) return place
  return Math.max(0, modes?.findIndex((one) => one.id === 'full') ?? 0)
}
