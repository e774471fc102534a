import { useTheme } from '@mui/material/styles'
import { useQuery } from '@tanstack/react-query'
import type { Bay, Gap, Shape, KeepOut } from '../api/model'
import { SIZE } from '../api/model'
import { scanQuery } from '../stations/bay/scans'
import { boxOf, slopePolygon } from './keepOuts'
import type { Placed } from './layout'
import { boxRect } from './shapes'

const EDGE = 7

/** The bay with its hatched edge, its outline where it isn't a rectangle, and the line that keeps its sides' clearance. */
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
  const outline = bay.profile && bay.profile.axis !== view.across && view.up === 'z' ? bay.profile.points : null
  const rectangle = `M${x} ${y}h${width}v${height}h${-width}z`
  return (
    <g pointerEvents="none">
      <path d={outer} fill="url(#hatch-edge)" opacity={strong ? 0.9 : 0.45} />
      {outline && (
        <path
          d={`${rectangle}M${outline.map((p) => `${view.toX(p.across_mm)},${view.toY(p.up_mm)}`).join('L')}z`}
          fillRule="evenodd"
          fill="url(#hatch-block)"
          stroke={inks.block}
        />
      )}
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
      <OpeningMark view={view} bay={bay} />
    </g>
  )
}

/** The opening as a gap in the bay's edge, in the views that look along its side. */
function OpeningMark({ view, bay }: { view: Placed; bay: Bay }) {
  const { inks } = useTheme()
  const { opening } = bay
  if (!opening) return null
  const axis = { rear: 'x', front: 'x', right: 'y', left: 'y', floor: 'z', roof: 'z' }[opening.side]
  const high = ['front', 'left', 'roof'].includes(opening.side)
  const others = (['x', 'y', 'z'] as const).filter((item) => item !== axis)
  const span = (along: string) =>
    (along === others[0]
      ? [opening.a_mm, opening.a_mm + opening.long_mm]
      : [opening.b_mm, opening.b_mm + opening.wide_mm]) as [number, number]
  const line = { stroke: inks.good, strokeWidth: 4 }
  const word = { fontSize: 11, fill: inks.good, fontWeight: 600 }
  if (axis === view.up) {
    const y = view.toY(high ? bay[SIZE[view.up]] : 0)
    const [a, b] = span(view.across)
    return (
      <g>
        <line x1={view.toX(a)} x2={view.toX(b)} y1={y} y2={y} {...line} />
        <text
          pointerEvents="none"
          data-label={6}
          data-at={`${view.toX(b) - 20} ${y}`}
          x={view.toX(b) - 2}
          y={y + (high ? -5 : 14)}
          textAnchor="end"
          {...word}
        >
          opening
        </text>
      </g>
    )
  }
  if (axis === view.across) {
    const x = view.toX(high ? bay[SIZE[view.across]] : 0)
    const [a, b] = span(view.up)
    return <line x1={x} x2={x} y1={view.toY(a)} y2={view.toY(b)} {...line} />
  }
  const [a, b] = span(view.across)
  const [c, d] = span(view.up)
  return (
    <rect
      x={view.toX(a)}
      y={view.toY(d)}
      width={(b - a) * view.scale}
      height={(d - c) * view.scale}
      fill="none"
      stroke={inks.good}
      strokeWidth={1.6}
      strokeDasharray="10 3"
    />
  )
}

/** From which end of its third axis a view is looked at: +1 when the higher end is nearer. */
const NEARER: Record<Placed['id'], ['x' | 'y' | 'z', 1 | -1]> = { plan: ['z', 1], elevation: ['y', -1], end: ['x', 1] }

/** Whether a keep-out lies nearer to the reader of a view than the middle of the tank does. */
export function isInFront(view: Placed, keepOut: KeepOut, shape: Shape): boolean {
  const [axis, way] = NEARER[view.id]
  const box = boxOf(keepOut)
  if (!box) return false
  const middle = (shape.body.low[axis] + shape.body.high[axis]) / 2
  return way * ((box.low[axis] + box.high[axis]) / 2 - middle) > 0
}

interface KeepOutProps {
  view: Placed
  bay: Bay
  keepOut: KeepOut
  gaps: Gap[]
  strong: boolean
  inFront: boolean
}

/** A keep-out with the line that keeps its clearance. One in front of the tank lets it show through; one not fitted yet is dashed. */
export function KeepOutShape({ view, bay, keepOut, gaps, strong, inFront }: KeepOutProps) {
  const { inks } = useTheme()
  const needed = gaps.find((gap) => gap.key === keepOut.id)?.needed_mm ?? 0
  const clip = `inside-${view.id}-${keepOut.id}`
  const look = {
    fill: 'url(#hatch-block)',
    stroke: inks.block,
    strokeWidth: strong ? 1.8 : 1,
    opacity: inFront ? 0.6 : 1,
    strokeDasharray: keepOut.planned ? '7 4' : undefined,
  }
  return (
    <g pointerEvents="none">
      <clipPath id={clip}>
        <rect
          x={view.toX(0)}
          y={view.toY(bay[SIZE[view.up]])}
          width={bay[SIZE[view.across]] * view.scale}
          height={bay[SIZE[view.up]] * view.scale}
        />
      </clipPath>
      {keepOut.kind === 'slope' ? (
        <SlopeShape view={view} bay={bay} keepOut={keepOut} look={look} clip={clip} />
      ) : keepOut.kind === 'scan' ? (
        <ScanShape view={view} keepOut={keepOut} />
      ) : (
        <BoxedShape view={view} keepOut={keepOut} needed={needed} look={look} clip={clip} />
      )}
    </g>
  )
}

