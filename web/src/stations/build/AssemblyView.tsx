import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useCallback } from 'react'
import type { Operation, OperationState } from '../../api/model'
import type { FoldPiece } from '../../drawing/fold'
import { FoldScene } from '../../drawing/FoldScene'
import { drawnBy } from '../../drawing/three'
import { useWork } from '../../work/store'
import { isLit, stageOf } from './assembly'

interface Props {
  all: readonly OperationState[]
  done: readonly OperationState[]
  /** The operation whose parts are lit. */
  lit: Operation | undefined
}

/** The tank as far as it is built: flats lie beside it, what is in its place is solid, the step at hand lit. */
export default function AssemblyView({ all, done, lit }: Props) {
  const pieces = useWork((work) => work.evaluation?.sheet?.folding)
  const { inks } = useTheme()
  const stage = useCallback((piece: FoldPiece) => stageOf(piece, all, done), [all, done])
  const share = useCallback((piece: FoldPiece) => (stage(piece) === 'flat' ? 0 : 1), [stage])
  const look = useCallback(
    (piece: FoldPiece) => {
      const far = stage(piece)
      const inPlace = far === 'in place'
      if (lit && isLit(lit, piece)) return { colour: inks.hand, opacity: inPlace ? 0.9 : 0.5, edges: 1, solid: inPlace }
      if (inPlace) return { colour: inks.metal, opacity: 0.9, edges: 1, solid: true }
      if (far !== 'planned') return { colour: inks.metal, opacity: 0.35, edges: 0.8, solid: false }
      return { colour: inks.quiet, opacity: 0.06, edges: 0.35, solid: false }
    },
    [stage, lit, inks],
  )
  if (!pieces?.length || drawnBy() === 'none') return null
  return (
    <Box sx={{ flex: 1, minHeight: 0 }} data-solid="drawn">
      <FoldScene pieces={pieces} share={share} look={look} fitted />
    </Box>
  )
}
