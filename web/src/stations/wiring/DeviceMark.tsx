import { useTheme } from '@mui/material/styles'
import type { Joined } from '../../api/model'
import { Label } from '../../drawing/Label'
import type { Placed } from '../../drawing/layout'
import { MoveBody } from '../../drawing/MoveBody'
import { select, useWork } from '../../work/store'
import { changeDevice } from './edits'

const SIZE_PX = 16
const GRIP_PX = 26
/** Devices stand close together: each is named in one view, and in all of them when it is at hand. */
const NAMED_IN = 'elevation'

/** Something that wires are joined to; a device of this station is dragged. */
export function DeviceMark({ view, thing, live }: { view: Placed; thing: Joined; live: boolean }) {
  const { inks } = useTheme()
  const kind = thing.of === 'device' ? 'device' : thing.of === 'pump' ? 'line part' : 'sender'
  const at = useWork((work) => work.at?.kind === kind && work.at.id === thing.id)
  const [x, y] = [view.toX(thing.at[view.across]), view.toY(thing.at[view.up])]
  const colour = at ? inks.hand : inks.ink
  const pick = () => select({ kind, id: thing.id })
  return (
    <g data-device={`${thing.of}.${thing.id}`} data-kind={thing.kind}>
      <rect
        x={x - SIZE_PX / 2}
        y={y - SIZE_PX / 2}
        width={SIZE_PX}
        height={SIZE_PX}
        rx={2}
        fill={at ? inks.handFill : inks.sheet}
        stroke={colour}
        strokeWidth={at ? 2 : 1.2}
      />
      <DeviceSign kind={thing.kind} x={x} y={y} colour={colour} />
      {(at || view.id === NAMED_IN) && (
        <Label
          rank={at ? 1 : 6}
          of={[x, y]}
          x={x}
          y={y + SIZE_PX / 2 + 12}
          textAnchor="middle"
          colour={colour}
          pointerEvents="none"
        >
          {thing.name}
        </Label>
      )}
      {live && thing.of === 'device' ? (
        <MoveBody
          view={view}
          rect={{ x: x - GRIP_PX / 2, y: y - GRIP_PX / 2, width: GRIP_PX, height: GRIP_PX }}
          label={thing.name}
          place={thing.at}
          snapsFor={() => []}
          onPick={pick}
          onMove={(moved) =>
            changeDevice(thing.id, Object.fromEntries(Object.entries(moved).map(([axis, mm]) => [`${axis}_mm`, mm])))
          }
        />
      ) : (
        <circle cx={x} cy={y} r={GRIP_PX / 2} fill="transparent" style={{ cursor: 'pointer' }} onPointerDown={pick}>
          <title>{thing.name}</title>
        </circle>
      )}
    </g>
  )
}

/** What stands in a box, by what it does; drawn in a square of sixteen round its middle. */
const SIGN: Record<string, string> = {
  battery: 'M-5 -3h10v7h-10zM-3 -5h2M1 -5h2M-3 0h2M1 0h2M2 -1v2',
  fuse: 'M-6 0h2M-4 -2h8v4h-8zM4 0h2M-4 0h8',
  relay: 'M-5 1h4v4h-4zM-5 -4h3l5 -2M4 -4h2',
  'cut-off': 'M-6 2h3l6 -5M3 2h3M-2 5l2 -3l2 3z',
  switch: 'M-6 2h3l6 -5M3 2h3',
  'changeover switch': 'M-6 0h3l5 -3M3 -4h3M3 4h3',
  controller: 'M-4 -4h8v8h-8zM-6 -2h2M-6 2h2M4 -2h2M4 2h2',
  connector: 'M-5 -4h4v8h-4zM1 -4h4v8h-4zM-1 0h2',
  splice: 'M-6 0h12M-2 -2l4 4M-2 2l4 -4',
  'earth point': 'M0 -6v6M-5 0h10M-3 3h6M-1 6h2',
  lamp: 'M-5 0a5 5 0 1 0 10 0a5 5 0 1 0 -10 0M-3.5 -3.5l7 7M-3.5 3.5l7 -7',
  'level switch': 'M0 -6v5M-3 -1h6v4h-6zM-6 5c2 -2 4 2 6 0s4 2 6 0',
  gauge: 'M-6 3a6 6 0 0 1 12 0zM0 3l3 -4',
  'other load': 'M-5 -3h10v6h-10z',
  pump: 'M-5 0a5 5 0 1 0 10 0a5 5 0 1 0 -10 0M-2 -3l5 3l-5 3z',
  sender: 'M-3 -6v8M-3 2l7 3M2 4a2 2 0 1 0 4 0a2 2 0 1 0 -4 0',
}

export function DeviceSign({ kind, x, y, colour }: { kind: string; x: number; y: number; colour: string }) {
  return (
    <path
      data-mark
      d={SIGN[kind] ?? ''}
      transform={`translate(${x} ${y})`}
      fill="none"
      stroke={colour}
      strokeWidth={1.2}
      strokeLinejoin="round"
    />
  )
}
