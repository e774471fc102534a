import { Alert, Box, Button } from '@mui/material'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { api, asked } from '../../api/client'
import { Choice, QuantityField } from '../../fields/fields'

export const LEVELS = ['still air', 'changing air', 'sun and weather'] as const
export type Level = (typeof LEVELS)[number]

/** Puts a simulated tank behind the gauge: its surroundings, and its leak where somebody sets it. */
export function Simulation({ path, onBegun }: { path: { design_id: number; proof: string }; onBegun: () => unknown }) {
  const [level, setLevel] = useState<Level>('changing air')
  const [leak, setLeak] = useState<number | null>(null)
  const begin = useMutation({
    mutationFn: () =>
      asked(
        api.POST('/api/designs/{design_id}/leak-tests/{proof}/simulate', {
          params: { path },
          body: { level, leak_sccm: leak },
        }),
      ),
    onSuccess: onBegun,
  })
  return (
    <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', alignItems: 'start' }}>
      <Box sx={{ width: 190 }}>
        <Choice label="Surroundings" value={level} options={LEVELS} onChange={setLevel} />
      </Box>
      <Box sx={{ width: 190 }}>
        <QuantityField of="sccm" label="Its leak" value={leak} emptyText="hidden" onCommit={setLeak} />
      </Box>
      <Button variant="contained" sx={{ minHeight: 44 }} onClick={() => begin.mutate()}>
        Start the simulated gauge
      </Button>
      {begin.error && <Alert severity="error">{begin.error.message}</Alert>}
    </Box>
  )
}
