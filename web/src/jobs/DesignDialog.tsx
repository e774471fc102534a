import {
  Alert,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogContentText,
  DialogTitle,
  Stack,
  TextField,
} from '@mui/material'
import { type ChangeEvent, type FormEvent, useState } from 'react'
import { useNavigate } from 'react-router'
import * as declared from '../api/declared'
import { Failure } from '../api/client'
import { addDesign, type Job, useJobChange } from './queries'

const MOST_BYTES = 1_000_000

/** Another design in a job: empty, or from a file that was taken away before. */
export function DesignDialog({ job, onClose }: { job: Job; onClose: () => void }) {
  const [name, setName] = useState(`Tank ${job.designs.length + 1}`)
  const [file, setFile] = useState<{ name: string; design: Record<string, unknown> } | null>(null)
  const [problem, setProblem] = useState('')
  const navigate = useNavigate()
  const add = useJobChange(() => addDesign(job.id, name.trim(), file?.design ?? null))

  const choose = async (event: ChangeEvent<HTMLInputElement>) => {
    const chosen = event.target.files?.[0]
    setFile(null)
    setProblem('')
    if (!chosen) return
    if (chosen.size > MOST_BYTES) {
      setProblem(`${chosen.name} is ${chosen.size} bytes; ${MOST_BYTES} or less are taken.`)
      return
    }
    try {
      const design: unknown = JSON.parse(await chosen.text())
      if (typeof design !== 'object' || design === null || Array.isArray(design)) throw new Error('it is no design')
      setFile({ name: chosen.name, design: design as Record<string, unknown> })
    } catch (error) {
      setProblem(`${chosen.name} can’t be read: ${error instanceof Error ? error.message : 'it is no JSON'}`)
    }
  }
  const submit = (event: FormEvent) => {
    event.preventDefault()
    add.mutate(undefined, { onSuccess: (made) => void navigate(`/designs/${made.id}/bay`) })
  }
  const faults = add.error instanceof Failure ? add.error.faults : []
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="design-title">
      <form onSubmit={submit}>
        <DialogTitle id="design-title">Add a design to {job.title}</DialogTitle>
        <DialogContent>
          <Stack sx={{ gap: 2, pt: 1 }}>
            {(problem || add.error) && <Alert severity="error">{problem || add.error?.message}</Alert>}
            {faults.map((fault) => (
              <DialogContentText key={fault.field}>
                {fault.field}: is {String(fault.value ?? 'missing')}, allowed: {fault.limit}
              </DialogContentText>
            ))}
            <TextField
              label="Name"
              required
              value={name}
              onChange={(event) => setName(event.target.value.slice(0, declared.DesignNew.most.name))}
            />
            <Button component="label" variant="outlined">
              {file ? `From ${file.name}` : 'From a design file (JSON)'}
              <input type="file" accept=".json,application/json" hidden onChange={(event) => void choose(event)} />
            </Button>
          </Stack>
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={!name.trim() || add.isPending}>
            {file ? 'Import it' : 'Start empty'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
