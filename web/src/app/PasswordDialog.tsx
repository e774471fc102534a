import { Alert, Button, Dialog, DialogActions, DialogContent, DialogTitle, Stack, TextField } from '@mui/material'
import { useMutation } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { api, asked, Failure } from '../api/client'

export function PasswordDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const [old, setOld] = useState('')
  const [fresh, setFresh] = useState('')
  const change = useMutation({
    mutationFn: () => asked(api.POST('/api/session/password', { body: { old, new: fresh } })),
  })
  const fault = (field: string) =>
    change.error instanceof Failure ? change.error.faults.find((item) => item.field === field)?.message : undefined
  const close = () => {
    change.reset()
    setOld('')
    setFresh('')
    onClose()
  }
  const submit = (event: FormEvent) => {
    event.preventDefault()
    change.mutate()
  }
  return (
    <Dialog open={open} onClose={close} aria-labelledby="password-title">
      <form onSubmit={submit}>
        <DialogTitle id="password-title">Change password</DialogTitle>
        <DialogContent>
          {change.isSuccess ? (
            <Alert severity="success">Changed. Other places where you were signed in are signed out.</Alert>
          ) : (
            <Stack sx={{ gap: 2, pt: 1, width: 340 }}>
              <TextField
                label="Present password"
                type="password"
                autoComplete="current-password"
                value={old}
                onChange={(e) => setOld(e.target.value)}
                error={Boolean(fault('old'))}
                helperText={fault('old')}
              />
              <TextField
                label="New password"
                type="password"
                autoComplete="new-password"
                value={fresh}
                onChange={(e) => setFresh(e.target.value)}
                error={Boolean(fault('new'))}
                helperText={fault('new') ?? '10 characters or more'}
              />
            </Stack>
          )}
        </DialogContent>
        <DialogActions>
          <Button onClick={close}>{change.isSuccess ? 'Close' : 'Cancel'}</Button>
          {!change.isSuccess && (
            <Button type="submit" variant="contained" disabled={!old || !fresh || change.isPending}>
              Change the password
            </Button>
          )}
        </DialogActions>
      </form>
    </Dialog>
  )
}
