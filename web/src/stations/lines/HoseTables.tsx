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
  const saidOf = (end: (typeof cut)[number]['ends'][number]) =>
    !end.is_known
      ? 'not known'
      : end.clamped
        ? 'clamped'
        : end.elbow_deg
          ? `${degrees(end.elbow_deg)} elbow`
          : 'straight'
  const elbow = (end: (typeof cut)[number]['ends'][number] | undefined) =>
    end ? (
      <Two
        main={saidOf(end)}
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
      <PushedTable lines={lines} />
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

/** Joints that a hose is pushed on at: how far, on what, where its clamp goes. */
function PushedTable({ lines }: { lines: Shown }) {
  const units = useUnits()
  const found = lines.pushed ?? []
  if (!found.length) return null
  const helped = [...new Set(found.map((one) => `Lubricant: ${one.lubricant}. Warming: ${units.say(one.warming)}.`))]
  return (
    <Block
      title="Pushed on"
      about={`Clamp: where its middle may be, from the hose’s end, behind the bead and never on it. ${helped.join(' ')} The maker’s sheet counts before it.`}
    >
      <Sheet
        label="Pushed on"
        width={1000}
        columns={[
          { name: 'Joint', wide: true },
          { name: 'On' },
          right('How far'),
          { name: 'Bead' },
          right('Clamp'),
          right('Clamp for'),
        ]}
        rows={found.map((one) => ({
          key: `${one.run}-${one.side}`,
          cells: [
            <Two key="joint" main={one.name} more={one.side} />,
            one.on,
            <Two
              key="far"
              main={units.lengthUnitText(one.pushed_mm)}
              more={one.pushed_mm < one.least_mm ? `needs ${units.lengthUnitText(one.least_mm)}` : ''}
            />,
            one.has_bead ? 'there' : one.needs_bead ? 'needed' : 'not needed',
            one.clamp_to_mm < one.clamp_from_mm
              ? 'no room'
              : `${units.lengthUnitText(one.clamp_from_mm)} to ${units.lengthUnitText(one.clamp_to_mm)}`,
            units.lengthUnitText(one.clamp_for_mm),
          ],
        }))}
      />
    </Block>
  )
}
