import { create } from 'zustand'
import type { LoadCase } from '../../api/model'

/** Which load is drawn. */
interface View {
  way: LoadCase['way'] | null
}

export const useMountView = create<View>(() => ({ way: null }))
export const showLoad = (way: View['way']) => useMountView.setState({ way })
