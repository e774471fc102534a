import { useTheme } from '@mui/material/styles'
import type { Drained, Shape } from '../api/model'
import { useUnits } from '../units/useUnits'
import type { Placed } from './layout'
import { cutOf, facesPath, ringPath } from './shapes'
import { Label } from './Label'

const MARKS = { fuel: 'url(#hatch-stranded)', air: 'url(#dots-air)' }

/** Fuel that stays behind, hatched, and air that can't get out, dotted: where the cut goes through it, with its litres; in the plan what lies apart from the pickup's own. */
export function Remainders({
  view,
  shape,
  drained,
  level,
}: {
  view: Placed
  shape: Shape
  drained: Drained[]
  level: boolean
}) {
  const { inks } = useTheme()
  const units = useUnits()
  const cut = cutOf(shape, view)
  if (!cut) {
    const apart = drained
      .flatMap((cell) => [...cell.pools, ...cell.pockets])
      .filter((pool) => pool.litres >= 0.05 && !(pool.own && level))
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
        const [right, top, foot] = [
          Math.max(...piece.rings.flat().map((p) => view.toX(p[0] as number))),
          Math.min(...piece.rings.flat().map((p) => view.toY(p[1] as number))),
          Math.max(...piece.rings.flat().map((p) => view.toY(p[1] as number))),
        ]
        const colour = piece.kind === 'air' ? inks.note : inks.fuelText
        const thin = foot - top < 20
        const left = Math.min(...piece.rings.flat().map((p) => view.toX(p[0] as number)))
        const spot = thin
          ? { x: right - 6, y: piece.kind === 'air' ? foot + 12 : top - 18, left: false }
          : labelIn(view, shape, [right, left], top, foot)
        return (
          <g key={place}>
            <path
              d={ringPath(view, piece.rings)}
              fillRule="evenodd"
              fill={MARKS[piece.kind]}
              stroke={colour}
              strokeWidth={0.8}
            />
            <Label
              rank={3}
              of={[(left + right) / 2, (top + foot) / 2]}
              x={spot.x}
              y={spot.y + 4}
              textAnchor={spot.left ? 'start' : 'end'}
              fontSize={12}
              fontWeight={650}
              colour={colour}
              strokeWidth={4}
            >
              {`${piece.kind === 'air' ? 'air' : 'stays'} ${units.volumeUnitText(piece.litres)}`}
            </Label>
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
    return place[view.across] > middle + 1
      ? { low: x - LABEL_PX.port, high: x + 9, y }
      : { low: x - 9, high: x + LABEL_PX.port, y }
  })
  const spots = ends.flatMap((end, left) =>
    [0.5, 0.3, 0.7].map((share) => ({
      x: left ? end + 6 : end - 6,
      y: top + share * (foot - top),
      left: Boolean(left),
    })),
  )
  const clear = spots.find((spot) => {
    const [low, high] = spot.left ? [spot.x, spot.x + LABEL_PX.wide] : [spot.x - LABEL_PX.wide, spot.x]
    return taken.every((port) => port.high < low || port.low > high || Math.abs(port.y - spot.y) >= LABEL_PX.high)
  })
  return clear ?? { x: ends[0] - 6, y: (top + foot) / 2, left: false }
}
