import { useTheme } from '@mui/material/styles'
import type { Axis, Block, Cut, Drained, Fill, Shape, ViewShape } from '../api/model'
import { AXES } from '../api/model'
import { useUnits } from '../units/useUnits'
import type { Box } from './keepOuts'
import type { Placed } from './layout'

export interface Rect {
  x: number
  y: number
  width: number
  height: number
}

export function boxRect(view: Placed, box: Box | Block, grown = 0): Rect {
  const x = view.toX(box.low[view.across] - grown)
  const y = view.toY(box.high[view.up] + grown)
  return { x, y, width: view.toX(box.high[view.across] + grown) - x, height: view.toY(box.low[view.up] - grown) - y }
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
      <pattern id="hatch-stranded" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <line x1="0" y1="0" x2="0" y2="6" stroke={inks.fuelText} strokeWidth="1.600" />
      </pattern>
      <pattern id="dots-air" width="7" height="7" patternUnits="userSpaceOnUse">
        <circle cx="2" cy="2" r="1.100" fill={inks.note} />
      </pattern>
    </defs>
  )
}

type Rings = readonly (readonly (readonly number[])[])[]

export const ringPath = (view: Placed, rings: Rings) => rings.map((ring) => `M${ring.map((p) => `${view.toX(p[0] ?? 0).toFixed(2)},${view.toY(p[1] ?? 0).toFixed(2)}`).join('L')}z`).join('')

export const cutOf = (shape: Shape, view: Placed): Cut | undefined => shape.cuts.find((cut) => (view.id === 'elevation' ? cut.axis === 'y' : view.id === 'end' && cut.axis === 'x'))
const viewOf = (shape: Shape, view: Placed): ViewShape | undefined => shape.views.find((item) => item.name === view.id)

/** The shell: the plan from outside; elevation and end cut open, what lies behind the cut drawn thin, the metal in the cut solid. */
export function ShellOutline({ view, shape, strong }: { view: Placed; shape: Shape; strong: boolean }) {
  const { inks } = useTheme()
  const outside = viewOf(shape, view)
  const cut = cutOf(shape, view)
  if (!outside) return null
  return (
    <g pointerEvents="none">
      {shape.lip_mm > 0.01 && <rect {...boxRect(view, shape.overall)} fill={inks.metalFill} stroke={inks.metal} strokeWidth={0.8} opacity={0.55} />}
      <path d={ringPath(view, outside.silhouette)} fillRule="evenodd" fill={cut ? inks.sheet : inks.metalFill} stroke={inks.metal} strokeWidth={strong ? 1.4 : 1} fillOpacity={cut ? 1 : 0.8} />
      <path d={linesPath(view, outside.seen)} fill="none" stroke={inks.metal} strokeWidth={cut ? 0.6 : 1} />
      {!cut && <path d={linesPath(view, outside.hidden)} fill="none" stroke={inks.metal} strokeWidth={0.7} strokeDasharray="4 3" />}
      {cut && <path d={`${ringPath(view, cut.outer)}${ringPath(view, cut.inner)}`} fillRule="evenodd" fill={inks.metal} stroke={inks.metal} strokeWidth={strong ? 1.6 : 0.9} />}
    </g>
  )
}

/** Ends' coordinates in fours as lines. */
function linesPath(view: Placed, ends: readonly number[]): string {
  const at = (place: number) => `${view.toX(ends[place] ?? 0).toFixed(2)},${view.toY(ends[place + 1] ?? 0).toFixed(2)}`
  let path = ''
  for (let place = 0; place < ends.length; place += 4) path += `M${at(place)}L${at(place + 2)}`
  return path
}

const INDEX = { x: 0, y: 1, z: 2 }

/** Coordinates in threes as places on the page. */
function placesOf(view: Placed, coordinates: readonly number[]): [number, number][] {
  const [a, b] = [INDEX[view.across], INDEX[view.up]]
  const places: [number, number][] = []
  for (let place = 0; place < coordinates.length; place += 3) places.push([view.toX(coordinates[place + a] ?? 0), view.toY(coordinates[place + b] ?? 0)])
  return places
}

const polygonPath = (places: [number, number][]) => `M${places.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join('L')}z`

