import { create } from 'zustand'
import type { WireEnd } from '../../api/model'

interface View {
  /** Where a wire is being drawn from. */
  from: WireEnd | null
}

export const useWiringView = create<View>(() => ({ from: null }))
export const drawFrom = (from: WireEnd | null) => useWiringView.setState({ from })