type Look = { fill: string; stroke: string; strokeWidth: number; opacity: number; strokeDasharray: string | undefined }

function BoxedShape({
  view,
  keepOut,
  needed,
  look,
  clip,
}: {
  view: Placed
  keepOut: KeepOut
  needed: number
  look: Look
  clip: string
}) {
  const { inks } = useTheme()
  const box = boxOf(keepOut)
  if (!box) return null
  const rect = boxRect(view, box)
  const round = keepOut.kind === 'cylinder' && keepOut.axis !== view.across && keepOut.axis !== view.up
  const [cx, cy] = [rect.x + rect.width / 2, rect.y + rect.height / 2]
  const keep = { fill: 'none', stroke: inks.block, strokeWidth: 0.9, strokeDasharray: '5 4', clipPath: `url(#${clip})` }
  return (
    <>
      {needed > 0 &&
        (round ? (
          <circle cx={cx} cy={cy} r={rect.width / 2 + needed * view.scale} {...keep} />
        ) : (
          <rect {...boxRect(view, box, needed)} rx={needed * view.scale} {...keep} />
        ))}
      {round ? <circle cx={cx} cy={cy} r={rect.width / 2} {...look} /> : <rect {...rect} {...look} />}
    </>
  )
}

/** The name of a keep-out, over everything that is drawn of the tank. */
export function KeepOutName({ view, keepOut }: { view: Placed; keepOut: KeepOut }) {
  const box = boxOf(keepOut)
  if (!box || keepOut.kind === 'slope') return null
  const rect = boxRect(view, box)
  return (
    <Name
      x={rect.x + rect.width / 2}
      y={rect.y + rect.height / 2 + 4}
      text={keepOut.planned ? `${keepOut.name} (planned)` : keepOut.name}
    />
  )
}

function Name({ x, y, text }: { x: number; y: number; text: string }) {
  const { inks } = useTheme()
  return (
    <text
      pointerEvents="none"
      data-label={5}
      data-at={`${x} ${y - 4}`}
      x={x}
      y={y}
      textAnchor="middle"
      fontSize={12}
      fontWeight={600}
      fill={inks.ink}
      stroke={inks.blockFill}
      strokeWidth={4}
      paintOrder="stroke"
    >
      {text}
    </text>
  )
}

function SlopeShape({
  view,
  bay,
  keepOut,
  look,
  clip,
}: {
  view: Placed
  bay: Bay
  keepOut: Extract<KeepOut, { kind: 'slope' }>
  look: Look
  clip: string
}) {
  const corners = slopePolygon(keepOut, bay, view.across, view.up)
  if (!corners) return null
  const places = corners.map(([a, b]) => [view.toX(a), view.toY(b)] as const)
  const [mx, my] = [0, 1].map((i) => places.reduce((sum, place) => sum + (place[i] ?? 0), 0) / places.length) as [
    number,
    number,
  ]
  return (
    <g clipPath={`url(#${clip})`}>
      <path d={`M${places.map((place) => place.join(',')).join('L')}z`} {...look} />
      <Name x={mx} y={my + 4} text={keepOut.name} />
    </g>
  )
}

function ScanShape({ view, keepOut }: { view: Placed; keepOut: Extract<KeepOut, { kind: 'scan' }> }) {
  const { inks } = useTheme()
  const scan = useQuery(scanQuery(keepOut.scan)).data
  if (!scan) return null
  const offset = { x: keepOut.x_mm, y: keepOut.y_mm, z: keepOut.z_mm }
  const index = { x: 0, y: 1, z: 2 }
  const at = (corner: number) => {
    const place = (axis: 'x' | 'y' | 'z') => (scan.shown_points[corner * 3 + index[axis]] ?? 0) + offset[axis]
    return `${view.toX(place(view.across)).toFixed(1)},${view.toY(place(view.up)).toFixed(1)}`
  }
  const paths: string[] = []
  for (let t = 0; t < scan.shown_triangles.length; t += 3)
    paths.push(
      `M${at(scan.shown_triangles[t] ?? 0)}L${at(scan.shown_triangles[t + 1] ?? 0)}L${at(scan.shown_triangles[t + 2] ?? 0)}z`,
    )
  return (
    <path
      d={paths.join('')}
      fill={keepOut.is_cavity ? 'none' : inks.blockFill}
      stroke={inks.block}
      strokeWidth={0.5}
      opacity={0.7}
    />
  )
}
