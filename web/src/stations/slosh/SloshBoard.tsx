import { Alert, Box, Button, Slider, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useRef, useState } from 'react'
import type { RunShown } from '../../api/model'
import { handOver, pictureOf } from '../../plots/picture'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Block, Board, Sheet } from '../Board'
import { play, usePlaying, useRun, useRunning } from './slosh'
import { Search } from './Search'
import { StarvationPlot } from './StarvationPlot'
import { TankFrame } from './TankFrame'
import { TimePlot } from './TimePlot'
import { TimeToDryTable } from './TimeToDryTable'
import { Variants } from './Variants'

/** The tank moving over its lap, and what that does to the pickup. */
export function SloshBoard() {
  useRunning()
  usePlaying()
  const units = useUnits()
  const run = useRun((state) => state.run)
  const problem = useRun((state) => state.problem)
  const map = useRun((state) => state.map)
  const fill = useWork((work) => work.design.slosh.fill)
  return (
    <Board label="Slosh run">
      {problem && (
        <Alert severity={run ? 'warning' : 'info'}>
          {units.inText(problem)}
          {run && ' Shown is the last run that could be made.'}
        </Alert>
      )}
      {!run && !problem && (
        <Typography color="textSecondary">
          Running it. The first run after an update takes some seconds more.
        </Typography>
      )}
      {run?.draw_l_per_h === 0 && (
        <Alert severity="info">
          The engine draws nothing, so nothing can run dry: type what it draws, or its power at Brief.
        </Alert>
      )}
      {run?.notes.map((note) => (
        <Alert key={note.text} severity="info">
          {units.say(note)}
        </Alert>
      ))}
      {run && <Moving run={run} />}
      {run && <Spells run={run} />}
      {run && <Variants />}
      {run && <Search />}
      {run && <TimeToDryTable />}
      {map && (
        <Block
          title="Steady acceleration with the pickup covered"
          about="Out to each line a steady push leaves the pickup covered, at that share of brimful; beyond, it runs dry. The push grows slowly from rest: what has run over a step, a hump or a rim by then counts as gone, a sump stays full to its rim, and plates only buy time."
        >
          <StarvationPlot map={map} fill={fill} />
        </Block>
      )}
    </Board>
  )
}

/** What is in each piece over time; where there are many, in each compartment. */
function held(run: RunShown): { name: string; values: number[] }[] {
  const names = run.rooms.map((room) => (run.rooms.length > MOST_TRACES ? room.body : room.name))
  return [...new Set(names)].map((name) => ({
    name,
    values: run.held_l.map((row) => row.reduce((sum, litres, i) => (names[i] === name ? sum + litres : sum), 0)),
  }))
}

const MOST_TRACES = 9
const SPEEDS = [0.25, 1, 4]

function Moving({ run }: { run: RunShown }) {
  const { inks } = useTheme()
  const units = useUnits()
  const colours = [
    inks.fuel,
    inks.hand,
    inks.metal,
    inks.stop,
    inks.good,
    inks.caution,
    inks.note,
    inks.block,
    inks.quiet,
  ]
  const best = run.depths_mm.map((row) => Math.max(...row))
  const drawn = useRef<HTMLElement>(null)
  const [problem, setProblem] = useState('')
  const picture = async () => {
    setProblem('')
    try {
      if (drawn.current) handOver(await pictureOf(drawn.current, inks.sheet), 'slosh-run.png')
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error))
    }
  }
  return (
    <section ref={drawn}>
      <TankFrame run={run} />
      <Playback end={run.times_s.at(-1) ?? 0} onPicture={() => void picture()} />
      {problem && <Alert severity="error">{problem}</Alert>}
      <Box sx={{ maxWidth: 900 }}>
        <TimePlot
          run={run}
          label="lateral and longitudinal acceleration, g"
          traces={[
            { name: 'forward', values: run.forward_g, colour: inks.metal },
            { name: 'left', values: run.left_g, colour: inks.hand },
          ]}
          showY={(value) => units.number(value, 1)}
        />
        <TimePlot
          run={run}
          label={`pickup depth, ${units.lengthUnit}`}
          traces={[{ name: 'under the surface', values: best, colour: inks.fuel }]}
          limit={0}
          showY={(value) => units.length(value)}
          per={units.mmPer}
        />
        <TimePlot
          run={run}
          label={`in each compartment, ${units.volumeUnit}`}
          traces={held(run).map((trace, i) => ({ ...trace, colour: colours[i % colours.length] ?? inks.ink }))}
          showY={(value) => units.volume(value, 1)}
          per={units.litresPer}
          last={!run.refill}
          height={run.refill ? 96 : 120}
        />
        {run.refill && (
          <TimePlot
            run={run}
            label={`surge tank, ${units.volumeUnit}`}
            traces={[{ name: 'surge', values: run.surge_l, colour: inks.fuel }]}
            limit={0}
            showY={(value) => units.volume(value, 1)}
            per={units.litresPer}
            last
            height={116}
          />
        )}
      </Box>
    </section>
  )
}

