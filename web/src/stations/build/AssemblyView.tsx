import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useCallback, useMemo } from 'react'
import type { Build, Operation, OperationState } from '../../api/model'
import type { FoldPiece } from '../../drawing/fold'
import { FoldScene } from '../../drawing/FoldScene'
import { drawnBy } from '../../drawing/three'
import { record } from '../../floor/build'
import { useWork } from '../../work/store'
import { isLit, stageOf } from './assembly'
import { useBuildView } from './chosen'

interface Props {
  build: Build
  all: readonly OperationState[]
  done: readonly OperationState[]
  /** The operation whose parts are lit. */
  lit: Operation | undefined
}

/** The tank as far as it is built: flats lie beside it, what is in its place is solid, the step at hand lit. */
export default function AssemblyView({ build, all, done, lit }: Props) {
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
  const corner = useWork((work) => work.evaluation?.shell?.geometry?.body.low)
  const low = useMemo(() => corner && [corner.x, corner.y, corner.z], [corner])
  const pinning = useBuildView((view) => view.pinning)
  const pins = useMemo(
    () =>
      build.photos.flatMap(({ id, of }) =>
        of.spot_mm && low
          ? [{ id, place: of.spot_mm.map((mm, axis) => mm + (low[axis] ?? 0)) as [number, number, number] }]
          : [],
      ),
    [build.photos, low],
  )
  const pin = (place: [number, number, number]) => {
    const [x = 0, y = 0, z = 0] = place.map((mm, axis) => mm - (low?.[axis] ?? 0))
    void record(build, { kind: 'pinned', photo: pinning ?? '', x_mm: x, y_mm: y, z_mm: z })
    useBuildView.setState({ pinning: null })
  }
  if (!pieces?.length || drawnBy() === 'none') return null
  return (
    <Box sx={{ flex: 1, minHeight: 0, position: 'relative' }} data-solid="drawn">
      <FoldScene
        pieces={pieces}
        share={share}
        look={look}
        fitted
        pins={pins}
        onPin={(photo) => useBuildView.setState({ photo })}
        {...(pinning ? { onSpot: pin } : {})}
      />
      {pinning && (
        <Box role="status" sx={{ position: 'absolute', top: 12, left: 12, background: inks.handFill, p: 1.25 }}>
          Press the place on the tank that the photo shows.{' '}
          <Button onClick={() => useBuildView.setState({ pinning: null })}>Cancel</Button>
        </Box>
      )}
    </Box>
  )
}
