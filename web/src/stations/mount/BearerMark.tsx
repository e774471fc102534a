import { useTheme } from '@mui/material/styles'
import type { Axis, Bearer, Evaluation } from '../../api/model'
import type { Placed } from '../../drawing/layout'
import { MoveBody } from '../../drawing/MoveBody'
import { select } from '../../work/store'
import { changeHeld } from './edits'

const GRIP_PX = 24

interface Props {
  view: Placed
  bearer: Bearer
  evaluation: Evaluation | null
  at: boolean
  weak: boolean
  live: boolean
}

/** A bearer: along its length as a bar between its supports, from its end as its section. */
export function BearerMark({ view, bearer, evaluation, at, weak, live }: Props) {
  const { inks } = useTheme()
  const place = evaluation?.mount?.bearers?.find((one) => one.id === bearer.id)
  const box = evaluation?.shell?.geometry?.overall
  if (!box) return null
  const colour = weak || !place ? inks.stop : at ? inks.hand : inks.ink
  const station: Axis = bearer.along === 'y' ? 'x' : 'y'
  const half = (bearer.shape === 'flat bar' ? bearer.wall_mm : bearer.outer_mm) / 2
  const face = place?.z_mm ?? (bearer.stands === 'under' ? box.low.z : box.high.z)
  const foot = bearer.stands === 'under' ? face - bearer.outer_mm : face
  const low = { x: 0, y: 0, z: foot, [station]: bearer.at_mm - half, [bearer.along]: bearer.low_mm }
  const high = { x: 0, y: 0, z: foot + bearer.outer_mm, [station]: bearer.at_mm + half, [bearer.along]: bearer.high_mm }
  const rect = {
    x: view.toX(low[view.across]),
    y: view.toY(high[view.up]),
    width: Math.max(2, (high[view.across] - low[view.across]) * view.scale),
    height: Math.max(2, (high[view.up] - low[view.up]) * view.scale),
  }
  const moves = view.across === station || view.up === station
  return (
    <g data-bearer={bearer.id}>
      <rect {...rect} fill={colour} fillOpacity={0.18} stroke={colour} strokeWidth={1.4} />
      {live && moves && (
        <MoveBody
          view={view}
          rect={{
            x: rect.x + Math.min(0, (rect.width - GRIP_PX) / 2),
            y: rect.y + Math.min(0, (rect.height - GRIP_PX) / 2),
            width: Math.max(GRIP_PX, rect.width),
            height: Math.max(GRIP_PX, rect.height),
          }}
          label={bearer.name}
          place={{ x: bearer.at_mm, y: bearer.at_mm, z: 0 }}
          snapsFor={() => []}
          onPick={() => select({ kind: 'mount', id: bearer.id })}
          onMove={(moved) =>
            moved[station] !== undefined && changeHeld('bearers', bearer.id, { at_mm: moved[station] })
          }
        />
      )}
    </g>
  )
}
