import { Typography } from '@mui/material'
import type { ReactNode } from 'react'
import type { Evaluation } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Block, Board, Sheet, Two } from '../Board'
import { BoreTable, FailureTable, FilterTable, GrowthTable, HeatTable, InletTable, StretchTable } from './LineTables'
import { SpeedTables } from './SpeedTables'
import { AirTable } from './AirTable'
import { HoseTables } from './HoseTables'
import { portName } from './names'
import { OldTable } from './OldTable'
import { RouteTables } from './RouteTables'

export type Shown = NonNullable<Evaluation['lines']>

/** Everything of the line as tables: layouts, pressures by mode, joints, filters, failures, heat, growth. */
export function LinesBoard() {
  const lines = useWork((work) => work.evaluation?.lines)
  if (!lines?.modes) return null
  return (
    <Board label="The line in tables">
      <LayoutTable lines={lines} />
      <PressureTable lines={lines} />
      <StretchTable lines={lines} />
      <InletTable lines={lines} />
      <SpeedTables lines={lines} />
      <AirTable lines={lines} />
      <FailureTable lines={lines} />
      <FilterTable lines={lines} />
      <HeatTable lines={lines} />
      <BoreTable lines={lines} />
      <GrowthTable lines={lines} />
      <JointTable lines={lines} />
      <RouteTables lines={lines} />
      <HoseTables lines={lines} />
      <OldTable lines={lines} />
    </Board>
  )
}

const right = (name: string) => ({ name, right: true })

function LayoutTable({ lines }: { lines: Shown }) {
  const units = useUnits()
  const kpa = (value: number | null | undefined) => (typeof value === 'number' ? units.pressureAmount(value) : '–')
  const per = units.unit('kpa')
  return (
    <Block
      title="Layouts"
      about="Each with this design’s parts, places and demand. Heat at idle; pressure across the injectors (rail less manifold) at idle and at full power; the highest in any hose."
    >
      <Sheet
        label="Layouts"
        width={1200}
        columns={[
          { name: 'Layout', wide: true },
          right('Joints'),
          right('Parts'),
          right(`Hose, ${units.unit('m')}`),
          right('Noise, dB(A)'),
          right('Heat, W'),
          right('Price'),
          right(`Idle, ${per}`),
          right(`Full, ${per}`),
          right(`Highest, ${per}`),
          right('Suffices in'),
        ]}
        rows={(lines.layouts ?? []).map((one) => ({
          key: one.title,
          strong: one.favoured,
          cells: one.stop
            ? [<Two key="why" main={one.title} more={units.say(one.stop)} />, ...Array<string>(10).fill('–')]
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
      ? `${units.pressureAmount(kpa)} · ${units.amount('lph', Math.abs(lph), 0)}`
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
