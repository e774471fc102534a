import type { LineComponent, Pump, PortPart, SenderPart } from '../api/model'
import { useUnits } from '../units/useUnits'
import { Library } from './Library'

interface Props<T> {
  items: T[]
  disabled: boolean
  onChange: (items: T[]) => void
}

export function PumpLibrary(props: Props<Pump>) {
  const units = useUnits()
  return (
    <Library
      what="pumps"
      {...props}
      columns={[
        { name: 'Location', cell: (pump) => pump.stands },
        {
          name: 'Flow',
          cell: (pump) =>
            pump.curves.map((curve) => {
              const last = curve.points.at(-1)
              return (
                <div
                  key={curve.voltage_v}
                >{`${curve.voltage_v} V: ${units.flowText(curve.points[0]?.l_per_h ?? 0, 0)} free, ${units.flowText(last?.l_per_h ?? 0, 0)} at ${units.quantity('kpa', last?.kpa ?? 0)}`}</div>
              )
            }),
        },
        { name: 'Outlet', cell: (pump) => pump.outlet || '–' },
        { name: 'Fuels', cell: (pump) => pump.fuels.join(', ') || 'any' },
      ]}
    />
  )
}

export function PartLibrary(props: Props<PortPart>) {
  const units = useUnits()
  return (
    <Library
      what="parts"
      {...props}
      columns={[
        { name: 'For a', cell: (part) => part.role },
        { name: 'Hole', cell: (part) => (part.seat ? units.lengthUnitText(part.seat.hole_mm) : '–') },
        {
          name: 'Seat',
          cell: (part) =>
            part.seat
              ? `${part.seat.kind} ${units.lengthUnitText(part.seat.outer_mm)}${part.seat.bolts ? `, ${part.seat.bolts} bolts` : ''}`
              : '–',
        },
        { name: 'Design depth', cell: (part) => (part.hanger ? units.lengthUnitText(part.hanger.made_for_mm) : '–') },
        {
          name: 'Insertion diagonal',
          cell: (part) => (part.diagonal_mm ? units.lengthUnitText(part.diagonal_mm) : '–'),
        },
      ]}
    />
  )
}

export function SenderLibrary(props: Props<SenderPart>) {
  const units = useUnits()
  return (
    <Library
      what="senders"
      {...props}
      columns={[
        { name: 'Sensing principle', cell: (part) => part.action.kind },
        {
          name: 'Arm',
          cell: (part) => (part.action.kind === 'swing arm' ? units.lengthUnitText(part.action.made_arm_mm) : '–'),
        },
        { name: 'Empty to full', cell: (part) => `${part.ohms_empty} to ${part.ohms_full} Ω` },
      ]}
    />
  )
}

export function LineLibrary(props: Props<LineComponent>) {
  const units = useUnits()
  return (
    <Library
      what="line_parts"
      {...props}
      columns={[
        { name: 'Kind', cell: (part) => part.does.kind },
        {
          name: 'Connections',
          cell: (part) => part.connections.map((one) => `${one.id} ${one.standard} ${one.size} ${one.hand}`).join(', '),
        },
        {
          name: 'Rated pressure',
          cell: (part) => (typeof part.rated_kpa === 'number' ? units.quantity('kpa', part.rated_kpa, 0) : '–'),
        },
      ]}
    />
  )
}