/** Triangles as one path. Near and far ones go round opposite ways on the page, so that in one path they would cancel: all are turned one way. */
function facesPath(view: Placed, coordinates: readonly number[]): string {
  const places = placesOf(view, coordinates)
  let path = ''
  for (let place = 0; place + 2 < places.length; place += 3) {
    const [p, q, r] = [places[place], places[place + 1], places[place + 2]] as [[number, number], [number, number], [number, number]]
    const twice = (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])
    if (twice) path += polygonPath(twice < 0 ? [p, r, q] : [p, q, r])
  }
  return path
}

const loopsPath = (view: Placed, loops: readonly (readonly number[])[]) => loops.map((loop) => polygonPath(placesOf(view, loop))).join('')

/** The fuel as it lies: in the cut views just what the cut goes through, its surface behind the cut lighter; in the plan its surface. */
export function FuelShape({ view, fill, shape }: { view: Placed; fill: Fill; shape: Shape }) {
  const { inks } = useTheme()
  const cut = cutOf(shape, view)
  return (
    <g pointerEvents="none" data-fuel={view.id}>
      {cut ? (
        <>
          <path d={loopsPath(view, fill.surface)} fillRule="evenodd" fill={inks.fuel} fillOpacity={0.16} />
          <path d={ringPath(view, cut.fuel)} fillRule="evenodd" fill={inks.fuelFill} stroke={inks.fuel} strokeWidth={1.2} />
        </>
      ) : (
        <>
          <path d={facesPath(view, fill.faces)} fill={inks.fuelFill} fillOpacity={0.4} />
          <path d={loopsPath(view, fill.surface)} fillRule="evenodd" fill={inks.fuelFill} fillOpacity={0.5} stroke={inks.fuel} strokeWidth={0.8} />
        </>
      )}
      {fill.centroid && (
        <g stroke={inks.ink} strokeWidth={1.2}>
          <title>Centre of gravity of the fuel</title>
          <circle cx={view.toX(fill.centroid[view.across])} cy={view.toY(fill.centroid[view.up])} r={6} fill={inks.sheet} />
          <path d={`M${view.toX(fill.centroid[view.across]) - 6} ${view.toY(fill.centroid[view.up])}h12m-6 -6v12`} />
        </g>
      )}
    </g>
  )
}

const MARKS = { fuel: 'url(#hatch-stranded)', air: 'url(#dots-air)' }

/** Fuel that stays behind, hatched, and air that can't get out, dotted: where the cut goes through it, with its litres; in the plan what lies apart from the pickup's own. */
export function Remainders({ view, shape, drained, level }: { view: Placed; shape: Shape; drained: Drained[]; level: boolean }) {
  const { inks } = useTheme()
  const units = useUnits()
  const cut = cutOf(shape, view)
  if (!cut) {
    const apart = drained.flatMap((cell) => [...cell.pools, ...cell.pockets]).filter((pool) => pool.litres >= 0.05 && !(pool.own && level))
    return (
      <g pointerEvents="none">
        {apart.map((pool, place) => (
          <path key={place} d={facesPath(view, pool.faces)} fill={MARKS[pool.kind]} />
        ))}
      </g>
    )
  }
  return (
    <g pointerEvents="none" data-remainders={view.id}>
      {cut.left.map((piece, place) => {
        const [right, top, foot] = [Math.max(...piece.rings.flat().map((p) => view.toX(p[0] as number))), Math.min(...piece.rings.flat().map((p) => view.toY(p[1] as number))), Math.max(...piece.rings.flat().map((p) => view.toY(p[1] as number)))]
        const colour = piece.kind === 'air' ? inks.note : inks.fuelText
        const thin = foot - top < 20
        const left = Math.min(...piece.rings.flat().map((p) => view.toX(p[0] as number)))
        const spot = thin ? { x: right - 6, y: piece.kind === 'air' ? foot + 12 : top - 18, left: false } : labelIn(view, shape, [right, left], top, foot)
        return (
          <g key={place}>
            <path d={ringPath(view, piece.rings)} fillRule="evenodd" fill={MARKS[piece.kind]} stroke={colour} strokeWidth={0.8} />
            <text data-label={3} data-at={`${(left + right) / 2} ${(top + foot) / 2}`} x={spot.x} y={spot.y + 4} textAnchor={spot.left ? 'start' : 'end'} fontSize={12} fontWeight={650} fill={colour} stroke={inks.sheet} strokeWidth={4} paintOrder="stroke">
              {`${piece.kind === 'air' ? 'air' : 'stays'} ${units.volumeUnitText(piece.litres)}`}
            </text>
          </g>
        )
      })}
    </g>
  )
}

