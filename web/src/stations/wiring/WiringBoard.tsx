import type { WiringShown } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Block, Board, Sheet, Two } from '../Board'
import { DiagramBlock } from './DiagramBlock'
import { BondTable, LampTable, PinTable, StoppingTable } from './MeaningTables'
import { endNamed } from './names'
import { useAmps } from './useAmps'

/** The one-line diagram, then all of the wiring as tables. */
export function WiringBoard() {
  const wiring = useWork((work) => work.evaluation?.wiring)
  if (!wiring?.wired) return null
  return (
    <Board label="Diagram and tables of the wiring">
      <DiagramBlock wiring={wiring} />
      <VoltageTable wiring={wiring} />
      <WireTable wiring={wiring} />
      <LoadTable wiring={wiring} />
      <FuseTable wiring={wiring} />
      <StoppingTable wiring={wiring} />
      <LampTable wiring={wiring} />
      <PinTable wiring={wiring} />
      <BondTable wiring={wiring} />
    </Board>
  )
}

const right = (name: string) => ({ name, right: true })
interface Props {
  wiring: WiringShown
}

function VoltageTable({ wiring }: Props) {
  const units = useUnits()
  const amps = useAmps()
  if (!wiring.voltages?.length) return null
  return (
    <Block
      title="Voltage at the pumps"
      about="In every running mode: what is left behind wires and contacts, and what the pump gives with that. The flow at Lines is counted with it."
    >
      <Sheet
        label="Voltage at the pumps"
        width={1100}
        columns={[
          { name: 'Pump' },
          { name: 'Mode', wide: true },
          right('At the battery'),
          right('At the pump'),
          right('Lost'),
          right('Current'),
          right('Pressure rise'),
          right('Flow'),
        ]}
        rows={wiring.voltages.map((row) => ({
          key: `${row.id}-${row.mode}`,
          cells: [
            row.name,
            row.mode,
            `${row.supply_v.toFixed(1)} V`,
            row.is_on ? (row.at_pump_v === null ? 'no answer' : `${row.at_pump_v.toFixed(2)} V`) : 'off',
            row.at_pump_v === null ? '–' : `${(row.supply_v - row.at_pump_v).toFixed(2)} V`,
            row.is_on ? amps(row.current_a) : '–',
            row.rise_kpa === null ? '–' : units.pressure(row.rise_kpa),
            row.flow_lph === null ? '–' : units.flowText(row.flow_lph, 0),
          ],
        }))}
      />
    </Block>
  )
}

function WireTable({ wiring }: Props) {
  const units = useUnits()
  const amps = useAmps()
  const wires = useWork((work) => work.design.wiring.wires)
  const known = new Map(wiring.wired?.wires.map((one) => [one.id, one]))
  if (!wires.length) return null
  return (
    <Block title={`Wires: ${wires.length}`} about="Size chosen by current, fuse, length and drop where none is typed.">
      <Sheet
        label="Wires"
        width={1300}
        columns={[
          { name: 'Wire' },
          { name: 'From', wide: true },
          { name: 'To', wide: true },
          { name: 'Colour' },
          { name: 'Size' },
          right(`Length, ${units.lengthUnit}`),
          right('Carries'),
          right('Limit'),
          right('Fuse before it'),
          right('Lost, V'),
        ]}
        rows={wires.map((wire) => {
          const one = known.get(wire.id)
          const over = one !== undefined && one.current_a !== null && one.current_a > one.carries_a
          return {
            key: wire.id,
            strong: over,
            cells: [
              wire.name,
              endNamed(wire.start, wiring.runs?.joined),
              endNamed(wire.end, wiring.runs?.joined),
              wire.colour || '–',
              one ? (
                <Two
                  key="size"
                  main={`${one.area_mm2} mm²`}
                  more={one.gauge === null ? 'over every gauge' : `AWG ${one.gauge}`}
                />
              ) : (
                '–'
              ),
              one ? units.length(one.length_mm) : '–',
              one ? amps(one.current_a) : '–',
              one ? amps(one.carries_a) : '–',
              one ? (one.fuse_a === null ? 'none' : amps(one.fuse_a)) : '–',
              one ? one.drop_v.toFixed(3) : '–',
            ],
          }
        })}
      />
    </Block>
  )
}

function LoadTable({ wiring }: Props) {
  const units = useUnits()
  const amps = useAmps()
  const loads = wiring.wired?.loads ?? []
  if (!loads.length) return null
  return (
    <Block title="Loads" about="Resistance of each load’s own way, there and back; what is lost with everything on.">
      <Sheet
        label="Loads"
        width={900}
        columns={[
          { name: 'Load' },
          { name: 'Kind' },
          right('Current'),
          right('Its way'),
          right('Lost'),
          { name: 'Way' },
        ]}
        rows={loads.map((one) => ({
          key: one.key,
          cells: [
            one.name,
            one.kind,
            amps(one.current_a),
            one.loop_ohm === null ? '–' : units.quantity('mohm', one.loop_ohm * 1000),
            one.drop_v === null ? '–' : `${one.drop_v.toFixed(2)} V`,
            one.is_fed && one.is_earthed
              ? 'whole'
              : one.is_fed
                ? 'no return'
                : one.is_earthed
                  ? 'no feed'
                  : 'not joined',
          ],
        }))}
      />
    </Block>
  )
}

function FuseTable({ wiring }: Props) {
  const amps = useAmps()
  const units = useUnits()
  const wired = wiring.wired
  if (!wired || (!wired.fuses.length && !wired.contacts.length)) return null
  return (
    <Block title="Fuses, contacts and pins" about="What flows at most against what each may carry.">
      <Sheet
        label="Fuses, contacts and pins"
        width={800}
        columns={[{ name: 'Device' }, { name: 'Terminal' }, right('Carries'), right('Rating'), { name: 'Rating is' }]}
        rows={[
          ...wired.fuses.map((one) => ({
            key: `fuse-${one.id}`,
            cells: [
              one.name,
              'fuse',
              amps(one.current_a),
              one.rating_a === null ? 'none chosen' : units.quantity('a', one.rating_a, 1),
              one.is_chosen ? 'chosen by what flows' : 'typed',
            ],
          })),
          ...wired.contacts
            .filter((one) => one.current_a > 0)
            .map((one) => ({
              key: `${one.id}-${one.terminal}`,
              strong: one.current_a > one.rating_a,
              cells: [
                one.name,
                one.kind === 'connector' ? `pin ${one.terminal}` : one.terminal,
                amps(one.current_a),
                amps(one.rating_a),
                'typed',
              ],
            })),
        ]}
      />
    </Block>
  )
}
