import { Box, Button } from '@mui/material'
import { useState } from 'react'
import type { Build } from '../../api/model'
import { QuantityField } from '../../fields/fields'
import { record } from '../build'

/** Gauge, thermometer and barometer as they stand now. */
export function HandReading({ build, proof }: { build: Build; proof: string }) {
  const [pressure, setPressure] = useState<number | null>(null)
  const [temperature, setTemperature] = useState<number | null>(null)
  const [barometer, setBarometer] = useState<number | null>(null)
  const isGiven = pressure !== null && temperature !== null && barometer !== null
  const write = () => {
    void record(build, {
      kind: 'gauge read',
      of: proof,
      minute: null,
      pressure_kpa: pressure,
      temperature_c: temperature,
      barometer_kpa: barometer,
    })
    setPressure(null)
  }
  return (
    <Box
      role="group"
      aria-label="Reading by hand"
      sx={{
        display: 'grid',
        gap: 1.5,
        gridTemplateColumns: 'repeat(auto-fit, minmax(140px, 1fr))',
        alignItems: 'start',
      }}
    >
      <QuantityField of="finekpa" label="Gauge" value={pressure} onCommit={setPressure} />
      <QuantityField of="c" label="Air in the tank" value={temperature} onCommit={setTemperature} />
      <QuantityField of="barokpa" label="Barometer" value={barometer} onCommit={setBarometer} />
      <Button variant="contained" sx={{ minHeight: 56 }} disabled={!isGiven} onClick={write}>
        Record reading
      </Button>
    </Box>
  )
}
