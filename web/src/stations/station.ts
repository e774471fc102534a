import { lazy, type LazyExoticComponent, type ReactNode } from 'react'
import type { StationMark } from '../api/model'

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

/** One station of the work: everything the frame has to know of it. */
export interface Station {
  name: string
  title: string
  about: string
  Panel: Lazy<PanelProps>
  board?: Board
  /** A mark of its own, where the core doesn't judge the station. */
  useMark?: (designId: number) => StationMark
}

/** A component that is loaded when it is first shown. */
export const shownLater = <Props, Name extends string>(load: () => Promise<Record<Name, Shows<Props>>>, name: Name): Lazy<Props> => lazy(() => load().then((module) => ({ default: module[name] })))

export const always = () => true
