import { Box, Button, Slider, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { FoldPiece } from '../../drawing/fold'
import { FoldScene } from '../../drawing/FoldScene'
import { drawnBy } from '../../drawing/three'
import { useWork } from '../../work/store'
import { isOf } from './chosen'

const WHOLE_MS = 2600

interface Props {
  chosen: string | null
  onChoose: (part: string) => void
}

/** All parts folding up into the tank, the chosen one lit. */
export default function FoldView({ chosen, onChoose }: Props) {
  const pieces = useWork((work) => work.evaluation?.sheet?.folding)
  const { inks } = useTheme()
  const [share, setShare] = useState(1)
  const play = usePlay(setShare)
  const shareOf = useCallback(() => share, [share])
  const look = useCallback(
    (piece: FoldPiece) => {
      const lit = chosen !== null && isOf(piece, chosen)
      const quiet = chosen !== null && !lit
      const colour = lit ? inks.hand : inks.metal
      return { colour, opacity: lit ? 0.95 : quiet ? 0.12 : 0.55, edges: quiet ? 0.5 : 1, solid: lit }
    },
    [chosen, inks],
  )
  if (!pieces?.length || drawnBy() === 'none') return null
  return (
    <Box
      component="section"
      aria-label="Folding up"
      sx={{ display: 'flex', flexDirection: 'column', minHeight: 0, height: '100%', background: inks.sheet }}
    >
      <Box sx={{ flex: 1, minHeight: 0 }} data-solid="drawn">
        <FoldScene pieces={pieces} share={shareOf} look={look} onChoose={onChoose} />
      </Box>
      <Box sx={{ px: 2, pb: 1, display: 'flex', alignItems: 'center', gap: 2 }}>
        <Button size="small" onClick={play} sx={{ minWidth: 60, minHeight: 44 }}>
          Fold up
        </Button>
        <Slider
          size="small"
          aria-label="How far it is folded"
          value={Math.round(share * 100)}
          valueLabelDisplay="auto"
          valueLabelFormat={(value) => `${value} %`}
          onChange={(_, value) => setShare(Number(value) / 100)}
        />
      </Box>
      <Typography sx={{ fontSize: 12, color: inks.quiet, px: 2, pb: 1 }}>
        Drag to turn. Press a part to see it flat.
      </Typography>
    </Box>
  )
}

/** From flat to folded; at once for those who don't want things to move. */
function usePlay(setShare: (share: number) => void) {
  const frame = useRef(0)
  useEffect(() => () => cancelAnimationFrame(frame.current), [])
  return () => {
    cancelAnimationFrame(frame.current)
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches
    const began = performance.now()
    const step = () => {
      const done = still ? 1 : Math.min(1, (performance.now() - began) / WHOLE_MS)
      setShare(done)
      if (done < 1) frame.current = requestAnimationFrame(step)
    }
    step()
  }
}
