import { create } from 'zustand'

/** What of the leak test is looked at: which cell, which test of it, which seam and how far along. */
interface View {
  cell: string | null
  /** A test by its entry, "new" for one that is about to begin, "practice"; empty: the latest. */
  round: string | null
  seam: string | null
  along: number
}

export const useProofView = create<View>()(() => ({ cell: null, round: null, seam: null, along: 0 }))

export const NEW = 'new'
export const PRACTICE = 'practice'
export const showCell = (cell: string) => useProofView.setState({ cell, round: null, seam: null, along: 0 })
export const showRound = (round: string | null) => useProofView.setState({ round, seam: null, along: 0 })
export const showSeam = (seam: string | null) => useProofView.setState({ seam, along: 0 })
export const showAlong = (along: number) => useProofView.setState({ along })
