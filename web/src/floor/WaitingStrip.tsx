import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { discard, flush, useOutbox } from './outbox'

/** What is still on this device, why, and what the workshop wouldn't take. */
export function WaitingStrip() {
  const { inks } = useTheme()
  const waiting = useOutbox((outbox) => outbox.waiting)
  const away = useOutbox((outbox) => outbox.away)
  const signedOut = useOutbox((outbox) => outbox.signedOut)
  const refused = waiting.filter((one) => one.refused)
  const left = waiting.length - refused.length
  if (!waiting.length && !away) return null
  const why = signedOut ? ': sign in again to send them' : away ? ': the workshop’s server is away' : ''
  return (
    <Box role="status" aria-label="Waiting on this device" data-waiting={left}>
      {(left > 0 || away) && (
        <Box
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 1,
            background: inks.fuelFill,
            color: '#1b2429',
            px: 2,
            py: 0.5,
          }}
        >
          <Box sx={{ flex: 1 }}>
            {left
              ? `${left} waiting on this device${why}`
              : 'The workshop’s server is away. What you record waits here.'}
          </Box>
          {left > 0 && (
            <Button sx={{ color: 'inherit' }} onClick={() => void flush()}>
              Send now
            </Button>
          )}
        </Box>
      )}
      {refused.map((one) => (
        <Box
          key={one.place}
          data-refused
          sx={{ display: 'flex', alignItems: 'center', gap: 1, border: `2px solid ${inks.stop}`, px: 2, py: 0.5 }}
        >
          <Box sx={{ flex: 1 }}>
            <b>Not taken: {one.entry ? `${one.entry.kind} ${subjectOf(one.entry)}` : 'photo'}.</b> {one.refused}
          </Box>
          <Button onClick={() => void discard(one)}>Discard</Button>
        </Box>
      ))}
    </Box>
  )
}

const subjectOf = (entry: object) => ('subject' in entry && typeof entry.subject === 'string' ? entry.subject : '')
