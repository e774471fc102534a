import { useQuery } from '@tanstack/react-query'
import { useUnits } from '../../units/useUnits'
import { workshopQuery } from '../../workshop/query'
import { Block, Sheet, Two } from '../Board'
import type { Shown } from './LinesBoard'

const right = (name: string) => ({ name, right: true })

/** How fast fuel goes in each run, and what each has to bear. */
export function StretchTable({ lines }: { lines: Shown }) {
  const units = useUnits()
  if (!lines.stretches?.length) return null
  const kpa = (value: number | null | undefined) => (typeof value === 'number' ? units.pressure(value) : 'not known')
  return (
    <Block
      title="Velocity and pressure of each run"
      about="Highest: in any mode, or with everything behind a pump shut."
    >
      <Sheet
        label="Velocity and pressure of each run"
        width={1300}
        columns={[
          { name: 'Run' },
          right('Length'),
          right('Bore'),
          right('Fastest'),
          { name: 'Highest', wide: true },
          right('Rated'),
        ]}
        rows={lines.stretches.map((one) => ({
          key: one.id,
          cells: [
            <Two key="run" main={one.name} more={one.service} />,
            units.lengthUnitText(one.length_mm),
            one.bore_needed_mm === null ? (
              units.cut(one.bore_mm)
            ) : (
              <Two key="bore" main={units.cut(one.bore_mm)} more={`needs ${units.cut(one.bore_needed_mm)}`} />
            ),
            one.limit_ms === null ? (
              '–'
            ) : (
              <Two
                key="fast"
                main={units.quantity('ms', one.fastest_ms)}
                more={`limit ${units.quantity('ms', one.limit_ms)}`}
              />
            ),
            bears(one.service) ? <Two key="high" main={kpa(one.highest_kpa)} more={one.highest_when} /> : '–',
            bears(one.service) ? (
              <Two key="rated" main={kpa(one.rated_kpa)} more={`needs ${kpa(one.rating_needed_kpa)}`} />
            ) : (
              '–'
            ),
          ],
        }))}
      />
    </Block>
  )
}

/** Air and the manifold's vacuum burst nothing. */
const bears = (service: string) => service !== 'air' && service !== 'reference'

/** How far every pump's inlet is from boiling. */
export function InletTable({ lines }: { lines: Shown }) {
  const units = useUnits()
  if (!lines.inlets?.length) return null
  return (
    <Block
      title="Pump inlets against vapour"
      about={`Absolute pressure at the inlet less what the fuel boils at, filters due for a swap, ${units.unit('kpa')}.`}
    >
      <Sheet
        label="Pump inlets against vapour"
        width={1300}
        columns={[
          { name: 'Pump' },
          right('Lift'),
          right('Reid pressure'),
          ...(lines.modes ?? []).map((mode) => right(mode.name)),
          right('Boils from'),
        ]}
        rows={lines.inlets.map((one) => {
          const boils = one.modes.map((mode) => mode.boils_c).filter((celsius) => celsius !== null)
          return {
            key: one.part,
            cells: [
              one.name,
              one.lift_mm <= 0
                ? `flooded, ${units.lengthUnitText(-one.lift_mm)} under`
                : units.lengthUnitText(one.lift_mm),
              [...new Set(one.modes.map((mode) => mode.reid_kpa))].map((kpa) => units.pressure(kpa)).join(', '),
              ...one.modes.map((mode) => (mode.margin_kpa === null ? '–' : units.pressureAmount(mode.margin_kpa))),
              boils.length ? units.quantity('c', Math.min(...boils)) : '–',
            ],
          }
        })}
      />
    </Block>
  )
}

type Failure = NonNullable<Shown['failures']>[number]

/** What the spare brings back, and how it is brought in. */
function withSpare(one: Failure) {
  if (!one.spare) return 'no spare'
  if (!one.with_spare.length) return 'none either'
  const all = [...one.left, ...one.lost].every((mode) => one.with_spare.includes(mode))
  return <Two main={all ? 'all modes' : one.with_spare.join(', ')} more={one.brought_in} />
}

export function FailureTable({ lines }: { lines: Shown }) {
  if (!lines.failures?.length) return null
  return (
    <Block title="When one thing fails" about="A spare counts for nothing until it is brought in.">
      <Sheet
        label="When one thing fails"
        width={1200}
        columns={[
          { name: 'What fails' },
          { name: 'Pumps running' },
          { name: 'Pumps feeding' },
          { name: 'Modes left', wide: true },
          { name: 'With the spare', wide: true },
          right('To replace'),
        ]}
        rows={lines.failures.map((one) => ({
          key: one.out,
          cells: [
            one.out,
            one.running.join(', ') || 'none',
            one.feeding.join(', ') || 'none: it stops everything',
            one.lost.length || !one.left.length ? one.left.join(', ') || 'none' : 'as before',
            withSpare(one),
            one.minutes === null ? 'not known' : `${one.minutes} min${one.tools ? `, ${one.tools}` : ''}`,
          ],
        }))}
      />
    </Block>
  )
}

