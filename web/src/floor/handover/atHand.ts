import { create } from 'zustand'

/** The joint that is looked at, on the drawing and in the list; empty: the first that doesn't count yet. */
export const useJointAtHand = create<{ joint: string | null }>()(() => ({ joint: null }))

export const chooseJoint = (joint: string | null) => useJointAtHand.setState({ joint })
