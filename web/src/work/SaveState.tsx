import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { save, useSaving } from './saving'

const WORDS = {
  saved: 'Saved',
  unsaved: 'Not saved yet',
  saving: 'Saving',
  invalid: 'Not saved: put the marked field right',
  away: 'Not saved: the store can’t be reached. Trying again',
  conflict: 'Not saved: somebody else saved',
  'signed out': 'Not saved: signed out',
  'read only': 'Viewing only',
} as const

/** Whether what is on the screen is in the store. */
export function SaveState() {
  const { inks } = useTheme()
  const state = useSaving((saving) => saving.state)
  const revision = useSaving((saving) => saving.revision)
  const why = useSaving((saving) => saving.why)
  const wrong = ['invalid', 'away', 'conflict', 'signed out'].includes(state)
  return (
    <Box
      role="status"
      data-save={state}
      title={why || undefined}
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1,
        mr: 1.5,
        fontSize: 13,
        whiteSpace: 'nowrap',
        color: inks.plateInk,
      }}
    >
      <Box
        component="span"
        sx={
          wrong
            ? { background: '#ffd9a0', color: '#2b1a00', px: 1, py: 0.5, borderRadius: '3px', fontWeight: 650 }
            : undefined
        }
      >
        {WORDS[state]}
        {state === 'saved' ? ` · r${revision}` : ''}
      </Box>
      {state === 'away' && (
        <Button size="small" sx={{ color: inks.plateInk }} onClick={() => void save()}>
          Try now
        </Button>
      )}
    </Box>
  )
}
