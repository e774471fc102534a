import { useTheme } from '@mui/material/styles'
import type { Axis } from '../../api/model'
import { Label } from '../../drawing/Label'
import type { Placed } from '../../drawing/layout'
import { useUnits } from '../../units/useUnits'

const LEAST_LPH = 0.05
const LEAST_KPA = 20

interface Props {
  view: Placed
  way: readonly Record<Axis, number>[]
  kpa: number | null
  lph: number | null
  at: boolean
}

/** Pressure and flow beside a run. */
export function RunLabel({ view, way, kpa, lph, at }: Props) {
  const { inks } = useTheme()
  const units = useUnits()
  if (kpa === null || lph === null || view.id === 'end') return null
  // A line at rest says nothing: its figures would be in the way of those that matter.
  if (!at && Math.abs(lph) < LEAST_LPH && kpa < LEAST_KPA) return null
  const [x, y] = middleOf(way.map((place) => [view.toX(place[view.across]), view.toY(place[view.up])] as const))
  return (
    <Label
      rank={at ? 1 : 5}
      of={[x, y]}
      x={x}
      y={y - 6}
      textAnchor="middle"
      colour={inks.fuelText}
      pointerEvents="none"
    >
      {`${units.pressure(kpa)} · ${units.flowText(Math.abs(lph), 0)}`}
    </Label>
  )
}

/** The middle of the longest straight, where there is room for words. */
function middleOf(points: readonly (readonly [number, number])[]): readonly [number, number] {
  let best: readonly [number, number] = points[0] ?? [0, 0]
  let longest = -1
  for (let n = 0; n + 1 < points.length; n += 1) {
    const [a, b] = [points[n], points[n + 1]]
    if (!a || !b) continue
    const long = Math.hypot(b[0] - a[0], b[1] - a[1])
    if (long > longest) {
      longest = long
      best = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]
    }
  }
  return best
}
