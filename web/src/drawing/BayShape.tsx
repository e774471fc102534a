import { useTheme } from '@mui/material/styles'
import type { Bay, Gap, Geometry, KeepOut } from '../api/model'
import { PLACE, SIZE } from '../api/model'
import type { Placed } from './layout'
import { keepOutRect } from './shapes'

const EDGE = 7

/** The bay with its hatched edge and the line that keeps its sides' clearance. */
export function BayShape({ view, bay, gaps, strong }: { view: Placed; bay: Bay; gaps: Gap[]; strong: boolean }) {
  const { inks } = useTheme()
  const x = view.toX(0)
  const width = bay[SIZE[view.across]] * view.scale
  const height = bay[SIZE[view.up]] * view.scale
  const y = view.toY(0) - height
  const needed = (key: string) => (gaps.find((gap) => gap.key === key)?.needed_mm ?? 0) * view.scale
  const [low, high] = view.across === 'x' ? ['rear', 'front'] : ['right', 'left']
  const [below, above] = view.up === 'z' ? ['floor', 'roof'] : ['right', 'left']
  const outer = `M${x - EDGE} ${y - EDGE}h${width + 2 * EDGE}v${height + 2 * EDGE}h${-width - 2 * EDGE}z M${x} ${y}v${height}h${width}v${-height}z`
  return (
    <g pointerEvents="none">
      <path d={outer} fill="url(#hatch-edge)" opacity={strong ? 0.9 : 0.45} />
      <rect x={x} y={y} width={width} height={height} fill="none" stroke={inks.block} strokeWidth={strong ? 2 : 1.2} />
      {gaps.length > 0 && (
        <rect
          x={x + needed(low ?? '')}
          y={y + needed(above ?? '')}
          width={Math.max(0, width - needed(low ?? '') - needed(high ?? ''))}
          height={Math.max(0, height - needed(below ?? '') - needed(above ?? ''))}
          fill="none"
          stroke={inks.block}
          strokeWidth={0.9}
          strokeDasharray="5 4"
        />
      )}
    </g>
  )
}

/** From which end of its third axis a view is looked at: +1 when the higher end is nearer. */
const NEARER: Record<Placed['id'], ['x' | 'y' | 'z', 1 | -1]> = { plan: ['z', 1], elevation: ['y', -1], end: ['x', 1] }

/** Whether a keep-out lies nearer to the reader of a view than the middle of the tank does. */
export function isInFront(view: Placed, keepOut: KeepOut, shape: Geometry): boolean {
  const [axis, way] = NEARER[view.id]
  const middle = (shape.body.low[axis] + shape.body.high[axis]) / 2
  return way * (keepOut[PLACE[axis]] + keepOut[SIZE[axis]] / 2 - middle) > 0
}

interface KeepOutProps {
  view: Placed
  bay: Bay
  keepOut: KeepOut
  gaps: Gap[]
  strong: boolean
  inFront: boolean
}

/** A keep-out with the line that keeps its clearance. One in front of the tank lets it show through. */
export function KeepOutShape({ view, bay, keepOut, gaps, strong, inFront }: KeepOutProps) {
  const { inks } = useTheme()
  const needed = gaps.find((gap) => gap.key === keepOut.id)?.needed_mm ?? 0
  const rect = keepOutRect(view, keepOut)
  const fits = rect.width > keepOut.name.length * 6 && rect.height > 16
  const clip = `inside-${view.id}-${keepOut.id}`
  return (
    <g pointerEvents="none">
      <clipPath id={clip}>
        <rect x={view.toX(0)} y={view.toY(bay[SIZE[view.up]])} width={bay[SIZE[view.across]] * view.scale} height={bay[SIZE[view.up]] * view.scale} />
      </clipPath>
      {needed > 0 && <rect {...keepOutRect(view, keepOut, needed)} fill="none" stroke={inks.block} strokeWidth={0.9} strokeDasharray="5 4" rx={needed * view.scale} clipPath={`url(#${clip})`} />}
      <rect {...rect} fill="url(#hatch-block)" stroke={inks.block} strokeWidth={strong ? 1.8 : 1} opacity={inFront ? 0.6 : 1} />
      {fits && (
        <text x={rect.x + rect.width / 2} y={rect.y + rect.height / 2 + 4} textAnchor="middle" fontSize={12} fontWeight={600} fill={inks.ink} stroke={inks.blockFill} strokeWidth={4} paintOrder="stroke">
          {keepOut.name}
        </text>
      )}
    </g>
  )
}