const LABEL_PX = { wide: 84, high: 18, port: 62 }

/** Where a label of a stretch stands: at its right or left end, the first place clear of the ports' labels. */
function labelIn(view: Placed, shape: Shape, ends: [number, number], top: number, foot: number) {
  const middle = (shape.body.low[view.across] + shape.body.high[view.across]) / 2
  const taken = shape.ports.map(({ place }) => {
    const [x, y] = [view.toX(place[view.across]), view.toY(place[view.up])]
    return place[view.across] > middle + 1 ? { low: x - LABEL_PX.port, high: x + 9, y } : { low: x - 9, high: x + LABEL_PX.port, y }
  })
  const spots = ends.flatMap((end, left) => [0.5, 0.3, 0.7].map((share) => ({ x: left ? end + 6 : end - 6, y: top + share * (foot - top), left: Boolean(left) })))
  const clear = spots.find((spot) => {
    const [low, high] = spot.left ? [spot.x, spot.x + LABEL_PX.wide] : [spot.x - LABEL_PX.wide, spot.x]
    return taken.every((port) => port.high < low || port.low > high || Math.abs(port.y - spot.y) >= LABEL_PX.high)
  })
  return clear ?? { x: ends[0] - 6, y: (top + foot) / 2, left: false }
}

/** Somewhere the shell was, or might be. */
export function GhostOutline({ view, shape, tone }: { view: Placed; shape: Shape; tone: 'pin' | 'trial' }) {
  const { inks } = useTheme()
  const outside = viewOf(shape, view)
  if (!outside) return null
  return (
    <path
      d={ringPath(view, outside.silhouette)}
      fillRule="evenodd"
      fill={tone === 'trial' ? inks.handFill : 'none'}
      fillOpacity={0.15}
      stroke={tone === 'pin' ? inks.quiet : inks.hand}
      strokeWidth={1.6}
      strokeDasharray={tone === 'pin' ? '2 4' : '9 4'}
      pointerEvents="none"
      data-ghost={tone}
    />
  )
}

/** What a trial adds or moves: features and ports that are not where they are now. */
export function GhostParts({ view, now, then }: { view: Placed; now: Shape; then: Shape }) {
  const { inks } = useTheme()
  const same = (a: Block | undefined, b: Block) => a !== undefined && AXES.every((axis) => Math.abs(a.low[axis] - b.low[axis]) < 0.05 && Math.abs(a.high[axis] - b.high[axis]) < 0.05)
  const features = then.features.filter((feature) => !same(now.features.find((item) => item.id === feature.id)?.block, feature.block))
  const ports = then.ports.filter((port) => {
    const old = now.ports.find((item) => item.id === port.id)
    return !old || AXES.some((axis) => Math.abs(old.place[axis] - port.place[axis]) > 0.05)
  })
  const text = { fontSize: 11, fontWeight: 650, fill: inks.hand, stroke: inks.sheet, strokeWidth: 3, paintOrder: 'stroke' as const }
  return (
    <g pointerEvents="none">
      {features.map((feature) => {
        const rect = boxRect(view, feature.block)
        return (
          <g key={feature.id} data-ghost-feature={feature.id}>
            <rect {...rect} fill={inks.handFill} fillOpacity={0.35} stroke={inks.hand} strokeWidth={1.6} strokeDasharray="9 4" />
            <text data-label={4} data-at={`${rect.x + rect.width / 2} ${rect.y + rect.height / 2}`} x={rect.x + 4} y={rect.y + rect.height - 5} {...text}>
              {feature.name}
            </text>
          </g>
        )
      })}
      {ports.map((port) => (
        <circle key={port.id} cx={view.toX(port.place[view.across])} cy={view.toY(port.place[view.up])} r={8} fill="none" stroke={inks.hand} strokeWidth={2} strokeDasharray="4 2" data-ghost-port={port.id} />
      ))}
    </g>
  )
}

/** Where a body's bounding box has its low corner. */
export const datumOf = (shape: Shape): Record<Axis, number> => shape.body.low
