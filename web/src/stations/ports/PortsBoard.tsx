import type { Schemas } from '../../api/client'
import { Box, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { Evaluation, FillRun } from '../../api/model'
import { Plot } from '../../plots/Plot'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Block, Board, Sheet } from '../Board'
import { RunText } from './FillingFields'

/** What the ports reach, clear and land on; what they leave and trap; how it fills. */
export function PortsBoard() {
  const evaluation = useWork((work) => work.evaluation)
  const attitudes = useInAttitudes()
  if (!evaluation?.shell?.geometry) return null
  return (
    <Board label="Ports in figures">
      <Reaches evaluation={evaluation} />
      {attitudes.length > 0 && <Attitudes rows={attitudes} />}
      <Fits evaluation={evaluation} />
      {Object.entries(evaluation.ports?.fill_runs ?? {}).map(([cell, run]) => (
        <Filling key={cell} cell={cell} run={run} alone={Object.keys(evaluation.ports?.fill_runs ?? {}).length === 1} />
      ))}
      <Schedule />
    </Board>
  )
}

/** The core looks into attitudes when a change has come to rest; until then the last ones aren't shown as true. */
const NONE: Schemas['Unreached'][] = []
const useInAttitudes = () => useWork((work) => work.evaluation?.ports?.in_attitudes ?? NONE)

function Reaches({ evaluation }: { evaluation: Evaluation }) {
  const units = useUnits()
  const { inks } = useTheme()
  const reaches = evaluation.ports?.reaches ?? []
  if (!reaches.length) {
    return (
      <Block title="Reach">
        <Typography color="textSecondary">
          No hanger yet. At a pickup, say that it hangs from a flange and what depth it is made for.
        </Typography>
      </Block>
    )
  }
  return (
    <Block
      title="Reach, and what to cut"
      about="Depth from the seat to the highest floor under the hanger’s foot. Before a cut that can’t be undone, measure again by another way: both have to agree."
    >
      {reaches.map((reach) => (
        <Box key={reach.id} sx={{ mt: 1.5 }} data-cut-sheet={reach.id}>
          <Typography sx={{ fontWeight: 650 }}>
            {reach.name}: {units.lengthUnitText(reach.depth_mm)} deep, made for{' '}
            {units.lengthUnitText(reach.made_for_mm)},{' '}
            <span style={{ color: reach.short_mm > 0.05 ? inks.stop : undefined }}>
              {reach.short_mm > 0.05
                ? `${units.lengthUnitText(reach.short_mm)} too short`
                : reach.short_mm < -0.05
                  ? `${units.lengthUnitText(-reach.short_mm)} to cut off`
                  : 'fits as it is'}
            </span>
          </Typography>
          <Sheet
            label={`Cut sheet of ${reach.name}`}
            columns={[
              { name: 'In this order' },
              { name: `length, ${units.lengthUnit}`, right: true },
              { name: 'how' },
              { name: 'second measurement' },
            ]}
            rows={reach.steps.map((step, place) => ({
              key: `${place}`,
              cells: [
                `${place + 1}. ${step.what}`,
                step.length_mm === null ? '–' : <strong key="mm">{units.length(step.length_mm)}</strong>,
                units.say(step.how),
                step.undone ? (
                  ''
                ) : reach.agrees === null ? (
                  <strong key="ask" style={{ color: inks.stop }}>
                    measure again first
                  </strong>
                ) : reach.agrees ? (
                  `${units.lengthUnitText(reach.second_mm ?? 0)}: agrees`
                ) : (
                  <strong key="no" style={{ color: inks.stop }}>
                    {units.lengthUnitText(reach.second_mm ?? 0)}: doesn’t agree, don’t cut
                  </strong>
                ),
              ],
            }))}
          />
        </Box>
      ))}
    </Block>
  )
}

function Attitudes({ rows }: { rows: Schemas['Unreached'][] }) {
  const units = useUnits()
  const litres = (value: number | null) => (value === null ? '–' : units.volumeUnitText(value))
  return (
    <Block
      title="Left behind and trapped"
      about="With all pickups drawing from brimful, and with all vents while filling. Slopes of 8°, turns of 0.5 g, held. The needle is what it says with that much left, back on the level: a margin the driver can see."
    >
      <Sheet
        label="Left behind and trapped by attitude"
        width={640}
        columns={[
          { name: 'Attitude' },
          { name: 'can’t be drawn', right: true },
          { name: 'needle then, eighths', right: true },
          { name: 'air that can’t get out', right: true },
        ]}
        rows={rows.map((row) => ({
          key: row.attitude,
          cells: [
            row.attitude,
            litres(row.stranded_l),
            row.needle === null ? '–' : units.number(row.needle * 8, 1),
            litres(row.trapped_l),
          ],
        }))}
      />
    </Block>
  )
}

