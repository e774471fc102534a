import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Build, HeldState } from '../../api/model'
import { QuantityField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { record } from '../build'

/** Every line under working pressure: read as it begins, and again until it has held long enough. */
export function Hold({ build, mayWrite }: { build: Build; mayWrite: boolean }) {
  return (
    <Box sx={{ display: 'grid', gap: 1.25 }}>
      {build.state.commission.held.map((line) => (
        <Line key={line.circuit} build={build} line={line} mayWrite={mayWrite} />
      ))}
    </Box>
  )
}

const MS_PER_MIN = 60_000

/** Later than the beginning, by the device's clock. */
const minutesSince = (began: string | null) =>
  began ? Math.max(0.1, (Date.now() - new Date(began).getTime()) / MS_PER_MIN) : 0

function Line({ build, line, mayWrite }: { build: Build; line: HeldState; mayWrite: boolean }) {
  const { inks } = useTheme()
  const units = useUnits()
  const [kpa, setKpa] = useState<number | null>(null)
  const read = (minute: number) => {
    void record(build, { kind: 'line read', subject: line.circuit, minute, kpa, simulated: false })
    setKpa(null)
  }
  return (
    <Box data-line-held={line.circuit} sx={{ border: `2px solid ${inks.hand}`, p: 1.5, display: 'grid', gap: 1.25 }}>
      <Box>
        <b>{line.name}</b>: its highest working pressure, {units.quantity('kpa', line.kpa)}, for {line.minutes} min; it
        may lose {Math.round(100 * line.fall)} % (house rules)
      </Box>
      <Box sx={{ color: line.lacks ? 'text.secondary' : inks.good }}>{line.lacks ? units.say(line.lacks) : 'held'}</Box>
      {line.readings.map(([minute, pressure], n) => (
        <Box key={n} sx={{ fontVariantNumeric: 'tabular-nums' }}>
          {minute.toFixed(1)} min: {units.quantity('kpa', pressure)}
        </Box>
      ))}
      {mayWrite && (
        <>
          <QuantityField of="kpa" label="Gauge reads" value={kpa} onCommit={setKpa} />
          <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
            <Button variant="outlined" sx={{ minHeight: 56 }} disabled={kpa === null} onClick={() => read(0)}>
              {line.readings.length ? 'Begin anew' : 'Begin'}
            </Button>
            {line.readings.length > 0 && (
              <Button
                variant="contained"
                sx={{ minHeight: 56 }}
                disabled={kpa === null}
                onClick={() => read(minutesSince(line.began))}
              >
                Record reading
              </Button>
            )}
          </Box>
        </>
      )}
    </Box>
  )
}
