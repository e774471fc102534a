import { Alert, Box, Slider } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { lazy, Suspense } from 'react'
import { Actions } from '../../floor/Actions'
import { useBuild, withSteps } from '../../floor/build'
import { OperationCard } from '../../floor/OperationCard'
import { PhotoStrip } from '../../floor/PhotoStrip'
import { WaitingStrip } from '../../floor/WaitingStrip'
import { useWork } from '../../work/store'
import { choose, replay, useAtHand, useBuildView } from './chosen'

const AssemblyView = lazy(() => import('./AssemblyView'))

/** The tank in its present state of assembly over a replay of how it came there; beside it the operation at hand. */
export function BuildBoard({ designId }: { designId: number }) {
  const { inks } = useTheme()
  const { build: whole, error } = useBuild(designId)
  const build = whole && withSteps(whole, false)
  const readOnly = useWork((work) => work.readOnly)
  const photo = useBuildView((view) => view.photo)
  const { past, done, state, replaying } = useAtHand(build)
  if (!build) return error ? <Alert severity="error">{error.message}</Alert> : null
  if (!build.state.operations.length)
    return (
      <Box sx={{ p: 3 }}>
        No order of work yet: it comes from the flat parts. Give the tank a shape at Shell that can be made of sheet.
      </Box>
    )
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
      <WaitingStrip />
      <Box sx={{ flex: 1, minHeight: 0, display: 'flex' }}>
        <Box sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column', background: inks.sheet }}>
          <Suspense fallback={<Box sx={{ flex: 1 }} />}>
            <AssemblyView build={build} all={build.state.operations} done={done} lit={state?.operation} />
          </Suspense>
          <PhotoStrip
            build={build}
            of={done.map((one) => one.operation.id)}
            open={photo}
            onOpen={(id) => useBuildView.setState({ photo: id })}
            mayWrite={!readOnly}
            onPin={(id) => useBuildView.setState({ pinning: id, photo: null })}
          />
          <Replay count={past.length} at={done.length} />
        </Box>
        <Box
          component="section"
          aria-label="Operation at hand"
          sx={{
            width: { xs: 320, lg: 380 },
            flexShrink: 0,
            display: 'flex',
            flexDirection: 'column',
            borderLeft: `1px solid ${inks.line}`,
          }}
        >
          <Box sx={{ flex: 1, minHeight: 0, overflowY: 'auto', p: 2 }}>
            {state ? (
              <OperationCard key={state.operation.id} build={build} state={state} mayWrite={!readOnly} />
            ) : (
              'Every operation is settled, or waits at a gate: choose one in the list.'
            )}
          </Box>
          {state && !readOnly && !replaying && (
            <Box sx={{ p: 1.5, borderTop: `1px solid ${inks.line}` }}>
              <Actions build={build} state={state} onSettled={() => choose(null)} />
            </Box>
          )}
        </Box>
      </Box>
    </Box>
  )
}

function Replay({ count, at }: { count: number; at: number }) {
  if (!count) return null
  return (
    <Box sx={{ px: 3, pb: 1, display: 'flex', alignItems: 'center', gap: 2 }}>
      <Box sx={{ fontSize: 14, whiteSpace: 'nowrap' }}>
        {at === count ? `${count} steps done` : `After step ${at} of ${count}`}
      </Box>
      <Slider
        size="small"
        aria-label="Replay of the build"
        min={0}
        max={count}
        value={at}
        marks
        onChange={(_, value) => replay(Number(value) === count ? null : Number(value))}
      />
    </Box>
  )
}
