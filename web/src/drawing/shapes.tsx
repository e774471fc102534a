import { useTheme } from '@mui/material/styles'
import type { Block, Fill, Geometry, KeepOut } from '../api/model'
import { PLACE, SIZE } from '../api/model'
import type { Placed } from './layout'

export interface Rect {
  x: number
  y: number
  width: number
  height: number
}

export function blockRect(view: Placed, block: Block): Rect {
  const x = view.toX(block.low[view.across])
  const y = view.toY(block.high[view.up])
  return { x, y, width: view.toX(block.high[view.across]) - x, height: view.toY(block.low[view.up]) - y }
}

export function keepOutRect(view: Placed, k: KeepOut, grown = 0): Rect {
  const low = (axis: 'x' | 'y' | 'z') => k[PLACE[axis]] - grown
  const high = (axis: 'x' | 'y' | 'z') => k[PLACE[axis]] + k[SIZE[axis]] + grown
  const x = view.toX(low(view.across))
  const y = view.toY(high(view.up))
  return { x, y, width: view.toX(high(view.across)) - x, height: view.toY(low(view.up)) - y }
}

/** Hatches shared by all views. */
export function Patterns() {
  const { inks } = useTheme()
  return (
    <defs>
      <pattern id="hatch-block" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="7" height="7" fill={inks.blockFill} />
        <line x1="0" y1="0" x2="0" y2="7" stroke={inks.block} strokeWidth="1.200" />
      </pattern>
      <pattern id="hatch-edge" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line x1="0" y1="0" x2="0" y2="5" stroke={inks.block} strokeWidth="1" />
      </pattern>
    </defs>
  )
}

/** Whether the wrapped section, with its round corners, is what this view shows. */
export const isSection = (view: Placed, shape: Geometry) => view.up === 'z' && shape.wrap_axis !== view.across

/** The metal: outside and inside of the plates, lips as they stand out, round corners where the view shows the section. */
export function ShellOutline({ view, shape, strong }: { view: Placed; shape: Geometry; strong: boolean }) {
  const { inks } = useTheme()
  const body = blockRect(view, shape.body)
  const inner = blockRect(view, shape.inner)
  const overall = blockRect(view, shape.overall)
  const section = isSection(view, shape)
  const inside = section ? shape.bend_radius_mm * view.scale : 0
  const outside = section && shape.bend_radius_mm ? (shape.bend_radius_mm + shape.thickness_mm) * view.scale : 0
  const ring = `${roundRect(body, outside)} ${roundRect(inner, inside)}`
  return (
    <g pointerEvents="none">
      {!section && <rect {...overall} fill={inks.metalFill} stroke={inks.metal} strokeWidth={0.8} opacity={0.9} />}
      <path d={roundRect(inner, inside)} fill={inks.sheet} />
      <path d={ring} fillRule="evenodd" fill={inks.metalFill} stroke={inks.metal} strokeWidth={strong ? 1.8 : 1.1} />
    </g>
  )
}

/** Near and far faces go round opposite ways on the page; in one path they would cancel. */
function turnedOneWay(places: [number, number][]): [number, number][] {
  const twice = places.reduce((sum, [x, y], here) => {
    const [nextX, nextY] = places[(here + 1) % places.length] ?? [x, y]
    return sum + x * nextY - nextX * y
  }, 0)
  return twice < 0 ? places.toReversed() : places
}

/** The fuel as it lies at the chosen fill and attitude: its faces, its surface over them, and its centroid. */
export function FuelShape({ view, fill }: { view: Placed; fill: Fill }) {
  const { inks } = useTheme()
  const path = (polygons: Fill['faces']) =>
    polygons
      .map((polygon) => turnedOneWay(polygon.map((point): [number, number] => [view.toX(point[view.across]), view.toY(point[view.up])])))
      .map((places) => `M${places.map(([x, y]) => `${x.toFixed(2)},${y.toFixed(2)}`).join('L')}z`)
      .join('')
  return (
    <g pointerEvents="none" data-fuel={view.id}>
      <path d={path(fill.faces)} fill={inks.fuelFill} stroke={inks.fuelFill} strokeWidth={0.6} />
      <path d={path(fill.surface)} fill={inks.fuel} fillOpacity={view.up === 'y' ? 0.12 : 0.3} stroke={inks.fuel} strokeWidth={1.8} strokeLinejoin="round" />
      {fill.centroid && fill.slope_deg > 0.01 && (
        <g stroke={inks.ink} strokeWidth={1.2}>
          <title>Centre of gravity of the fuel</title>
          <circle cx={view.toX(fill.centroid[view.across])} cy={view.toY(fill.centroid[view.up])} r={6} fill={inks.sheet} />
          <path d={`M${view.toX(fill.centroid[view.across]) - 6} ${view.toY(fill.centroid[view.up])}h12m-6 -6v12`} />
        </g>
      )}
    </g>
  )
}

/** Somewhere the shell was, or might be. */
export function GhostOutline({ view, shape, tone }: { view: Placed; shape: Geometry; tone: 'pin' | 'trial' }) {
  const { inks } = useTheme()
  const colour = tone === 'pin' ? inks.quiet : inks.hand
  return (
    <rect
      {...blockRect(view, shape.overall)}
      fill={tone === 'trial' ? inks.handFill : 'none'}
      fillOpacity={0.15}
      stroke={colour}
      strokeWidth={1.6}
      strokeDasharray={tone === 'pin' ? '2 4' : '9 4'}
      pointerEvents="none"
      data-ghost={tone}
    />
  )
}

function roundRect({ x, y, width, height }: Rect, radius: number): string {
  const r = Math.max(0, Math.min(radius, width / 2, height / 2))
  if (!r) return `M${x} ${y}h${width}v${height}h${-width}z`
  const arc = (dx: number, dy: number) => `a${r} ${r} 0 0 1 ${dx} ${dy}`
  return `M${x + r} ${y}h${width - 2 * r}${arc(r, r)}v${height - 2 * r}${arc(-r, r)}h${2 * r - width}${arc(-r, -r)}v${2 * r - height}${arc(r, -r)}z`
}
