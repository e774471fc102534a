import { Box } from '@mui/material'
import { FlatDrawing } from '../../drawing/FlatDrawing'
import { useWork } from '../../work/store'
import { SchemeRow } from './SchemeRow'

/** The flat parts, instead of the tank, under the ways to make it. */
export function FlatBoard() {
  const parts = useWork((work) => work.evaluation?.sheet?.unfolded?.parts)
  if (!parts) return null
  return (
    <Box sx={{ flex: 1, minWidth: 0, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
      <SchemeRow />
      <FlatDrawing parts={parts} />
    </Box>
  )
}
