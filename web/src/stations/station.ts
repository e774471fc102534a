import { lazy, type LazyExoticComponent, type ReactNode } from 'react'
import type { Axis, Design, Evaluation, StationMark } from '../api/model'
import type { Editing } from '../drawing/Dimension'
import type { Placed } from '../drawing/layout'

export interface PanelProps {
  designId: number
  /** What is found at this station, with its remedies. */
  findings: ReactNode
}

/** Figures or flats that stand where the drawing does otherwise. */
export interface Board {
  Shown: Lazy<{ designId: number }>
  /** What the button says that turns to it; without a name there is no turning back to the tank. */
  name?: string
  /** Whether it is what the station opens with. */
  first: boolean
  /** Whether there is anything to show yet. */
  useIsThere: () => boolean
}

type Shows<Props> = (props: Props) => ReactNode
type Lazy<Props> = LazyExoticComponent<Shows<Props>>

export interface LayerProps {
  view: Placed
  design: Design
  evaluation: Evaluation | null
  /** Opens a dimension for typing; without it nothing can be changed. */
  onEdit: ((editing: Editing) => void) | undefined
}

/** What a station adds to the drawing, and what of the rest it brings forward. */
export interface Drawing {
  /** Its own marks and grips, once a view. */
  Layer?: Lazy<LayerProps>
  /** The bay is worked on: it is drawn strongly, the shell lightly. */
  bayAtHand?: boolean
  portsAtHand?: boolean
  gaps?: boolean
  /** Pools and pockets that stay are shown. */
  remainders?: boolean
  /** What stands under the drawing, beside it at every moment. */
  Foot?: Lazy<object>
  /** Places beyond tank and bay that have to be on the sheet. */
  reach?: (design: Design, evaluation: Evaluation | null) => Record<Axis, number>[]
  /** Ports would be in the way. */
  unnamedPorts?: boolean
}

/** What part of the work a station belongs to. */
export type Group = 'design' | 'make' | 'fit'

/** One station of the work: everything the frame has to know of it. */
export interface Station {
  name: string
  title: string
  about: string
  group: Group
  Panel: Lazy<PanelProps>
  board?: Board
  drawing?: Drawing
  /** What of the evaluation it shows beside what every station does: stations, or one of their results ("inside.next_plate"). */
  asks?: readonly string[]
  /** A mark of its own, where the core doesn't judge the station. */
  useMark?: (designId: number) => StationMark
}

/** A component that is loaded when it is first shown. */
export const shownLater = <Props, Name extends string>(
  load: () => Promise<Record<Name, Shows<Props>>>,
  name: Name,
): Lazy<Props> => lazy(() => load().then((module) => ({ default: module[name] })))

export const always = () => true
