import { useTheme } from '@mui/material/styles'
import type { SeriesResult } from '../../api/model'
import { Plot } from '../../plots/Plot'
import { useUnits } from '../../units/useUnits'

const pairs = (xs: readonly number[], ys: readonly number[]) => xs.map((x, n) => [x, ys[n] ?? 0] as const)

/** Pressure as read and corrected over the test, with the largest leak allowed as a line; below it the temperature. */
export function DecayPlot({ result, height = 260 }: { result: SeriesResult; height?: number }) {
  const { inks } = useTheme()
  const units = useUnits()
  const { minute, gauge_kpa, corrected_kpa, temperature_c } = result.curve
  const minutes = (value: number) => units.number(value, 0)
  return (
    <>
      <Plot
        label="Pressure over time, as read and corrected, with the limit"
        lines={[
          { points: pairs(minute, gauge_kpa), colour: inks.quiet, name: 'as read', dash: '2 3', width: 2 },
          { points: pairs(minute, result.limit_kpa), colour: inks.stop, name: 'limit', dash: '7 4', width: 1.5 },
          { points: pairs(minute, corrected_kpa), colour: inks.hand, name: 'corrected', width: 2.5 },
        ]}
        xText="min"
        yText={`Gauge pressure, ${units.unit('finekpa')}`}
        showX={minutes}
        showY={(value) => units.amount('finekpa', value, units.inches ? 3 : 2)}
        perY={units.per('finekpa')}
        fromZero={false}
        width={620}
        height={height}
      />
      <Plot
        label="Temperature over time"
        lines={[{ points: pairs(minute, temperature_c), colour: inks.metal, name: 'temperature', width: 2 }]}
        xText="min"
        yText={`Air temperature, ${units.unit('c')}`}
        showX={minutes}
        showY={(value) => units.amount('c', value, 1)}
        fromZero={false}
        width={620}
        height={120}
      />
    </>
  )
}
