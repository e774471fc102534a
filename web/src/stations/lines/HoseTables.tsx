import { useUnits } from '../../units/useUnits'
import { Block, Sheet, Two } from '../Board'
import type { Shown } from './LinesBoard'
import { portName } from './names'

const right = (name: string) => ({ name, right: true })

/** Hoses as they are cut, and what of each kind to buy. */
export function HoseTables({ lines }: { lines: Shown }) {
  const units = useUnits()
  const { cut, buy } = lines.hoses ?? { cut: [], buy: [] }
  if (!cut.length) return null
  const degrees = (value: number) => `${value.toFixed(0)}°`.replace('-', '−')
  const elbow = (end: (typeof cut)[number]['ends'][number] | undefined) =>
    end ? (
      <Two
        main={end.elbow_deg ? `${degrees(end.elbow_deg)} elbow` : 'straight'}
        more={`${portName(end.port)}, turns ${degrees(end.turns_deg)}, takes ${units.lengthUnitText(end.takes_mm)}`}
      />
    ) : (
      '–'
    )
  return (
    <>
      <Block
        title="Hoses to cut"
        about="Way and 3 % slack, half of what its ends move, less what the ends take up. Clocking: the last elbow against the first, looking along the hose, clockwise."
      >
        <Sheet
          label="Hoses to cut"
          width={1300}
          columns={[
            { name: 'Hose' },
            right('Way'),
            right('Cut'),
            { name: 'First end' },
            { name: 'Last end' },
            right('Clocking'),
            right('Bends'),
          ]}
          rows={cut.map((one) => ({
            key: one.id,
            cells: [
              <Two key="name" main={one.name} more={`${one.stock || one.hose}, bore ${units.cut(one.bore_mm)}`} />,
              units.lengthUnitText(one.route_mm),
              units.lengthUnitText(one.cut_mm),
              elbow(one.ends[0]),
              elbow(one.ends[1]),
              one.clocking_deg === null ? '–' : degrees(one.clocking_deg),
              <Two
                key="bends"
                main={units.lengthUnitText(one.radius_mm)}
                more={`least ${units.lengthUnitText(one.least_radius_mm)}${one.is_carded ? '' : ', usual'}`}
              />,
            ],
          }))}
        />
      </Block>
      <Block title="Hose to buy">
        <Sheet
          label="Hose to buy"
          columns={[{ name: 'Hose' }, right('Bore'), right('Pieces'), right('Together'), right('Price')]}
          rows={buy.map((one) => ({
            key: `${one.name}-${one.bore_mm}`,
            cells: [
              one.name,
              units.cut(one.bore_mm),
              one.pieces,
              units.quantity('m', one.metres),
              one.price === null ? 'not known' : one.price.toFixed(0),
            ],
          }))}
        />
      </Block>
    </>
  )
}
