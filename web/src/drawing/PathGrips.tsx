import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Axis } from '../api/model'
import type { Placed } from './layout'
import { MoveBody } from './MoveBody'
import type { Snap } from './snaps'

const GRIP_PX = 24
/** A straight that is seen shorter than this has no grip in its middle: its corners are near enough. */
const STRAIGHT_PX = 60
type Place = Record<Axis, number>
export interface Corner {
  x_mm: number
  y_mm: number
  z_mm: number
}

interface Props {
  view: Placed
  /** What the path is called. */
  name: string
  /** Its corners with both ends. */
  way: readonly Place[]
  path: readonly Corner[]
  snapsFor: (place: number, axis: Axis) => Snap[]
  onChange: (corners: Corner[]) => void
}

/** Squares on the corners of a hose, a tube or a wire, rings in the middle of its straights. */
export function PathGrips(props: Props) {
  const { way, path } = props
  return (
    <>
      {way.slice(1).map((end, n) => (
        <StraightGrip key={`straight-${n}`} {...props} n={n} end={end} start={way[n] ?? end} />
      ))}
      {path.map((corner, n) => (
        <CornerGrip key={`corner-${n}`} {...props} n={n} corner={corner} />
      ))}
    </>
  )
}

const spotOf = (view: Placed, place: Place) => [view.toX(place[view.across]), view.toY(place[view.up])] as const
const gripAt = ([x, y]: readonly [number, number]) => ({
  x: x - GRIP_PX / 2,
  y: y - GRIP_PX / 2,
  width: GRIP_PX,
  height: GRIP_PX,
})
const asCorner = ({ x, y, z }: Place): Corner => ({ x_mm: x, y_mm: y, z_mm: z })

/** The middle of a straight: dragged, it is a corner. The path as it was taken hold of is what it is put into. */
function StraightGrip({
  view,
  name,
  path,
  snapsFor,
  onChange,
  n,
  start,
  end,
}: Props & { n: number; start: Place; end: Place }) {
  const { inks } = useTheme()
  const [taken, setTaken] = useState<readonly Corner[] | null>(null)
  const [a, b] = [spotOf(view, start), spotOf(view, end)]
  if (!taken && Math.hypot(b[0] - a[0], b[1] - a[1]) < STRAIGHT_PX) return null
  const middle = {
    x: Math.round((start.x + end.x) / 2),
    y: Math.round((start.y + end.y) / 2),
    z: Math.round((start.z + end.z) / 2),
  }
  const at = spotOf(view, middle)
  const put = (moved: Partial<Place>) => {
    const own = taken ?? path
    onChange([...own.slice(0, n), asCorner({ ...middle, ...moved }), ...own.slice(n)])
  }
  return (
    <g>
      {!taken && <circle cx={at[0]} cy={at[1]} r={4.5} fill={inks.sheet} stroke={inks.hand} strokeWidth={1.5} />}
      <MoveBody
        view={view}
        rect={gripAt(at)}
        label={`straight ${n + 1} of ${name}`}
        place={middle}
        snapsFor={(axis) => snapsFor(n + 1, axis)}
        onPick={() => setTaken(path)}
        onMove={put}
        onDone={() => setTaken(null)}
      />
    </g>
  )
}

/** A corner, dragged. */
function CornerGrip({ view, name, path, snapsFor, onChange, n, corner }: Props & { n: number; corner: Corner }) {
  const { inks } = useTheme()
  const place = { x: corner.x_mm, y: corner.y_mm, z: corner.z_mm }
  const at = spotOf(view, place)
  return (
    <g>
      <rect x={at[0] - 5} y={at[1] - 5} width={10} height={10} fill={inks.sheet} stroke={inks.hand} strokeWidth={2} />
      <MoveBody
        view={view}
        rect={gripAt(at)}
        label={`corner ${n + 1} of ${name}`}
        place={place}
        snapsFor={(axis) => snapsFor(n + 1, axis)}
        onMove={(moved) => onChange(path.map((one, here) => (here === n ? asCorner({ ...place, ...moved }) : one)))}
      />
    </g>
  )
}
