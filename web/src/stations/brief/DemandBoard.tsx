import type { Schemas } from '../../api/client'
import { Box, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { ReactNode } from 'react'
import type { Demand, Evaluation } from '../../api/model'
import { Plot } from '../../plots/Plot'
import { isNumber } from '../../units/number'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Block, Board } from '../Board'

/** The demand cases side by side with the pumps that feed them; the ways to bridge a dry spell; what later outgrows. */
export function DemandBoard() {
  const evaluation = useWork((work) => work.evaluation)
  const demands = evaluation?.brief?.demands ?? []
  return (
    <Board label="Demand and supply">
      <DemandTable demands={demands} />
      {demands.some((demand) => demand.pumps.length > 0) && <PumpPlot demands={demands} />}
      {evaluation?.brief?.surge && <Methods surge={evaluation.brief?.surge} />}
      {(evaluation?.brief?.outgrown?.length ?? 0) > 0 && <Growth evaluation={evaluation as Evaluation} />}
    </Board>
  )
}

function DemandTable({ demands }: { demands: Demand[] }) {
  const units = useUnits()
  const { inks } = useTheme()
  const flow = (value: number | null | undefined) => (!isNumber(value) ? 'no figure' : units.flowText(value))
  const short = (value: number | null | undefined) =>
    !isNumber(value) ? null : value > 0 ? (
      <strong style={{ color: inks.stop }}>short by {units.flowText(value)}</strong>
    ) : (
      'enough'
    )
  const rows: { name: string; value: (demand: Demand) => ReactNode }[] = [
    { name: 'Fuel flow at full power', value: (d) => <strong>{flow(d.flow_l_per_h)}</strong> },
    {
      name: 'Fuel flow over the BSFC range',
      value: (d) =>
        d.bsfc ? `${units.volume(d.range_l_per_h[0], 1)} to ${units.flowText(d.range_l_per_h[1])}` : 'measured',
    },
    { name: 'Mass flow', value: (d) => units.quantity('kgh', d.mass_kg_per_h) },
    { name: 'Average flow at its duty', value: (d) => flow(d.average_l_per_h) },
    { name: 'Required pump flow', value: (d) => <strong>{flow(d.needed_l_per_h)}</strong> },
    { name: 'Pump flow at rail pressure', value: (d) => (d.pumps.length ? flow(d.running_l_per_h) : 'no pump yet') },
    { name: 'Margin at rail pressure', value: (d) => (d.pumps.length ? short(d.short_l_per_h) : '') },
    {
      name: 'Margin at lowest voltage',
      value: (d) =>
        d.pumps.length ? (!isNumber(d.low_running_l_per_h) ? 'beyond the tables' : short(d.low_short_l_per_h)) : '',
    },
    {
      name: 'Power the pumps can feed',
      value: (d) => (!isNumber(d.carries_kw) ? '' : units.quantity('kw', d.carries_kw)),
    },
    { name: 'Pumps come on', value: (d) => <Staging demand={d} /> },
  ]
  if (!demands.length) {
    return (
      <Block title="What the engine asks for">
        <Typography color="textSecondary" sx={{ maxWidth: '36em', mt: 1 }}>
          Nothing yet. Add the engine’s demand at the right: its power and kind, or what it burns when measured. Then
          fit pumps, and see what they give at rail pressure and real voltage.
        </Typography>
      </Block>
    )
  }
  return (
    <Block title="What the engine asks for, and what the pumps give">
      <Table size="small" sx={{ maxWidth: 220 + 220 * demands.length }} aria-label="Demand cases side by side">
        <TableHead>
          <TableRow>
            <TableCell sx={{ pl: 0 }} />
            {demands.map((demand) => (
              <TableCell key={demand.id}>
                {demand.name}, {demand.fuel}
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.map((row) => (
            <TableRow key={row.name}>
              <TableCell sx={{ pl: 0, color: 'text.secondary', whiteSpace: 'nowrap' }}>{row.name}</TableCell>
              {demands.map((demand) => (
                <TableCell key={demand.id}>{row.value(demand)}</TableCell>
              ))}
            </TableRow>
          ))}
          <TableRow>
            <TableCell sx={{ pl: 0, color: 'text.secondary' }}>Calculation</TableCell>
            {demands.map((demand) => (
              <TableCell key={demand.id} sx={{ fontSize: 12, color: 'text.secondary' }}>
                {units.say(demand.how)}
              </TableCell>
            ))}
          </TableRow>
        </TableBody>
      </Table>
    </Block>
  )
}

function Staging({ demand }: { demand: Demand }) {
  const units = useUnits()
  return demand.pumps.map((pump) => (
    <div key={pump.id}>
      {pump.name}:{' '}
      {pump.spare
        ? 'spare'
        : !isNumber(pump.comes_on_kw)
          ? 'always'
          : pump.comes_on_kw === 0
            ? 'from the start'
            : `at ${units.quantity('kw', pump.comes_on_kw)}`}
    </div>
  ))
}

/** Flow of all running pumps together against pressure, and what each case needs at its own. */
function PumpPlot({ demands }: { demands: Demand[] }) {
  const { inks } = useTheme()
  const units = useUnits()
  const pumps = useWork((work) => work.design.brief.pumps)
  const lines = pumps.flatMap((item) =>
    item.pump.curves.map((curve, place) => ({
      points: curve.points.map((point) => [point.kpa, point.l_per_h] as const),
      colour: item.spare ? inks.block : inks.metal,
      dash: place < item.pump.curves.length - 1 ? '4 4' : undefined,
    })),
  )
  return (
    <Block
      title="Pumps against pressure"
      about="Each pump’s table as it is: straight between its points, nothing beyond them. Dots are what a case needs at its rail pressure, all running pumps together."
    >
      <Plot
        label="Flow of each pump against pressure, with what each case needs"
        width={620}
        height={220}
        lines={lines}
        dots={demands.map((demand) => ({
          at: [caseKpa(demand.id), demand.needed_l_per_h] as const,
          colour: demand.short_l_per_h ? inks.stop : inks.hand,
          label: `${demand.name} needs ${units.flowText(demand.needed_l_per_h, 0)}`,
        }))}
        xText={`pressure over the tank, ${units.unit('kpa')}`}
        yText={units.unit('lph')}
        showX={(value) => units.amount('kpa', value, 0)}
        showY={(value) => units.volume(value, 0)}
        perX={units.per('kpa')}
        perY={units.litresPer}
      />
    </Block>
  )
}

const caseKpa = (id: string) => useWork.getState().design.brief.cases.find((item) => item.id === id)?.rail_kpa ?? 0

function Methods({ surge }: { surge: Schemas['SurgeAnswer'] }) {
  const units = useUnits()
  const { inks } = useTheme()
  return (
    <Block
      title={`Bridging a dry spell: ${units.volumeUnitText(surge.sizing.volume_l)} for ${surge.case}`}
      about="Four ways, with this design’s figures. The figures favour the one with the fewest joints that lasts the spell; the choice is yours. Where fuel parts share the air with people they want a fume-tight metal box."
    >
      <Table size="small" aria-label="Ways to bridge a dry spell" sx={{ maxWidth: 900 }}>
        <TableHead>
          <TableRow>
            <TableCell sx={{ pl: 0 }}>Way</TableCell>
            <TableCell align="right">holds</TableCell>
            <TableCell align="right">lasts</TableCell>
            <TableCell align="right">joints</TableCell>
            <TableCell align="right">metal</TableCell>
            <TableCell>in this design</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {surge.methods.map((way) => (
            <TableRow key={way.name} sx={way.favoured ? { boxShadow: `inset 4px 0 0 ${inks.hand}` } : undefined}>
              <TableCell sx={{ pl: way.favoured ? 1.5 : 0, textDecoration: way.possible ? 'none' : 'line-through' }}>
                {way.name}
                {way.favoured && (
                  <Box sx={{ fontSize: 12, fontWeight: 700, color: inks.hand }}>the figures favour it</Box>
                )}
              </TableCell>
              <TableCell align="right">{way.holds_l ? units.volumeUnitText(way.holds_l) : '–'}</TableCell>
              <TableCell align="right">{way.lasts_s ? `${units.number(way.lasts_s, 1)} s` : '–'}</TableCell>
              <TableCell align="right">{way.joints}</TableCell>
              <TableCell align="right">{way.metal_kg ? units.quantity('kg', way.metal_kg) : '–'}</TableCell>
              <TableCell sx={{ color: 'text.secondary' }}>{units.say(way.why)}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Block>
  )
}

function Growth({ evaluation }: { evaluation: Evaluation }) {
  const units = useUnits()
  return (
    <Block title="What later outgrows, and what is worth building in now">
      <Table size="small" aria-label="What later outgrows" sx={{ maxWidth: 900 }}>
        <TableBody>
          {(evaluation.brief?.outgrown ?? []).map((item) => (
            <TableRow key={item.case + item.part}>
              <TableCell sx={{ pl: 0 }}>
                {item.case}: {item.part}
              </TableCell>
              <TableCell>
                {units.say(item.now)} → {units.say(item.then)}
              </TableCell>
              <TableCell sx={{ color: 'text.secondary' }}>{units.say(item.worth)}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Block>
  )
}
