import { Box, useMediaQuery } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { lazy, Suspense, useState } from 'react'
import { FlatDrawing } from '../../drawing/FlatDrawing'
import { useWork } from '../../work/store'
import { BendStrip } from './BendStrip'
import { partOf } from './chosen'
import { PartBar } from './PartBar'
import { PartRow } from './PartRow'
import { SchemeRow } from './SchemeRow'

const FoldView = lazy(() => import('./FoldView'))
const FOLDING = { wide: 300, high: 260 }
/** Room for the flats where the parts fold up under them; the rest is scrolled to. */
const FLAT_HIGH = 300

/** The bench: ways to make it and all parts, or one of them large over its bends; beside it all of them folding up. */
export function FlatBoard() {
  const parts = useWork((work) => work.evaluation?.sheet?.unfolded?.parts)
  const folds = useWork((work) => Boolean(work.evaluation?.sheet?.folding?.length))
  const [wanted, setWanted] = useState<string | null>(null)
  const beside = useMediaQuery('(min-width: 1100px)')
  const { inks } = useTheme()
  if (!parts) return null
  const part = partOf(parts, wanted)
  return (
    <Box sx={{ flex: 1, minWidth: 0, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
      {!part && <SchemeRow />}
      <PartRow parts={parts} chosen={part?.name ?? null} onChoose={setWanted} />
      <Box
        sx={{
          flex: 1,
          minHeight: 0,
          overflow: 'hidden auto',
          display: 'flex',
          flexDirection: beside ? 'row' : 'column',
        }}
      >
        <Box
          sx={{ flex: beside ? 1 : '1 0 auto', minWidth: 0, minHeight: 0, display: 'flex', flexDirection: 'column' }}
        >
          {part && <PartBar part={part} />}
          <Box sx={{ flex: 1, minHeight: beside ? 0 : FLAT_HIGH, display: 'flex', flexDirection: 'column' }}>
            <FlatDrawing parts={part ? [part] : parts} />
          </Box>
          {part && <BendStrip part={part.name} />}
        </Box>
        {folds && (
          <Box
            sx={{
              flex: 'none',
              width: beside ? FOLDING.wide : '100%',
              height: beside ? 'auto' : FOLDING.high,
              borderLeft: beside ? `1px solid ${inks.line}` : 'none',
            }}
          >
            <Suspense>
              <FoldView chosen={part?.name ?? null} onChoose={setWanted} />
            </Suspense>
          </Box>
        )}
      </Box>
    </Box>
  )
}
