import { Button, Dialog, DialogActions, DialogContent, DialogContentText, DialogTitle, TextField } from '@mui/material'
import { useId, useState } from 'react'
import { useSession } from '../app/session'

interface Props {
  title: string
  warning?: string
  label: string
  /** What is asked for, where it is no reason. */
  asks?: string
  /** Whether somebody has to put a name to it. */
  named?: boolean
  onClose: () => void
  onGiven: (reason: string, name: string) => void
}

const MOST = 400

/** Asks for a reason, and a name where somebody answers for it. */
export function ReasonDialog({ title, warning, label, asks = 'Reason', named = false, onClose, onGiven }: Props) {
  const session = useSession()
  const heading = useId()
  const [reason, setReason] = useState('')
  const [name, setName] = useState(session.data?.name ?? '')
  const isGiven = reason.trim() && (!named || name.trim())
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby={heading}>
      <DialogTitle id={heading}>{title}</DialogTitle>
      <DialogContent sx={{ display: 'flex', flexDirection: 'column', gap: 2 }}>
        {warning && <DialogContentText>{warning}</DialogContentText>}
        {named && (
          <TextField
            sx={{ mt: 1 }}
            label="Who answers for it"
            value={name}
            onChange={(event) => setName(event.target.value.slice(0, MOST))}
          />
        )}
        <TextField
          sx={{ mt: 1 }}
          autoFocus
          label={asks}
          multiline
          value={reason}
          onChange={(event) => setReason(event.target.value.slice(0, MOST))}
        />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button
          variant="contained"
          disabled={!isGiven}
          onClick={() => {
            onGiven(reason.trim(), name.trim())
            onClose()
          }}
        >
          {label}
        </Button>
      </DialogActions>
    </Dialog>
  )
}

/** Whether it is being asked. */
export function useAsking() {
  const [asking, setAsking] = useState(false)
  return { asking, ask: () => setAsking(true), close: () => setAsking(false) }
}
