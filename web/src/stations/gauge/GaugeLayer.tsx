import { useTheme } from '@mui/material/styles'
import type { Sender, SenderReading } from '../../api/model'
import type { Placed } from '../../drawing/layout'
import { MoveBody } from '../../drawing/MoveBody'
import { select, useWork } from '../../work/store'
import type { LayerProps } from '../station'
import { changeSender } from './edits'
import { Label } from '../../drawing/Label'

/** Senders with their arm and float drawn empty and full, and the way the float goes between. */
export function GaugeLayer({ view, design, evaluation, onEdit }: LayerProps) {
  const chosen = useWork((work) => (work.at?.kind === 'sender' ? work.at.id : null))
  return (
    <g>
      {design.gauge.senders.map((sender, place) => {
        const reading = evaluation?.gauge?.truth?.readings.find((item) => item.id === sender.id)
        return reading ? (
          <SenderMark
            key={sender.id}
            place={place}
            view={view}
            sender={sender}
            reading={reading}
            at={sender.id === chosen}
            live={Boolean(onEdit)}
          />
        ) : null
      })}
    </g>
  )
}

function SenderMark({
  view,
  place,
  sender,
  reading,
  at,
  live,
}: {
  view: Placed
  place: number
  sender: Sender
  reading: SenderReading
  at: boolean
  live: boolean
}) {
  const { inks } = useTheme()
  const colour = reading.meets.length ? inks.stop : at ? inks.hand : inks.ink
  const places = reading.sweep.map((point) => [view.toX(point[view.across]), view.toY(point[view.up])] as const)
  const [empty, full] = [places[0], places[places.length - 1]]
  if (!empty || !full) return null
  const pivot = reading.pivot && ([view.toX(reading.pivot[view.across]), view.toY(reading.pivot[view.up])] as const)
  const grip = pivot ?? full
  const radius = Math.max(3, (reading.float_mm / 2) * view.scale)
  const name = `translate(${grip[0]} ${grip[1]})`
  return (
    <g data-sender={sender.id}>
      {reading.float_mm > 0 && (
        <path
          d={`M${places.map((p) => p.join(' ')).join('L')}`}
          fill="none"
          stroke={colour}
          strokeOpacity={0.14}
          strokeWidth={2 * radius}
          strokeLinecap="round"
          strokeLinejoin="round"
        />
      )}
      <path
        d={`M${places.map((p) => p.join(' ')).join('L')}`}
        fill="none"
        stroke={colour}
        strokeWidth={1}
        strokeDasharray="2 3"
      />
      {pivot &&
        [empty, full].map((end, n) => (
          <path key={n} d={`M${pivot.join(' ')}L${end.join(' ')}`} stroke={colour} strokeWidth={1.8} />
        ))}
      {view.up === 'z' &&
        ([empty, full] as const).map((end, n) => (
          <g key={n}>
            {reading.float_mm > 0 ? (
              <circle
                cx={end[0]}
                cy={end[1]}
                r={radius}
                fill={inks.sheet}
                fillOpacity={0.8}
                stroke={colour}
                strokeWidth={1.6}
              />
            ) : (
              <path d={`M${end[0] - 4} ${end[1]}h8`} stroke={colour} strokeWidth={2} />
            )}
            <text
              pointerEvents="none"
              data-label={3}
              data-at={end.join(' ')}
              x={reading.float_mm > 0 ? end[0] : end[0] - 11}
              y={end[1] + (reading.float_mm > 0 ? 4 : n ? 10 : 0)}
              textAnchor="middle"
              fontSize={11}
              fontWeight={700}
              fill={colour}
            >
              {n ? 'F' : 'E'}
            </text>
          </g>
        ))}
      <circle r={3.5} transform={name} fill={colour} />
      <Label
        rank={4}
        of={[grip[0], grip[1]]}
        x={grip[0] + 8}
        y={grip[1] - 6 - 14 * place}
        colour={colour}
        pointerEvents="none"
      >
        {sender.name}
      </Label>
      {live && (
        <MoveBody
          view={view}
          rect={{ x: grip[0] - 14, y: grip[1] - 14, width: 28, height: 28 }}
          label={sender.name}
          place={{ x: sender.x_mm, y: sender.y_mm, z: 0 }}
          snapsFor={() => []}
          onPick={() => select({ kind: 'sender', id: sender.id })}
          onMove={({ x, y }) =>
            changeSender(sender.id, {
              ...(x === undefined ? {} : { x_mm: x }),
              ...(y === undefined ? {} : { y_mm: y }),
            })
          }
        />
      )}
    </g>
  )
}
