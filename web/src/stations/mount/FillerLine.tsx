import { useTheme } from '@mui/material/styles'
import type { Evaluation } from '../../api/model'
import type { Placed } from '../../drawing/layout'
import { MoveBody } from '../../drawing/MoveBody'
import { useWork } from '../../work/store'
import { setMount } from './edits'
import { Label } from '../../drawing/Label'

type Filler = NonNullable<NonNullable<Evaluation['mount']>['filler']>
const GRIP_PX = 28

/** The fill hose from the neck to the opening in the body, which is dragged. */
export function FillerLine({ view, filler, live }: { view: Placed; filler: Filler; live: boolean }) {
  const { inks } = useTheme()
  const route = useWork((work) => work.design.mount.filler ?? null)
  const at = ({ x, y, z }: Filler['neck']) => {
    const place = { x, y, z }
    return [view.toX(place[view.across]), view.toY(place[view.up])] as const
  }
  const [neck, opening] = [at(filler.neck), at(filler.opening)]
  return (
    <g data-filler-line>
      <path d={`M${neck.join(' ')}L${opening.join(' ')}`} stroke={inks.fuel} strokeWidth={5} strokeOpacity={0.55} />
      <circle cx={opening[0]} cy={opening[1]} r={6} fill={inks.sheet} stroke={inks.ink} strokeWidth={1.8} />
      <Label rank={4} of={opening} x={opening[0] + 10} y={opening[1] - 6} colour={inks.ink} pointerEvents="none">
        body opening
      </Label>
      {live && route && (
        <MoveBody
          view={view}
          rect={{ x: opening[0] - GRIP_PX / 2, y: opening[1] - GRIP_PX / 2, width: GRIP_PX, height: GRIP_PX }}
          label="body opening"
          place={filler.opening}
          snapsFor={() => []}
          onMove={(place) =>
            setMount({
              filler: {
                ...route,
                ...Object.fromEntries(Object.entries(place).map(([axis, mm]) => [`${axis}_mm`, mm])),
              },
            })
          }
        />
      )}
    </g>
  )
}
