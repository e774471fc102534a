import { useUnits } from '../../units/useUnits'
import { Block, Sheet } from '../Board'
import type { Shown } from './LinesBoard'

const right = (name: string) => ({ name, right: true })

/** The way of the air from every vent that a line is joined to. */
export function AirTable({ lines }: { lines: Shown }) {
  const units = useUnits()
  if (!lines.air?.length) return null
  const kpa = (value: number) => units.quantity('kpa', value, units.inches ? 3 : 2)
  return (
    <Block
      title="Vents to their ends"
      about="Valves behind each other open at their pressures together. Vacuum: in the tank while the pumps draw most."
    >
      <Sheet
        label="Vents to their ends"
        width={1300}
        columns={[
          { name: 'Vent' },
          { name: 'Through', wide: true },
          right('Bore'),
          right('Length'),
          right('Opens outward'),
          right('Opens inward'),
          right('Low loop'),
          right('Vacuum'),
        ]}
        rows={lines.air.map((one) => ({
          key: one.port,
          cells: [
            one.name,
            one.ends ? one.through.join(', ') : [...one.through, 'ends nowhere'].join(', '),
            units.cut(one.bore_mm),
            units.quantity('m', one.length_m),
            kpa(one.out_kpa),
            kpa(one.in_kpa),
            one.low_mm < 1 ? 'none' : units.lengthUnitText(one.low_mm),
            one.vacuum_kpa === null ? '–' : kpa(one.vacuum_kpa),
          ],
        }))}
      />
    </Block>
  )
}
