import { shapeOf } from './shape'
import { useTheme } from '@mui/material/styles'
import type { Schemas } from '../api/client'
import type { Axis, Design, Evaluation, Shape } from '../api/model'
import { useWork } from '../work/store'
import { changeFeature } from './edits'
import type { Placed } from './layout'
import { MoveBody } from './MoveBody'
import { boxRect, datumOf, ringPath } from './shapes'

type Baffle = Schemas['Baffle']
type Kind = 'notches' | 'holes' | 'doors'

interface Spot {
  kind: Kind
  place: number
  name: string
  /** The middle of the opening (of the first hole) from the plate's end, and its lower edge or middles, as typed [mm]. */
  at: number
  up: number
  /** The box round it on the plate: along it, and up, in vehicle axes [mm]. */
  along: [number, number]
  high: [number, number]
}

/** The openings of a baffle, where they are on the drawing. */
function spotsOf(baffle: Baffle, shape: Shape): Spot[] {
  const start = datumOf(shape)[baffle.axis === 'x' ? 'y' : 'x']
  const [underside, floor] = [shape.body.low.z, shape.inner.low.z]
  const half = (at: number, wide: number): [number, number] => [start + at - wide / 2, start + at + wide / 2]
  return [
    ...baffle.notches.map((notch, place) => ({
      kind: 'notches' as const,
      place,
      name: `notch ${place + 1}`,
      at: notch.at_mm,
      up: 0,
      along: half(notch.at_mm, notch.wide_mm),
      high: [floor, floor + notch.high_mm] as [number, number],
    })),
    ...baffle.doors.map((door, place) => ({
      kind: 'doors' as const,
      place,
      name: `door ${place + 1}`,
      at: door.at_mm,
      up: door.up_mm,
      along: half(door.at_mm, door.wide_mm),
      high: [floor + door.up_mm, floor + door.up_mm + door.high_mm] as [number, number],
    })),
    ...baffle.holes.map((row, place) => {
      const r = row.diameter_mm / 2
      const first = start + row.at_mm
      return {
        kind: 'holes' as const,
        place,
        name: `row of holes ${place + 1}`,
        at: row.at_mm,
        up: row.up_mm,
        along: [first - r, first + (row.count - 1) * row.pitch_mm + r] as [number, number],
        high: [underside + row.up_mm - r, underside + row.up_mm + r] as [number, number],
      }
    }),
  ]
}

/** The face of the baffle at hand, in the view that looks at it; its openings can be dragged there. */
export function OpeningMarks({ view, design, evaluation }: { view: Placed; design: Design; evaluation: Evaluation }) {
  const { inks } = useTheme()
  const chosen = useWork((work) => (work.at?.kind === 'feature' ? work.at.id : null))
  const shape = shapeOf(evaluation)
  const baffle = design.shell?.features.find((feature) => feature.id === chosen)
  if (!shape || baffle?.kind !== 'baffle' || view.up !== 'z' || view.across !== (baffle.axis === 'x' ? 'y' : 'x'))
    return null
  const face = shape.features.find((item) => item.id === baffle.id)?.face ?? []
  return (
    <g>
      <path
        d={ringPath(view, face as number[][][])}
        fillRule="evenodd"
        fill={inks.metalFill}
        fillOpacity={0.9}
        stroke={inks.metal}
        strokeWidth={1.2}
        pointerEvents="none"
        data-face={baffle.id}
      />
      {spotsOf(baffle, shape).map((spot) => (
        <Opening key={`${spot.kind}-${spot.place}`} view={view} baffle={baffle} spot={spot} shape={shape} />
      ))}
    </g>
  )
}

function Opening({ view, baffle, spot, shape }: { view: Placed; baffle: Baffle; spot: Spot; shape: Shape }) {
  const { inks } = useTheme()
  const across = view.across as 'x' | 'y'
  const other = across === 'x' ? 'y' : 'x'
  const box = {
    low: { [across]: spot.along[0], [other]: 0, z: spot.high[0] } as Record<Axis, number>,
    high: { [across]: spot.along[1], [other]: 0, z: spot.high[1] } as Record<Axis, number>,
  }
  const rect = boxRect(view, box)
  const long = shape.body.high[across] - shape.body.low[across]
  const spread = spot.kind === 'holes' ? spot.along[1] - spot.along[0] - (spot.high[1] - spot.high[0]) : 0
  const move = (place: Partial<Record<Axis, number>>) => {
    const part: Record<string, number> = {}
    if (place[across] !== undefined) part.at_mm = Math.max(0, place[across])
    if (place.z !== undefined && spot.kind !== 'notches') part.up_mm = Math.max(0, place.z)
    changeFeature(baffle.id, {
      [spot.kind]: baffle[spot.kind].map((item, here) => (here === spot.place ? { ...item, ...part } : item)),
    })
  }
  return (
    <g>
      <rect {...rect} fill="none" stroke={inks.hand} strokeDasharray="4 3" pointerEvents="none" />
      <MoveBody
        view={view}
        rect={rect}
        label={`${spot.name} of ${baffle.name}`}
        place={{ [across]: spot.at, [other]: 0, z: spot.up } as Record<Axis, number>}
        snapsFor={(axis) =>
          axis === across ? [{ at: (long - spread) / 2, why: 'in the middle' }] : [{ at: 0, why: 'on the floor' }]
        }
        onMove={move}
      />
    </g>
  )
}
