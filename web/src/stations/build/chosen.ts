import { useMemo } from 'react'
import { create } from 'zustand'
import type { Build } from '../../api/model'
import { atHand } from '../../floor/build'
import { history } from './assembly'

/** Which operation is looked at, and how many done ones the replay shows; empty: the next, and all. */
interface View {
  operation: string | null
  replayed: number | null
  /** The photo that is about to be pinned on the tank. */
  pinning: string | null
  /** The photo that is shown large. */
  photo: string | null
}

export const useBuildView = create<View>()(() => ({ operation: null, replayed: null, pinning: null, photo: null }))

/** What is done by the moment shown, and the operation at hand then. */
export function useAtHand(build: Build | undefined) {
  const { operation, replayed } = useBuildView()
  const past = useMemo(() => (build ? history(build) : []), [build])
  const done = replayed === null ? past : past.slice(0, replayed)
  const wanted = replayed === null ? (operation ?? (build ? atHand(build) : null)) : (done.at(-1)?.operation.id ?? null)
  return {
    past,
    done,
    state: build?.state.operations.find((one) => one.operation.id === wanted),
    replaying: replayed !== null,
  }
}

export const choose = (operation: string | null) => useBuildView.setState({ operation, replayed: null })
export const replay = (replayed: number | null) => useBuildView.setState({ replayed, operation: null })
