import { Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { type ReactNode, Suspense } from 'react'
import { ErrorBoundary } from '../app/ErrorBoundary'
import { Link } from 'react-router'
import { stationBeside } from '../stations/registry'
import { TankDrawing } from '../drawing/TankDrawing'
import type { Station } from '../stations/station'

interface AtStationProps {
  station: Station
  designId: number
  turned: boolean | undefined
  onTurn: (toBoard: boolean) => void
  findings: ReactNode
  /** What to try here, in a job to learn on. */
  hint?: string | undefined
}

const never = () => false

/** The drawing or the station's board, and its inputs. Each breaks alone. */
export function AtStation({ station, designId, turned, onTurn, findings, hint }: AtStationProps) {
  const { inks } = useTheme()
  const { Panel, title } = station
  const Foot = station.drawing?.Foot
  const next = stationBeside(station.name, 1)
  const useIsThere = station.board?.useIsThere ?? never
  const board = useIsThere() ? station.board : undefined
  const asBoard = board && (turned ?? board.first)
  const guarded = (part: ReactNode) => (
    <ErrorBoundary title={`${title} has met an error`}>
      <Suspense fallback={null}>{part}</Suspense>
    </ErrorBoundary>
  )
  return (
    <>
      <Box sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column', position: 'relative' }}>
        {guarded(asBoard ? <board.Shown designId={designId} /> : <TankDrawing station={station} />)}
        {!asBoard && Foot && guarded(<Foot />)}
      </Box>
      <Box
        component="aside"
        aria-label="Inputs"
        sx={{
          width: 336,
          flexShrink: 0,
          overflowY: 'auto',
          position: 'relative',
          borderLeft: `1px solid ${inks.line}`,
          background: inks.sheet,
          p: 2,
          display: 'flex',
          flexDirection: 'column',
          gap: 1.75,
        }}
      >
        <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'center', minHeight: 44 }}>
          <Typography variant="h1">{title}</Typography>
          {board?.name && (
            <Button variant="outlined" onClick={() => onTurn(!asBoard)}>
              {asBoard ? 'Show the tank' : `Show ${board.name}`}
            </Button>
          )}
        </Box>
        {hint && (
          <Typography data-hint sx={{ background: inks.handFill, p: 1.25 }}>
            {hint}
          </Typography>
        )}
        {guarded(<Panel designId={designId} findings={findings} />)}
        {next && next !== station && (
          <Button
            component={Link}
            to={`/designs/${designId}/${next.name}`}
            variant="outlined"
            sx={{ flexShrink: 0, mt: 'auto' }}
          >
            Next: {next.title}, {next.about}
          </Button>
        )}
      </Box>
    </>
  )
}
