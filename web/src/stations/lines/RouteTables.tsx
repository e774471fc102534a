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
    return (
      <Two
        key={danger}
        main={gap.gap_mm < 0 ? 'in it' : units.lengthUnitText(gap.gap_mm)}
        more={`${gap.beside_name}, needs ${units.lengthUnitText(gap.needed_mm)}`}
      />
    )
  }
  return (
    <Block title="Neighbours of each run" about="The nearest of each kind, surface to surface, up to 400 mm away.">
      <Sheet
        label="Neighbours of each run"
        width={1300}
        columns={[{ name: 'Run', wide: true }, ...DANGERS.map((danger) => ({ name: SAID[danger] }))]}
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
          key: `${one.run}-${one.panel}-${one.along_mm}`,
          cells: [
            one.name,
            one.hole ? `${one.panel_name}, ${one.hole}` : one.panel_name,
            one.way ?? 'no hole',
            one.way ? units.cut(one.hole_mm) : '–',
            units.cut(one.needed_mm),
            one.way ? units.cut(one.edge_mm) : '–',
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
            units.cut(one.outside_mm),
            one.fixed_to || 'nothing in reach: a bracket',
            one.fixed_to ? units.lengthUnitText(one.off_mm) : '–',
          ],
        }))}
      />
    </Block>
  )
}
