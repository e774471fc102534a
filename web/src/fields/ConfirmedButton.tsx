import { Button, Dialog, DialogActions, DialogContent, DialogContentText, DialogTitle } from '@mui/material'
import { useId, useState } from 'react'

interface Props {
  /** The verb, with what it is done to. */
  label: string
  /** What is gone then, and that it can't be undone. */
  warning: string
  disabled?: boolean
  onConfirm: () => void
}

/** A button for what can't be undone: it asks first. */
export function ConfirmedButton({ label, warning, disabled = false, onConfirm }: Props) {
  const [asking, setAsking] = useState(false)
  const title = useId()
  const confirm = () => {
    setAsking(false)
    onConfirm()
  }
  return (
    <>
      <Button disabled={disabled} onClick={() => setAsking(true)}>
        {label}
      </Button>
      <Dialog open={asking} onClose={() => setAsking(false)} fullWidth maxWidth="xs" aria-labelledby={title}>
        <DialogTitle id={title}>{label}?</DialogTitle>
        <DialogContent>
          <DialogContentText>{warning}</DialogContentText>
        </DialogContent>
        <DialogActions>
          <Button autoFocus onClick={() => setAsking(false)}>
            Keep it
          </Button>
          <Button variant="contained" color="error" data-confirm onClick={confirm}>
            {label}
          </Button>
        </DialogActions>
      </Dialog>
    </>
  )
}
