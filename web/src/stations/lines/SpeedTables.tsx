import { useUnits } from '../../units/useUnits'
import { Block, Sheet } from '../Board'
import type { Shown } from './LinesBoard'

const right = (name: string) => ({ name, right: true })

/** What pumps on the engine give over its range of speed. */
export function SpeedTables({ lines }: { lines: Shown }) {
  const units = useUnits()
  const flow = (lph: number | null) => (lph === null ? 'beyond its card' : units.flowText(lph, 0))
  return (lines.engine_driven ?? []).map((pump) => (
    <Block
      key={pump.part}
      title={`${pump.name} over the engine’s speed`}
      about={[
        pump.enough_from_rpm === null
          ? `At no speed of its card does it give the ${units.flowText(pump.wanted_lph, 0)} that is drawn.`
          : `It gives the ${units.flowText(pump.wanted_lph, 0)} that is drawn from ${pump.enough_from_rpm.toFixed(0)} rpm of the engine on.`,
        `Working pressure: what it has to rise by in ${pump.mode}, ${units.pressure(pump.working_kpa)}.`,
        pump.needs_flooded ? 'Its inlet has to stay under fuel.' : '',
        pump.can_disengage
          ? 'It can be disengaged: let it stand still in the modes that don’t want it.'
          : 'It can’t be disengaged: it works whenever the engine turns.',
      ]
        .filter(Boolean)
        .join(' ')}
    >
      <Sheet
        label={`${pump.name} over the engine’s speed`}
        columns={[
          right('Engine, rpm'),
          right('Shaft, rpm'),
          right('Against nothing'),
          right('At working pressure'),
          right('Drawn'),
        ]}
        rows={pump.speeds.map((one) => ({
          key: String(one.engine_rpm),
          cells: [
            one.engine_rpm.toFixed(0),
            one.shaft_rpm.toFixed(0),
            flow(one.free_lph),
            flow(one.working_lph),
            one.drawn_lph === null ? '–' : units.flowText(one.drawn_lph, 0),
          ],
        }))}
      />
    </Block>
  ))
}