function Fits({ evaluation }: { evaluation: Evaluation }) {
  const units = useUnits()
  const { inks } = useTheme()
  const ports = useWork((work) => work.design.ports)
  const no = (text: string) => <strong style={{ color: inks.stop }}>{text}</strong>
  const rows = ports.flatMap((port) => {
    const hangs = evaluation.ports?.hung?.find((item) => item.id === port.id)
    const lands = evaluation.ports?.landings?.find((item) => item.id === port.id)
    if (!hangs && !lands) return []
    const room =
      lands &&
      Math.min(lands.flat_mm, lands.seam_mm === null ? Infinity : lands.seam_mm + (port.seat?.outer_mm ?? 0) / 2)
    return {
      key: port.id,
      cells: [
        port.name,
        !hangs
          ? '–'
          : hangs.passes === null
            ? 'sizes missing'
            : hangs.passes
              ? `${units.length(hangs.widest_mm)} through ${units.lengthUnitText(hangs.hole_mm ?? 0)}`
              : no(`${units.length(hangs.widest_mm)} doesn’t pass ${units.lengthUnitText(hangs.hole_mm ?? 0)}`),
        !hangs ? '–' : hangs.meets.length ? no(`meets ${hangs.meets.join(', ')}`) : 'clear',
        !lands
          ? '–'
          : !lands.on_sheet
            ? no('no sheet there')
            : room !== undefined && room < lands.needed_mm
              ? no(`flat for ${units.length(room)} of ${units.lengthUnitText(lands.needed_mm)}`)
              : `flat for ${units.lengthUnitText(lands.needed_mm)} round it`,
      ],
    }
  })
  if (!rows.length) return null
  return (
    <Block title="Goes in, clears, lands" about="Weld seats before any lining goes in: heat spoils it.">
      <Sheet
        label="Through the hole, clear inside, on flat sheet"
        columns={[{ name: 'Port' }, { name: 'through its hole' }, { name: 'inside' }, { name: 'lands on' }]}
        rows={rows}
      />
    </Block>
  )
}

function Filling({ cell, run, alone }: { cell: string; run: FillRun; alone: boolean }) {
  const units = useUnits()
  const { inks } = useTheme()
  const minutes = run.seconds > 180
  const time = (seconds: number) => (minutes ? seconds / 60 : seconds)
  return (
    <Block title={alone ? 'Filling and drawing' : `Filling and drawing, ${cell}`}>
      <Typography variant="body2" sx={{ maxWidth: '64em' }}>
        <RunText run={run} />
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fit, minmax(min(320px, 100%), 1fr))',
          maxWidth: 900,
          gap: 2,
          mt: 1,
        }}
      >
        <Plot
          label="Level while filling"
          lines={[
            { points: run.points.map((point) => [time(point.seconds), point.level_mm] as const), colour: inks.fuel },
          ]}
          xText={minutes ? 'min' : 's'}
          yText={`level, ${units.lengthUnit}`}
          showX={(value) => units.number(value, 1)}
          showY={(value) => units.length(value)}
          perY={units.mmPer}
        />
        <Plot
          label="Back pressure while filling"
          lines={[
            { points: run.points.map((point) => [time(point.seconds), point.tank_kpa] as const), colour: inks.hand },
          ]}
          xText={minutes ? 'min' : 's'}
          yText={`back pressure, ${units.unit('kpa')}`}
          showX={(value) => units.number(value, 1)}
          showY={(value) => units.amount('kpa', value, 2)}
          perY={units.per('kpa')}
        />
      </Box>
      <Sheet
        label="Other sizes"
        width={480}
        columns={[{ name: 'With a' }, { name: 'full in', right: true }]}
        rows={run.others.map((other) => ({
          key: other.what + other.size,
          cells: [
            other.what.endsWith('valves')
              ? `${other.what} opening at ${units.quantity('kpa', other.size)}`
              : `${units.lengthUnitText(other.size)} ${other.what}`,
            `${units.number(other.seconds, 0)} s`,
          ],
        }))}
      />
    </Block>
  )
}

function Schedule() {
  const units = useUnits()
  const ports = useWork((work) => work.design.ports)
  return (
    <Block title="Port schedule">
      <Sheet
        label="Port schedule"
        columns={[
          { name: 'Port' },
          { name: 'is a' },
          { name: 'face' },
          { name: `from rear, ${units.lengthUnit}`, right: true },
          { name: 'from right', right: true },
          { name: 'hole', right: true },
          { name: 'seat' },
          { name: 'part' },
        ]}
        rows={ports.map((port) => ({
          key: port.id,
          cells: [
            port.name,
            port.role + (port.capped ? ', capped' : ''),
            port.face,
            units.length(port.x_mm),
            units.length(port.y_mm),
            port.seat ? units.length(port.seat.hole_mm) : '–',
            port.seat
              ? `${port.seat.kind} ${units.length(port.seat.outer_mm)}${port.seat.bolts ? `, ${port.seat.bolts} bolts` : ''}${port.seat.thread ? `, ${port.seat.thread}` : ''}`
              : 'none yet',
            port.part || '–',
          ],
        }))}
      />
    </Block>
  )
}
