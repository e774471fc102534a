import { Alert, Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from '@mui/material'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import * as declared from '../api/declared'
import { api, asked } from '../api/client'

/** Another name for a design. */
export function RenameDialog({
  designId,
  name,
  onClose,
}: {
  designId: number
  name: string
  onClose: (name: string) => void
}) {
  const [text, setText] = useState(name)
  const queries = useQueryClient()
  const rename = useMutation({
    mutationFn: () =>
      asked(
        api.PATCH('/api/designs/{design_id}', {
          params: { path: { design_id: designId } },
          body: { name: text.trim() },
        }),
      ),
    onSuccess: (design) => {
      void queries.invalidateQueries({ queryKey: ['jobs'] })
      onClose(design.name)
    },
  })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    rename.mutate()
  }
  return (
    <Dialog open onClose={() => onClose(name)} fullWidth maxWidth="xs" aria-labelledby="rename-title">
      <form onSubmit={submit}>
        <DialogTitle id="rename-title">Rename the design</DialogTitle>
        <DialogContent>
          {rename.error && <Alert severity="error">{rename.error.message}</Alert>}
          <TextField
            label="Name"
            autoFocus
            sx={{ mt: 1 }}
            value={text}
            onChange={(event) => setText(event.target.value.slice(0, declared.Rename.most.name))}
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={() => onClose(name)}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={!text.trim() || rename.isPending}>
            Rename
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