/** Start, stop, how fast, and the moment shown. */
function Playback({ end, onPicture }: { end: number; onPicture: () => void }) {
  const units = useUnits()
  const at = useRun((state) => state.at)
  const playing = useRun((state) => state.playing)
  const speed = useRun((state) => state.speed)
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', my: 1, maxWidth: 900 }}>
      <Button variant="contained" onClick={play} sx={{ minWidth: 84 }}>
        {playing ? 'Pause' : 'Play'}
      </Button>
      {SPEEDS.map((value) => (
        <Button
          key={value}
          aria-pressed={speed === value}
          variant={speed === value ? 'outlined' : 'text'}
          onClick={() => useRun.setState({ speed: value })}
          sx={{ minWidth: 48 }}
        >
          {value}×
        </Button>
      ))}
      <Slider
        aria-label="Moment shown"
        value={at}
        min={0}
        max={end}
        step={0.02}
        onChange={(_, value) => useRun.setState({ playing: false, at: value as number })}
        sx={{ ml: 2, minWidth: 80 }}
      />
      <Box sx={{ minWidth: 70, flexShrink: 0, textAlign: 'right', fontVariantNumeric: 'tabular-nums' }}>
        {units.number(at, 2)} s
      </Box>
      <Button onClick={onPicture} sx={{ whiteSpace: 'nowrap', flexShrink: 0 }}>
        Download the picture
      </Button>
    </Box>
  )
}

const LONGEST = 10
const longest = (run: RunShown) => [...run.spells].sort((a, b) => b.seconds - a.seconds).slice(0, LONGEST)

function Spells({ run }: { run: RunShown }) {
  const units = useUnits()
  const go = (at: number) => useRun.setState({ at, playing: false })
  return (
    <Block
      title={
        run.spells.length
          ? `Dry for ${units.number(run.dry_s, 2)} s, in ${run.spells.length} ${run.spells.length === 1 ? 'spell' : 'spells'}`
          : 'Never dry'
      }
      about={units.say(run.limits)}
    >
      {run.spells.length > LONGEST && (
        <Typography variant="body2" sx={{ mt: 1 }}>
          The {LONGEST} longest:
        </Typography>
      )}
      {run.spells.length > 0 && (
        <Sheet
          label="Dry spells"
          width={640}
          columns={[
            { name: 'at', right: true },
            { name: 'for', right: true },
            { name: 'forward', right: true },
            { name: 'left', right: true },
            { name: '' },
          ]}
          rows={longest(run).map((spell, n) => ({
            key: `${n}`,
            cells: [
              `${units.number(spell.start_s, 2)} s`,
              `${units.number(spell.seconds, 2)} s`,
              `${units.number(spell.forward_g, 2)} g`,
              `${units.number(spell.left_g, 2)} g`,
              <Button key="go" onClick={() => go(spell.start_s + spell.seconds / 2)}>
                Show
              </Button>,
            ],
          }))}
        />
      )}
      <Typography variant="body2" sx={{ mt: 1 }} data-sums>
        {units.volumeUnitText(run.start_l)} at the start; {units.volumeUnitText(run.used_l)} used,{' '}
        {units.volumeUnitText(run.missed_l)} not delivered
        {run.moved_l > 0.005 && `, ${units.volumeUnitText(run.moved_l)} moved by the transfer`}
        {run.spilt_l > 0.005 && `, ${units.volumeUnitText(run.spilt_l)} spilt back by the surge tank`}.
      </Typography>
      {run.refill && <KeptUp refill={run.refill} />}
    </Block>
  )
}

function KeptUp({ refill }: { refill: NonNullable<RunShown['refill']> }) {
  const units = useUnits()
  const again =
    refill.full_again_s === null
      ? 'is not full again before the end'
      : `is full again at ${units.number(refill.full_again_s, 1)} s`
  return (
    <Typography variant="body2" data-refill>
      The surge tank falls to {units.volumeUnitText(refill.lowest_l)} at {units.number(refill.lowest_at_s, 1)} s and{' '}
      {again}. The pickup comes out {refill.dips === 1 ? 'once' : `${refill.dips} times`}
      {refill.dips > 1 &&
        (refill.not_full === 0
          ? ', the surge tank full again each time'
          : `; ${refill.not_full} of them before the surge tank is full again`)}
      .
    </Typography>
  )
}
