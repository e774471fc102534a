import { useTheme } from '@mui/material/styles'
import type { VehicleShown } from '../api/model'
import type { Placed } from './layout'
import { Label } from './Label'

const AIR_PX = 34
type Part = VehicleShown['parts'][number]
const DASHES: Record<string, string> = { 'moving part': '7 3', 'planned part': '2 3', person: '1 3' }

/** What of the vehicle lies about the bay: quiet, cut off where the view ends. */
export function VehicleShape({ view, shown }: { view: Placed; shown: VehicleShown }) {
  const { inks } = useTheme()
  const clip = `vehicle-${view.id}`
  const { x, y, width, height } = frameOf(view)
  return (
    <g pointerEvents="none" data-vehicle={shown.name}>
      <clipPath id={clip}>
        <rect x={x} y={y} width={width} height={height} />
      </clipPath>
      <g clipPath={`url(#${clip})`} opacity={0.75}>
        {shown.parts.map((part) => (
          <PartShape key={part.id} view={view} part={part} />
        ))}
        {view.up === 'z' && shown.ground_mm !== null && (
          <path d={`M${x} ${view.toY(shown.ground_mm)}h${width}`} stroke={inks.block} strokeWidth={2.5} />
        )}
        {view.across === 'x' && shown.rearmost_mm !== null && (
          <path d={`M${view.toX(shown.rearmost_mm)} ${y}v${height}`} stroke={inks.block} strokeWidth={2.5} />
        )}
      </g>
    </g>
  )
}

/** Their names, over everything. */
export function VehicleNames({ view, shown }: { view: Placed; shown: VehicleShown }) {
  const within = frameOf(view)
  return (
    <g pointerEvents="none">
      {shown.parts.map((part) => (
        <PartName key={part.id} view={view} part={part} within={within} />
      ))}
    </g>
  )
}

/** A view with some air round it. */
const frameOf = (view: Placed) => ({
  x: view.x0 - AIR_PX,
  y: view.y0 - view.height - AIR_PX,
  width: view.width + 2 * AIR_PX,
  height: view.height + 2 * AIR_PX,
})

const boxOf = (view: Placed, { low, high }: Pick<Part, 'low' | 'high'>) => ({
  x: view.toX(low[view.across]),
  y: view.toY(high[view.up]),
  width: Math.max(1.5, (high[view.across] - low[view.across]) * view.scale),
  height: Math.max(1.5, (high[view.up] - low[view.up]) * view.scale),
})

function PartShape({ view, part }: { view: Placed; part: Part }) {
  const { inks } = useTheme()
  const box = boxOf(view, part)
  const hot = part.kind === 'hot part'
  const edgeOn = part.kind === 'panel' && Math.min(box.width, box.height) < 4
  return (
    <g>
      <rect
        {...box}
        fill={edgeOn ? inks.quiet : hot ? inks.caution : inks.block}
        fillOpacity={edgeOn ? 0.9 : hot ? 0.16 : part.kind === 'panel' ? 0.04 : 0.1}
        stroke={hot ? inks.caution : inks.quiet}
        strokeWidth={1}
        strokeDasharray={part.after ? '9 4' : DASHES[part.kind]}
      />
      {part.holes.map((hole, n) => (
        <rect
          key={n}
          {...boxOf(view, hole)}
          fill={edgeOn ? inks.sheet : 'none'}
          stroke={hole.sealed ? inks.good : inks.caution}
          strokeWidth={1.2}
        />
      ))}
    </g>
  )
}

/** A part's name where some of it is seen. */
function PartName({
  view,
  part,
  within,
}: {
  view: Placed
  part: Part
  within: { x: number; y: number; width: number; height: number }
}) {
  const { inks } = useTheme()
  const box = boxOf(view, part)
  const left = Math.max(box.x, within.x)
  const right = Math.min(box.x + box.width, within.x + within.width)
  const top = Math.max(box.y, within.y)
  const foot = Math.min(box.y + box.height, within.y + within.height)
  if (left >= right || top >= foot) return null
  return (
    <Label
      rank={7}
      of={[(left + right) / 2, (top + foot) / 2]}
      x={(left + right) / 2}
      y={top + 11}
      textAnchor="middle"
      fontSize={10.5}
      colour={inks.quiet}
      fontWeight={400}
    >
      {part.name}
    </Label>
  )
}
