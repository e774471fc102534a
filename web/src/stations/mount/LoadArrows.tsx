import { useTheme } from '@mui/material/styles'
import type { Axis, Evaluation, LoadCase } from '../../api/model'
import type { Placed } from '../../drawing/layout'
import { useUnits } from '../../units/useUnits'
import { useMountView } from './view'
import { Label } from '../../drawing/Label'

const ARROW_PX = 70
type Place = Record<Axis, number>

/** The load at hand where the tank's weight acts, and what each mount answers with, all to one scale. */
export function LoadArrows({ view, evaluation }: { view: Placed; evaluation: Evaluation | null }) {
  const { inks } = useTheme()
  const units = useUnits()
  const way = useMountView((shown) => shown.way)
  const loads = evaluation?.mount?.loads
  const shown = loads?.cases.find((one) => one.way === way)
  if (!shown || !loads?.mass) return null
  const [axis, sign] = WAY[shown.way]
  const perNewton = ARROW_PX / shown.load_n
  const load: Place = { x: 0, y: 0, z: 0, [axis]: sign * shown.load_n }
  return (
    <g pointerEvents="none">
      <Arrow
        view={view}
        from={loads.mass.at}
        force={load}
        perNewton={perNewton}
        colour={inks.fuelText}
        text={units.quantity('n', shown.load_n)}
      />
      {shown.by.map((held) => (
        <Arrow
          key={held.holder}
          view={view}
          from={held.at}
          force={held.force}
          perNewton={perNewton}
          colour={inks.metal}
          text={units.quantity('n', held.force_n)}
        />
      ))}
    </g>
  )
}

const WAY: Record<LoadCase['way'], [Axis, 1 | -1]> = {
  forward: ['x', 1],
  rearward: ['x', -1],
  'to the left': ['y', 1],
  'to the right': ['y', -1],
  up: ['z', 1],
  down: ['z', -1],
}

interface ArrowProps {
  view: Placed
  from: Place
  force: Place
  perNewton: number
  colour: string
  text: string
}

function Arrow({ view, from, force, perNewton, colour, text }: ArrowProps) {
  const [x, y] = [view.toX(from[view.across]), view.toY(from[view.up])]
  const [u, v] = [force[view.across] * perNewton, -force[view.up] * perNewton]
  const long = Math.hypot(u, v)
  if (long < 4) return null
  const [du, dv] = [u / long, v / long]
  const head = `M${x + u} ${y + v}l${-9 * du - 4 * dv} ${-9 * dv + 4 * du}l${8 * dv} ${-8 * du}Z`
  return (
    <g>
      <path d={`M${x} ${y}L${x + u - 6 * du} ${y + v - 6 * dv}`} stroke={colour} strokeWidth={2.6} />
      <path d={head} fill={colour} />
      <Label
        rank={2}
        of={[x + u, y + v]}
        x={x + u + 8 * du}
        y={y + v + 8 * dv + 4}
        textAnchor={du < -0.5 ? 'end' : du > 0.5 ? 'start' : 'middle'}
        fontWeight={700}
        colour={colour}
      >
        {text}
      </Label>
    </g>
  )
}
