import type { WiringShown } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { Block, Sheet } from '../Board'
import { useAmps } from './useAmps'

const right = (name: string) => ({ name, right: true })
interface Props {
  wiring: WiringShown
}

export function StoppingTable({ wiring }: Props) {
  const supplies = new Map(wiring.supplies?.map((one) => [one.id, one]))
  if (!wiring.stoppings?.length) return null
  return (
    <Block
      title="What stops the pumps"
      about="Everything that a pump’s current, or its relay’s, has to come through stops it alone."
    >
      <Sheet
        label="What stops the pumps"
        width={1200}
        columns={[
          { name: 'Pump' },
          { name: 'In a crash', wide: true },
          { name: 'When the engine stands', wide: true },
          { name: 'Before the engine runs', wide: true },
          { name: 'Any of these out', wide: true },
        ]}
        rows={wiring.stoppings.map((one) => ({
          key: one.id,
          strong: !one.in_crash.length && !one.without_engine.length,
          cells: [
            one.name,
            one.in_crash.join(', ') || 'nothing',
            [...one.without_engine, ...one.by_controller].join(', ') || 'nothing',
            one.primes.join(', ') || (one.without_engine.length ? 'not said' : 'as the ignition does'),
            supplies
              .get(one.id)
              ?.through.map((link) => link.name)
              .join(', ') ?? '',
          ],
        }))}
      />
    </Block>
  )
}

export function LampTable({ wiring }: Props) {
  const units = useUnits()
  if (!wiring.lamps?.length) return null
  return (
    <Block title="Which lamp means what">
      <Sheet
        label="Which lamp means what"
        width={1100}
        columns={[
          { name: 'Lamp' },
          { name: 'Lit means', wide: true },
          { name: 'Switched by', wide: true },
          right('Fuel left then'),
        ]}
        rows={wiring.lamps.map((lamp) => ({
          key: lamp.id,
          cells: [
            lamp.name,
            lamp.means || 'not said',
            lamp.is_whole
              ? [
                  ...lamp.by.map((level) => `${level.name} in ${level.tank}, ${level.closes}`),
                  ...(lamp.by.length ? [] : lamp.others),
                ].join('; ') || 'nothing: always lit'
              : 'its way isn’t whole',
            lamp.by
              .map((level) => (level.left_l === null ? 'not known' : units.volumeUnitText(level.left_l, 1)))
              .join('; ') || '–',
          ],
        }))}
      />
    </Block>
  )
}

export function PinTable({ wiring }: Props) {
  const units = useUnits()
  const amps = useAmps()
  const pins = wiring.pins ?? []
  if (!pins.length) return null
  return (
    <Block title="Wires and pins" about="Every terminal with its wires: as printed for whoever does the wiring.">
      <Sheet
        label="Wires and pins"
        width={1200}
        columns={[
          { name: 'At' },
          { name: 'Terminal' },
          { name: 'Wires' },
          { name: 'To', wide: true },
          { name: 'Feeds', wide: true },
          right('Carries'),
        ]}
        rows={pins.map((pin) => ({
          key: `${pin.of}-${pin.id}-${pin.terminal}`,
          cells: [
            pin.name,
            pin.kind === 'connector' ? `pin ${pin.terminal}` : pin.terminal,
            pin.wires
              .map((wire) => [wire.name, wire.colour, units.wire(wire.area_mm2)].filter(Boolean).join(' '))
              .join('; ') || 'open',
            pin.wires.map((wire) => wire.other).join('; '),
            pin.feeds.join(', '),
            pin.wires.length ? amps(pin.current_a) : '–',
          ],
        }))}
      />
    </Block>
  )
}

export function BondTable({ wiring }: Props) {
  const pieces = wiring.bonding?.pieces.filter((piece) => piece.metal !== 'chassis') ?? []
  if (!pieces.length) return null
  return (
    <Block title="Bonds" about="From filler to tank to chassis, past every rubber; the readings are logged at Build.">
      <Sheet
        label="Bonds"
        width={800}
        columns={[{ name: 'Metal' }, { name: 'Behind', wide: true }, { name: 'To the chassis' }]}
        rows={pieces.map((piece) => ({
          key: piece.key,
          strong: !piece.joined && piece.metal !== 'part',
          cells: [
            piece.name,
            piece.behind,
            piece.by_word ? 'bonded, as its port says' : piece.joined ? 'bonded' : 'not bonded',
          ],
        }))}
      />
    </Block>
  )
}
