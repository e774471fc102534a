import { useTheme } from '@mui/material/styles'
import type { Axis, Gap, Shape } from '../api/model'
import { useUnits } from '../units/useUnits'
import type { Placed } from './layout'
import { Label } from './Label'

/** The one view in which a gap is dimensioned, so that no figure stands twice. */
const HOME: Record<Gap['kind'], Record<Axis, Placed['id']>> = {
  side: { x: 'elevation', y: 'plan', z: 'end' },
  'keep-out': { x: 'plan', y: 'end', z: 'elevation' },
}

export const gapsIn = (view: Placed, gaps: Gap[]) => gaps.filter((gap) => HOME[gap.kind][gap.axis] === view.id)

/** The gap to a side of the bay is the same all along: draw it at a quarter, clear of the grips in the middle. */
export function asideOf(view: Placed, shape: Shape, gap: Gap): number {
  if (gap.kind === 'keep-out') return 0
  const other = gap.axis === view.across ? view.up : view.across
  return ((shape.body.high[other] - shape.body.low[other]) / 4) * view.scale
}

/** An actual gap, dimensioned where it is. One that is too small says so in a word. */
export function GapMark({ view, gap, aside }: { view: Placed; gap: Gap; aside: number }) {
  const { inks } = useTheme()
  const units = useUnits()
  const short = gap.needed_mm - gap.gap_mm > 1e-6
  const colour = short ? inks.stop : inks.quiet
  const across = gap.axis === view.across
  const [dx, dy] = across ? [0, -aside] : [-aside, 0]
  const [x1, y1, x2, y2] = [
    view.toX(gap.start[view.across]) + dx,
    view.toY(gap.start[view.up]) + dy,
    view.toX(gap.end[view.across]) + dx,
    view.toY(gap.end[view.up]) + dy,
  ]
  const text =
    gap.gap_mm < 0 ? `fouls by ${units.length(-gap.gap_mm)}` : `${units.length(gap.gap_mm)}${short ? ' short' : ''}`
  const [mx, my] = [(x1 + x2) / 2, (y1 + y2) / 2]
  const beside = across
    ? { x: mx, y: my - 8, textAnchor: 'middle' as const }
    : { x: mx + 8, y: my + 4, textAnchor: 'start' as const }
  return (
    <g pointerEvents="none" data-gap={gap.key}>
      <title>{`${gap.neighbour}: ${units.exact(gap.gap_mm)}, needs ${units.exact(gap.needed_mm)}`}</title>
      <line x1={x1} y1={y1} x2={x2} y2={y2} stroke={colour} strokeWidth={short ? 2.2 : 1.2} />
      <circle cx={x1} cy={y1} r={2} fill={colour} />
      <circle cx={x2} cy={y2} r={2} fill={colour} />
      <Label
        rank={short ? 1 : 2}
        of={[mx, my]}
        {...beside}
        fontSize={12}
        fontWeight={short ? 700 : 500}
        colour={colour}
        strokeWidth={4}
      >
        {text}
      </Label>
    </g>
  )
}
