import { Alert, Box, Button, LinearProgress, Typography } from '@mui/material'
import type { Study, useStudy } from './study'

type Hook = Pick<ReturnType<typeof useStudy>, 'study' | 'stale' | 'start' | 'stop'>

/** How far a study is, with what starts and stops it. */
export function StudyProgress({
  study,
  stale,
  start,
  stop,
  label,
  onStart,
  disabled,
}: Hook & { label: string; onStart: () => void; disabled: boolean }) {
  const running = study?.state === 'running'
  return (
    <Box sx={{ my: 1, maxWidth: 900 }}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        {running ? (
          <Button variant="outlined" disabled={stop.isPending} onClick={() => stop.mutate(study)}>
            Stop
          </Button>
        ) : (
          <Button variant="outlined" disabled={disabled || start.isPending} onClick={onStart}>
            {study && stale ? `The tank has changed: ${label.toLowerCase()} again` : label}
          </Button>
        )}
        {study && (
          <Typography variant="body2" role="status" data-study={study.state}>
            {said(study)}
            {stale && ', of the tank as it was then'}.
          </Typography>
        )}
      </Box>
      {running && (
        <LinearProgress
          variant="determinate"
          value={(100 * study.done) / study.total}
          aria-label="How much is tried"
          sx={{ mt: 1 }}
        />
      )}
      {(start.error ?? stop.error) && <Alert severity="error">{(start.error ?? stop.error)?.message}</Alert>}
    </Box>
  )
}

function said({ state, done, total }: Study) {
  if (state === 'running') return done ? `${done} of ${total} tried` : `Waiting for a worker, ${total} to try`
  return state === 'done' ? `All ${total} tried` : `Stopped after ${done} of ${total}`
}
