import { useUnits } from '../../units/useUnits'
import { Block, Sheet, Two } from '../Board'
import type { Shown } from './LinesBoard'

const right = (name: string) => ({ name, right: true })
const DANGERS = ['heat', 'moves', 'edge', 'metal', 'line', 'tank'] as const
type Danger = (typeof DANGERS)[number]
const SAID: Record<Danger, string> = {
  heat: 'Hot',
  moves: 'Moving',
  edge: 'Edge',
  metal: 'Metal',
  line: 'Line',
  tank: 'Tank',
}

/** Where every run lies: what it is nearest to of each kind, where it goes through sheet, how it is held. */
export function RouteTables({ lines }: { lines: Shown }) {
  return (
    <>
      <Nearest lines={lines} />
      <Crossings lines={lines} />
      <ThroughWays lines={lines} />
      <BoardWays lines={lines} />
      <Held lines={lines} />
    </>
  )
}

function Nearest({ lines }: { lines: Shown }) {
  const units = useUnits()
  const gaps = lines.route_gaps ?? []
  const named = new Map(gaps.map((gap) => [gap.run, gap.name]))
  if (!named.size) return null
  const cell = (run: string, danger: Danger) => {
    const near = gaps.filter((gap) => gap.run === run && gap.danger === danger)
    const gap = near.sort((a, b) => a.gap_mm - a.needed_mm - (b.gap_mm - b.needed_mm))[0]
    if (!gap) return '–'
    const beside = gap.beside_name.replace(/^edge of /, '')
    const short = gap.gap_mm < gap.needed_mm
    return (
      <Two
        key={danger}
        main={gap.gap_mm < 0 ? 'in it' : units.lengthUnitText(gap.gap_mm)}
        more={short ? `${beside}, needs ${units.lengthUnitText(gap.needed_mm)}` : beside}
      />
    )
  }
  return (
    <Block
      title="Neighbours of each run"
      about="The nearest of each kind, surface to surface; what is far away is left out."
    >
      <Sheet
        label="Neighbours of each run"
        width={1100}
        columns={[{ name: 'Run' }, ...DANGERS.map((danger) => ({ name: SAID[danger] }))]}
        rows={[...named].map(([run, name]) => ({
          key: run,
          cells: [name, ...DANGERS.map((danger) => cell(run, danger))],
        }))}
      />
    </Block>
  )
}

function Crossings({ lines }: { lines: Shown }) {
  const units = useUnits()
  const through = lines.crossings ?? []
  if (!through.length) return null
  return (
    <Block title="Through sheet">
      <Sheet
        label="Through sheet"
        width={1000}
        columns={[
          { name: 'Run', wide: true },
          { name: 'Sheet' },
          { name: 'By' },
          right('Hole'),
          right('Needs'),
          right('To its edge'),
          right('Off square'),
        ]}
        rows={through.map((one) => ({
          key: `${one.id}-${one.panel}-${one.along_mm}`,
          cells: [
            one.name,
            one.hole ? `${one.panel_name}, ${one.hole}` : one.panel_name,
            one.way ?? 'no hole',
            one.way ? units.lengthUnitText(one.hole_mm) : '–',
            units.lengthUnitText(one.needed_mm),
            one.way ? units.lengthUnitText(one.edge_mm) : '–',
            `${one.off_square_deg.toFixed(0)}°`,
          ],
        }))}
      />
    </Block>
  )
}

function Held({ lines }: { lines: Shown }) {
  const units = useUnits()
  const clamps = lines.clamps ?? []
  if (!clamps.length) return null
  return (
    <Block
      title={`Clamps: ${clamps.length}`}
      about="Along each run from its start, evenly, no further apart than the house rule."
    >
      <Sheet
        label="Clamps"
        width={900}
        columns={[{ name: 'Run', wide: true }, right('At'), right('For'), { name: 'Fixed to' }, right('Off it')]}
        rows={clamps.map((one) => ({
          key: `${one.run}-${one.along_mm}`,
          cells: [
            one.name,
            units.lengthUnitText(one.along_mm),
            units.lengthUnitText(one.outside_mm),
            one.fixed_to || 'nothing in reach: a bracket',
            one.fixed_to ? units.lengthUnitText(one.off_mm) : '–',
          ],
        }))}
      />
    </Block>
  )
}

/** Grommets, bulkhead fittings, one board: for all lines through a sheet. */
function ThroughWays({ lines }: { lines: Shown }) {
  const units = useUnits()
  const found = lines.through ?? []
  if (!found.length) return null
  return (
    <Block
      title="Ways through each sheet"
      about="For all lines that go through it. Needs, has: straight off the sheet for a fitting and a hose end, on the narrower side. Gives: how far the ends of the tightest hose come apart before it is tight. Seen: share of the ways that an eye may look, from the worse side. Price, by the workshop’s price book: a grommet a line, or a fitting and two hose ends."
    >
      <Sheet
        label="Ways through each sheet"
        width={1400}
        columns={[
          { name: 'Way', wide: true },
          right('Joints'),
          right('Holes'),
          right(`Cut out, ${units.unit('cm2')}`),
          right('Needs'),
          right('Has'),
          right('Seen'),
          right('Gives'),
          { name: 'Flame' },
          right('Price'),
        ]}
        rows={found.map((one) => ({
          key: `${one.panel}-${one.way}`,
          strong: one.favoured,
          cells: [
            <Two
              key="way"
              main={`${one.panel_name}: ${one.way}${one.chosen ? ', as drawn' : ''}`}
              more={one.why ? `Favoured: ${units.say(one.why)}` : units.say(one.means)}
            />,
            one.joints ? `+${one.joints}` : '0',
            one.holes,
            units.amount('cm2', one.cut_cm2, 1),
            one.needs_mm ? units.lengthUnitText(one.needs_mm) : '–',
            one.free_mm >= 1000 ? 'enough' : units.lengthUnitText(one.free_mm),
            `${(one.sees * 100).toFixed(0)} %`,
            one.gives_mm === null ? '–' : units.lengthUnitText(one.gives_mm),
            one.closes ? 'kept out' : 'comes by',
            one.price === null ? 'not known' : one.price.toFixed(0),
          ],
        }))}
      />
    </Block>
  )
}

/** Small parts spread out, or together on a board. */
function BoardWays({ lines }: { lines: Shown }) {
  const units = useUnits()
  const found = lines.boards ?? []
  if (!found.length) return null
  return (
    <Block
      title="Parts spread out, or on one board"
      about={`${found[0]?.parts.join(', ') ?? ''}. Load: of the heaviest on one fastening, at the greatest g of the mounts.`}
    >
      <Sheet
        label="Parts spread out, or on one board"
        width={1200}
        columns={[
          { name: 'Way', wide: true },
          right('Joints to undo'),
          right(`Hose between, ${units.unit('m')}`),
          right('Board'),
          right('Heaviest'),
          right('Its load'),
        ]}
        rows={found.map((one) => ({
          key: one.title,
          strong: one.favoured,
          cells: [
            <Two
              key="way"
              main={`${one.title}${one.chosen ? ', as drawn' : ''}`}
              more={one.why ? `Favoured: ${units.say(one.why)}` : units.say(one.means)}
            />,
            one.undone,
            units.amount('m', one.hose_m, 2),
            one.board_mm ? one.board_mm.map((mm) => units.lengthUnitText(Number(mm))).join(' × ') : '–',
            one.heaviest_kg === null ? 'not known' : units.quantity('kg', one.heaviest_kg),
            one.load_n === null ? 'not known' : units.quantity('n', one.load_n),
          ],
        }))}
      />
    </Block>
  )
}
