import { Box } from '@mui/material'
import { lazy, Suspense } from 'react'

const Chart = lazy(() => import('./Chart'))

type Pair = readonly [number, number]

export interface Line {
  points: readonly Pair[]
  colour: string
  name?: string
  dash?: string | undefined
  width?: number
}

export interface PlotProps {
  label: string
  lines: readonly Line[]
  dots?: readonly { at: Pair; colour: string; hollow?: boolean; label?: string }[]
  /** Straight lines across: a limit, a demand. */
  levels?: readonly { y: number; colour: string; text: string }[]
  xText: string
  yText: string
  showX: (value: number) => string
  showY: (value: number) => string
  height?: number
  width?: number
  /** How much one unit of either axis is of what is plotted. */
  perX?: number
  perY?: number
  fromZero?: boolean
}

/** A small plot: lines, dots, and levels with their words. */
export function Plot({ width = 420, height = 180, ...props }: PlotProps) {
  const empty = !props.dots?.length && !props.lines.some((line) => line.points.length)
  if (empty) return null
  return (
    <Box role="img" aria-label={props.label} sx={{ width: '100%', maxWidth: width * 1.4, height }} data-plot>
      <Suspense fallback={null}>
        <Chart {...props} width={width} height={height} />
      </Suspense>
    </Box>
  )
}
