import { Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from '@mui/material'
import { useId, useState } from 'react'
import type { Build } from '../api/model'
import { record } from './build'

const MOST = 2000

/** A remark on something. */
export function NoteDialog({ build, subject, onClose }: { build: Build; subject: string; onClose: () => void }) {
  const heading = useId()
  const [note, setNote] = useState('')
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby={heading}>
      <DialogTitle id={heading}>Note</DialogTitle>
      <DialogContent>
        <TextField
          sx={{ mt: 1 }}
          autoFocus
          multiline
          minRows={3}
          label="What was seen or done"
          value={note}
          onChange={(event) => setNote(event.target.value.slice(0, MOST))}
        />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button
          variant="contained"
          disabled={!note.trim()}
          onClick={() => {
            void record(build, { kind: 'note', subject, note: note.trim() })
            onClose()
          }}
        >
          Record
        </Button>
      </DialogActions>
    </Dialog>
  )
}