export function FilterTable({ lines }: { lines: Shown }) {
  const units = useUnits()
  if (!lines.filtration?.length) return null
  return (
    <Block title="Filtration plan">
      <Sheet
        label="Filtration plan"
        width={1200}
        columns={[
          { name: 'Filter' },
          { name: 'Stage' },
          { name: 'Element' },
          right('Fineness'),
          right('Area'),
          right('Most flow'),
          right('Drop clean'),
          right('Drop loaded'),
          right('Swapped after'),
          { name: 'Caught' },
        ]}
        rows={lines.filtration.map((one) => ({
          key: one.part,
          cells: [
            one.name,
            one.stage,
            one.element,
            one.fineness_um === null ? 'not known' : units.quantity('um', one.fineness_um),
            one.area_cm2 === null ? 'not known' : units.quantity('cm2', one.area_cm2, 0),
            units.flowText(one.most_lph, 0),
            units.quantity('kpa', one.clean_kpa),
            units.quantity('kpa', one.loaded_kpa),
            one.swap_hours === null ? 'not said' : `${one.swap_hours} h`,
            one.caught || '–',
          ],
        }))}
      />
    </Block>
  )
}

export function HeatTable({ lines }: { lines: Shown }) {
  const units = useUnits()
  if (!lines.heat?.modes.length) return null
  const unknown = lines.heat.unknown.length
    ? ` Not counted, its current isn’t typed: ${lines.heat.unknown.join(', ')}.`
    : ''
  return (
    <Block
      title={lines.heat.stages.length ? 'Heat into the fuel, and staging' : 'Heat into the fuel'}
      about={`What the pumps draw less what leaves with the engine’s fuel.${unknown}`}
    >
      <Sheet
        label="Heat into the fuel"
        columns={[
          { name: 'Mode' },
          right('Pumps draw'),
          right('Leaves with the fuel'),
          right('Heat'),
          right('Warms a nearly empty tank'),
        ]}
        rows={lines.heat.modes.map((one) => ({
          key: one.mode,
          cells: [
            one.mode,
            `${one.electric_w.toFixed(0)} W`,
            `${one.used_w.toFixed(1)} W`,
            `${one.heat_w.toFixed(0)} W`,
            one.warms_k === null ? '–' : `${units.quantity('k', one.warms_k, 2)} a minute`,
          ],
        }))}
      />
      {lines.heat.stages.length > 0 && (
        <Sheet
          label="Staging"
          columns={[{ name: 'Pump' }, right('Comes on at'), right('Left off until then it saves')]}
          rows={lines.heat.stages.map((one) => ({
            key: one.part,
            cells: [
              one.name,
              one.on_at_lph < 0.05
                ? 'always on'
                : `${units.flowText(one.on_at_lph, 0)} drawn${one.on_at_share === null ? '' : `, ${(100 * one.on_at_share).toFixed(0)} % of full power`}`,
              one.on_at_lph < 0.05 ? '–' : `${one.saves_w.toFixed(0)} W`,
            ],
          }))}
        />
      )}
    </Block>
  )
}

export function BoreTable({ lines }: { lines: Shown }) {
  const units = useUnits()
  if (!lines.narrowest?.length) return null
  return (
    <Block title="Narrowest place of every path" about="Inside bought parts and at formed ends too.">
      <Sheet
        label="Narrowest place of every path"
        width={1200}
        columns={[
          { name: 'From' },
          { name: 'To' },
          { name: 'Narrowest at' },
          right('Bore'),
          { name: 'Tightest for its flow' },
          right('Bore there'),
          right('Needed'),
          right('Most flow'),
          right('Joints'),
        ]}
        rows={lines.narrowest.map((one, n) => ({
          key: String(n),
          cells: [
            one.start,
            one.end,
            one.narrowest.at,
            units.cut(one.narrowest.bore_mm),
            one.tightest.at,
            units.cut(one.tightest.bore_mm),
            one.tightest.needed_mm === null ? '–' : units.cut(one.tightest.needed_mm),
            units.flowText(one.tightest.most_lph, 0),
            one.joints,
          ],
        }))}
      />
    </Block>
  )
}

export function GrowthTable({ lines }: { lines: Shown }) {
  const units = useUnits()
  const currency = useQuery(workshopQuery).data?.settings.prices?.currency ?? ''
  if (!lines.growth?.length) return null
  const price = (value: number | null | undefined) =>
    typeof value === 'number' ? `${value.toFixed(0)} ${currency}`.trim() : 'not known'
  const work = (hours: number | null, money: number | null) =>
    hours === null ? 'not known' : money === null ? `${hours.toFixed(1)} h` : `${hours.toFixed(1)} h, ${price(money)}`
  return (
    <Block
      title="Outgrown by later cases, and what to build in now"
      about="Later: emptied, made gas-free, welded, proved anew. Built in now it costs less if the case is likelier than said."
    >
      <Sheet
        label="Outgrown by later cases"
        width={1300}
        columns={[
          { name: 'Case' },
          { name: 'Part' },
          { name: 'Now' },
          { name: 'Then' },
          right('Its price'),
          { name: 'Build in now' },
          right('Cost now'),
          right('Cost later'),
          right('Pays from'),
        ]}
        rows={lines.growth.map((one) => ({
          key: `${one.case}-${one.part}`,
          cells: [
            one.case,
            one.name,
            units.say(one.now),
            units.say(one.then),
            price(one.part_price),
            ...(one.build_in
              ? [
                  units.say(one.build_in.what),
                  work(one.build_in.now_h, one.build_in.now_price),
                  work(one.build_in.later_h, one.build_in.later_price),
                  one.build_in.pays_from === null
                    ? 'not known'
                    : `${(100 * one.build_in.pays_from).toFixed(0)} % likely`,
                ]
              : ['nothing: outside the tank', '–', 'as now', '–']),
          ],
        }))}
      />
    </Block>
  )
}
