import { Typography } from '@mui/material'
import type { ReactNode } from 'react'
import type { Evaluation } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Block, Board, Sheet } from '../Board'
import { portName } from './names'

type Shown = NonNullable<Evaluation['lines']>

/** Everything of the line as tables: layouts, pressures by mode, joints, filters, failures, heat, growth. */
export function LinesBoard() {
  const lines = useWork((work) => work.evaluation?.lines)
  if (!lines?.modes) return null
  return (
    <Board label="The line in tables">
      <LayoutTable lines={lines} />
      <PressureTable lines={lines} />
      <FailureTable lines={lines} />
      <FilterTable lines={lines} />
      <HeatTable lines={lines} />
      <BoreTable lines={lines} />
      <GrowthTable lines={lines} />
      <JointTable lines={lines} />
    </Board>
  )
}

const right = (name: string) => ({ name, right: true })

function LayoutTable({ lines }: { lines: Shown }) {
  const units = useUnits()
  const kpa = (value: number | null | undefined) => (typeof value === 'number' ? units.amount('kpa', value, 0) : '–')
  const per = units.unit('kpa')
  return (
    <Block
      title="Layouts"
      about="Each with this design’s parts, places and demand. Across the injectors: pressure at the rail less the manifold’s."
    >
      <Sheet
        label="Layouts"
        width={1200}
        columns={[
          { name: 'Layout' },
          right('Joints'),
          right('Parts'),
          right(`Hose, ${units.unit('m')}`),
          right('Noise, dB(A)'),
          right('Heat at idle, W'),
          right('Price of parts'),
          right(`Across at idle, ${per}`),
          right(`At full power, ${per}`),
          right(`Highest, ${per}`),
          right('Modes it suffices in'),
        ]}
        rows={(lines.layouts ?? []).map((one) => ({
          key: one.title,
          strong: one.favoured,
          cells: one.stop
            ? [`${one.title}. ${units.say(one.stop)}`, ...Array<string>(10).fill('–')]
            : [
                one.title,
                one.joints,
                one.parts,
                units.amount('m', one.metres, 1),
                one.noise_db === null ? '–' : one.noise_db.toFixed(0),
                one.heat_w.toFixed(0),
                one.price === null ? '–' : one.price.toFixed(0),
                kpa(one.idle_kpa),
                kpa(one.full_kpa),
                kpa(one.highest_kpa),
                `${one.modes - one.failing.length} of ${one.modes}`,
              ],
        }))}
      />
    </Block>
  )
}

function PressureTable({ lines }: { lines: Shown }) {
  const units = useUnits()
  const runs = useWork((work) => work.design.lines.runs)
  const modes = lines.modes ?? []
  const cell = (kpa: number | null | undefined, lph: number | null | undefined): ReactNode =>
    typeof kpa === 'number' && typeof lph === 'number'
      ? `${units.amount('kpa', kpa, 0)} · ${units.amount('lph', Math.abs(lph), 0)}`
      : 'no answer'
  if (!lines.flows?.runs.length) return null
  return (
    <Block
      title="Pressure and flow in every mode"
      about={`At each run’s start, filters clean: ${units.unit('kpa')} · ${units.unit('lph')}`}
    >
      <Sheet
        label="Pressure and flow in every mode"
        width={1400}
        columns={[{ name: 'Run' }, ...modes.map((mode) => right(mode.name)), right('Shut, or highest')]}
        rows={lines.flows.runs.map((run) => ({
          key: run.id,
          cells: [
            runs.find((one) => one.id === run.id)?.name ?? run.id,
            ...modes.map((_, n) => cell(run.start_kpa[n], run.flow_lph[n])),
            units.quantity('kpa', lines.stretches?.find((one) => one.id === run.id)?.highest_kpa ?? 0, 0),
          ],
        }))}
      />
    </Block>
  )
}

function FailureTable({ lines }: { lines: Shown }) {
  if (!lines.failures?.length) return null
  return (
    <Block title="When one thing fails" about="A spare counts for nothing until it is brought in.">
      <Sheet
        label="When one thing fails"
        width={1200}
        columns={[{ name: 'What fails' }, { name: 'Still runs' }, { name: 'With the spare' }, right('To replace')]}
        rows={lines.failures.map((one) => ({
          key: one.out,
          cells: [
            one.out,
            one.lost.length ? one.left.join(', ') || 'nothing' : 'everything',
            one.spare
              ? `${one.with_spare.length ? one.with_spare.join(', ') : 'nothing either'}${one.brought_in ? `: ${one.brought_in}` : ''}`
              : 'none',
            one.minutes === null ? 'not known' : `${one.minutes} min${one.tools ? `, ${one.tools}` : ''}`,
          ],
        }))}
      />
    </Block>
  )
}

function FilterTable({ lines }: { lines: Shown }) {
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

function HeatTable({ lines }: { lines: Shown }) {
  const units = useUnits()
  if (!lines.heat?.modes.length) return null
  const unknown = lines.heat.unknown.length
    ? ` Not counted, its current isn’t typed: ${lines.heat.unknown.join(', ')}.`
    : ''
  return (
    <Block
      title="Heat into the fuel, and staging"
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
            `${one.saves_w.toFixed(0)} W`,
          ],
        }))}
      />
    </Block>
  )
}

function BoreTable({ lines }: { lines: Shown }) {
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
          right('Needed'),
          right('Most flow'),
          right('Joints'),
        ]}
        rows={lines.narrowest.map((one, n) => ({
          key: String(n),
          cells: [
            one.start,
            one.end,
            one.at,
            units.cut(one.bore_mm),
            one.needed_mm === null ? '–' : units.cut(one.needed_mm),
            units.flowText(one.most_lph, 0),
            one.joints,
          ],
        }))}
      />
    </Block>
  )
}

function GrowthTable({ lines }: { lines: Shown }) {
  const units = useUnits()
  if (!lines.growth?.length) return null
  return (
    <Block title="Outgrown by later cases">
      <Sheet
        label="Outgrown by later cases"
        width={1200}
        columns={[
          { name: 'Case' },
          { name: 'Part' },
          { name: 'Now' },
          { name: 'Then' },
          right('Part later'),
          { name: 'Worth building in now' },
        ]}
        rows={lines.growth.map((one) => ({
          key: `${one.case}-${one.part}`,
          cells: [
            one.case,
            one.name,
            units.say(one.now),
            units.say(one.then),
            one.later === null ? 'not known' : one.later.toFixed(0),
            units.say(one.worth),
          ],
        }))}
      />
    </Block>
  )
}

function JointTable({ lines }: { lines: Shown }) {
  const units = useUnits()
  const joints = lines.joints ?? []
  if (!joints.length)
    return <Typography variant="body2">No hose is drawn yet: press a layout, or join two parts.</Typography>
  return (
    <Block title={`Joints: ${joints.length}`}>
      <Sheet
        label="Joints"
        width={1200}
        columns={[
          { name: 'Run' },
          { name: 'At' },
          { name: 'Part’s side' },
          { name: 'Line’s side' },
          { name: 'Sealed by' },
          { name: 'Adapter' },
          { name: 'Fits' },
        ]}
        rows={joints.map((one) => ({
          key: `${one.run}-${one.side}`,
          cells: [
            one.run_name,
            `${one.part_name}, ${portName(one.port)}`,
            one.part_side || 'not known',
            one.line_side || 'not known',
            one.seal || '–',
            one.adapter || '–',
            one.why ? units.say(one.why) : one.part_side ? 'yes' : 'not known',
          ],
        }))}
      />
    </Block>
  )
}
