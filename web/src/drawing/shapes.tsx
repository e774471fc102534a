import { useTheme } from '@mui/material/styles'
import type { Axis, Block, Cut, Fill, Shape, ViewShape } from '../api/model'
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

export const ringPath = (view: Placed, rings: Rings) =>
  rings
    .map(
      (ring) => `M${ring.map((p) => `${view.toX(p[0] ?? 0).toFixed(2)},${view.toY(p[1] ?? 0).toFixed(2)}`).join('L')}z`,
    )
    .join('')

export const cutOf = (shape: Shape, view: Placed): Cut | undefined =>
  shape.cuts.find((cut) => (view.id === 'elevation' ? cut.axis === 'y' : view.id === 'end' && cut.axis === 'x'))
export const viewOf = (shape: Shape, view: Placed): ViewShape | undefined =>
  shape.views.find((item) => item.name === view.id)

/** The shell: the plan from outside; elevation and end cut open, what lies behind the cut drawn thin, the metal in the cut solid. */
export function ShellOutline({ view, shape, strong }: { view: Placed; shape: Shape; strong: boolean }) {
  const { inks } = useTheme()
  const outside = viewOf(shape, view)
  const cut = cutOf(shape, view)
  if (!outside) return null
  return (
    <g pointerEvents="none">
      {shape.lip_mm > 0.01 && (
        <rect
          {...boxRect(view, shape.overall)}
          fill={inks.metalFill}
          stroke={inks.metal}
          strokeWidth={0.8}
          opacity={0.55}
        />
      )}
      <path
        d={ringPath(view, outside.silhouette)}
        fillRule="evenodd"
        fill={cut ? inks.sheet : inks.metalFill}
        stroke={inks.metal}
        strokeWidth={strong ? 1.4 : 1}
        fillOpacity={cut ? 1 : 0.8}
      />
      <path d={linesPath(view, outside.seen)} fill="none" stroke={inks.metal} strokeWidth={cut ? 0.6 : 1} />
      {!cut && (
        <path
          d={linesPath(view, outside.hidden)}
          fill="none"
          stroke={inks.metal}
          strokeWidth={0.7}
          strokeDasharray="4 3"
        />
      )}
      {cut && (
        <path
          d={`${ringPath(view, cut.outer)}${ringPath(view, cut.inner)}`}
          fillRule="evenodd"
          fill={inks.metal}
          stroke={inks.metal}
          strokeWidth={strong ? 1.6 : 0.9}
        />
      )}
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
  for (let place = 0; place < coordinates.length; place += 3)
    places.push([view.toX(coordinates[place + a] ?? 0), view.toY(coordinates[place + b] ?? 0)])
  return places
}

const polygonPath = (places: [number, number][]) =>
  `M${places.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join('L')}z`

/** Triangles as one path. Near and far ones go round opposite ways on the page, so that in one path they would cancel: all are turned one way. */
export function facesPath(view: Placed, coordinates: readonly number[]): string {
  const places = placesOf(view, coordinates)
  let path = ''
  for (let place = 0; place + 2 < places.length; place += 3) {
    const [p, q, r] = [places[place], places[place + 1], places[place + 2]] as [
      [number, number],
      [number, number],
      [number, number],
    ]
    const twice = (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0])
    if (twice) path += polygonPath(twice < 0 ? [p, r, q] : [p, q, r])
  }
  return path
}

const loopsPath = (view: Placed, loops: readonly (readonly number[])[]) =>
  loops.map((loop) => polygonPath(placesOf(view, loop))).join('')

/** The fuel as it lies: in the cut views just what the cut goes through, its surface behind the cut lighter; in the plan its surface. */
export function FuelShape({ view, fill, shape }: { view: Placed; fill: Fill; shape: Shape }) {
  const { inks } = useTheme()
  const cut = cutOf(shape, view)
  return (
    <g pointerEvents="none" data-fuel={view.id}>
      {cut ? (
        <>
          <path d={loopsPath(view, fill.surface)} fillRule="evenodd" fill={inks.fuel} fillOpacity={0.16} />
          <path
            d={ringPath(view, cut.fuel)}
            fillRule="evenodd"
            fill={inks.fuelFill}
            stroke={inks.fuel}
            strokeWidth={1.2}
          />
        </>
      ) : (
        <>
          <path d={facesPath(view, fill.faces)} fill={inks.fuelFill} fillOpacity={0.4} />
          <path
            d={loopsPath(view, fill.surface)}
            fillRule="evenodd"
            fill={inks.fuelFill}
            fillOpacity={0.5}
            stroke={inks.fuel}
            strokeWidth={0.8}
          />
        </>
      )}
      {fill.centroid && (
        <g stroke={inks.ink} strokeWidth={1.2}>
          <title>Centre of gravity of the fuel</title>
          <circle
            cx={view.toX(fill.centroid[view.across])}
            cy={view.toY(fill.centroid[view.up])}
            r={6}
            fill={inks.sheet}
          />
          <path d={`M${view.toX(fill.centroid[view.across]) - 6} ${view.toY(fill.centroid[view.up])}h12m-6 -6v12`} />
        </g>
      )}
    </g>
  )
}

/** Where a body's bounding box has its low corner. */
export const datumOf = (shape: Shape): Record<Axis, number> => shape.body.low
