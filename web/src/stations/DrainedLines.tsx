import { Typography } from '@mui/material'
import { useUnits } from '../units/useUnits'
import { useWork } from '../work/store'

/** In the attitude shown: what stays in each cell, pool by pool, and what air. */
export function DrainedLines() {
  const drained = useWork((work) => work.evaluation?.shell?.drained) ?? []
  const units = useUnits()
  const told = drained.filter((cell) => cell.stranded_l !== null || cell.trapped_l !== null)
  return told.map((cell) => (
    <Typography key={cell.cell} variant="body2" data-drained={cell.cell}>
      {drained.length > 1 ? `${cell.cell}: ` : ''}
      {cell.stranded_l !== null &&
        `${units.volumeUnitText(cell.stranded_l)} can’t be drawn as it stands${cell.pools.length > 1 ? `, in ${cell.pools.length} pools` : ''}. `}
      {cell.trapped_l !== null &&
        cell.trapped_l >= 0.005 &&
        `${units.volumeUnitText(cell.trapped_l)} of air can’t get out.`}
    </Typography>
  ))
}
