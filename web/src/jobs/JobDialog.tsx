import {
  Alert,
  Autocomplete,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  MenuItem,
  Stack,
  TextField,
} from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { useNavigate } from 'react-router'
import * as declared from '../api/declared'
import { api, asked, Failure } from '../api/client'
import { addCustomer, addDesign, customersQuery, type Job, type JobIn, type JobState, useJobChange } from './queries'

/** A new job with its first design, or the fields of one that is there. */
export function JobDialog({ job: opened, onClose }: { job: Job | null; onClose: () => void }) {
  // What the fields were read from: after a conflict that is the job as it is now.
  const [job, setJob] = useState(opened)
  const [title, setTitle] = useState(job?.title ?? '')
  const [customer, setCustomer] = useState(job?.customer ?? '')
  const [state, setState] = useState<JobState>(job?.state ?? 'enquiry')
  const [note, setNote] = useState(job?.note ?? '')
  const customers = useQuery(customersQuery)
  const navigate = useNavigate()

  const keep = useJobChange(async () => {
    const name = customer.trim()
    const known = customers.data?.find((item) => item.name.toLowerCase() === name.toLowerCase())
    const customerId = name ? (known ?? (await addCustomer({ name, contact: '', note: '' }))).id : null
    const body: JobIn = { title: title.trim(), customer_id: customerId, state, note }
    if (job) {
      const seen: JobIn = { title: job.title, customer_id: job.customer_id, state: job.state, note: job.note }
      await asked(api.PUT('/api/jobs/{job_id}', { params: { path: { job_id: job.id } }, body: { ...body, seen } }))
      return null
    }
    const made = await asked(api.POST('/api/jobs', { body }))
    return (await addDesign(made.id, 'Tank', null)).id
  })
  const theirs =
    keep.error instanceof Failure && keep.error.code === 'conflict' ? (keep.error.body.current as Job) : null
  const takeTheirs = (now: Job) => {
    setTitle(now.title)
    setCustomer(now.customer)
    setState(now.state)
    setNote(now.note)
    setJob(now)
    keep.reset()
  }
  const keepMine = (now: Job) => {
    setJob(now)
    keep.reset()
  }
  const submit = (event: FormEvent) => {
    event.preventDefault()
    keep.mutate(undefined, {
      onSuccess: (designId) => {
        onClose()
        if (designId !== null) void navigate(`/designs/${designId}/bay`)
      },
    })
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="job-title">
      <form onSubmit={submit}>
        <DialogTitle id="job-title">{job ? `Job ${job.number}` : 'New job'}</DialogTitle>
        <DialogContent>
          <Stack sx={{ gap: 2, pt: 1 }}>
            {keep.error && !theirs && <Alert severity="error">{keep.error.message}</Alert>}
            {theirs && (
              <Alert
                severity="warning"
                action={
                  <>
                    <Button color="inherit" onClick={() => takeTheirs(theirs)}>
                      Show theirs
                    </Button>
                    <Button color="inherit" onClick={() => keepMine(theirs)}>
                      Go on with mine
                    </Button>
                  </>
                }
              >
                Somebody changed this job meanwhile: “{theirs.title}”, {theirs.state}. Nothing of yours is lost.
              </Alert>
            )}
            <TextField
              label="Title"
              required
              autoFocus
              value={title}
              onChange={(event) => setTitle(event.target.value.slice(0, declared.JobIn.most.title))}
            />
            <Autocomplete
              freeSolo
              options={customers.data?.map((item) => item.name) ?? []}
              inputValue={customer}
              value={customer}
              onInputChange={(_, value) => setCustomer(value.slice(0, declared.CustomerIn.most.name))}
              renderInput={(params) => (
                <TextField {...params} label="Customer" helperText="A name not in the list is added to it" />
              )}
            />
            <TextField
              select
              label="State"
              value={state}
              onChange={(event) => setState(event.target.value as JobState)}
            >
              {declared.JobIn.choices.state.map((item) => (
                <MenuItem key={item} value={item}>
                  {item}
                </MenuItem>
              ))}
            </TextField>
            <TextField
              label="Note"
              multiline
              minRows={2}
              value={note}
              onChange={(event) => setNote(event.target.value.slice(0, declared.JobIn.most.note))}
            />
          </Stack>
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={!title.trim() || keep.isPending}>
            {job ? 'Save' : 'Create the job'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
