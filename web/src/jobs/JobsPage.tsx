import {
  Alert,
  Box,
  Button,
  MenuItem,
  Pagination,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useQuery } from '@tanstack/react-query'
import { lazy, Suspense, useState } from 'react'
import { Link } from 'react-router'
import * as declared from '../api/declared'
import { useSession } from '../app/session'
import { DesignDialog } from './DesignDialog'
import { customersQuery, type Job, type JobFilter, jobsQuery } from './queries'

const JobDialog = lazy(() => import('./JobDialog').then((module) => ({ default: module.JobDialog })))
const CustomersDialog = lazy(() => import('./CustomersDialog').then((module) => ({ default: module.CustomersDialog })))

/** The shop's jobs: find one, open one, start one. */
export function JobsPage() {
  const { inks } = useTheme()
  const session = useSession()
  const [filter, setFilter] = useState<JobFilter>({ search: '', state: '', customer: null, page: 1 })
  const [editing, setEditing] = useState<Job | 'new' | null>(null)
  const [adding, setAdding] = useState<Job | null>(null)
  const [customersOpen, setCustomersOpen] = useState(false)
  const jobs = useQuery(jobsQuery(filter))
  const customers = useQuery(customersQuery)
  const mayWrite = session.data?.role !== 'viewer'
  const narrow = (part: Partial<JobFilter>) => setFilter({ ...filter, page: 1, ...part })
  const filtered = Boolean(filter.search || filter.state || filter.customer)
  return (
    <Box component="main" sx={{ flex: 1, overflowY: 'auto', px: { xs: 2, md: 4 }, py: 3 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, flexWrap: 'wrap', mb: 2 }}>
        <Typography variant="h1" sx={{ mr: 'auto', fontSize: '1.6rem' }}>
          Jobs
        </Typography>
        <Button onClick={() => setCustomersOpen(true)}>Customers</Button>
        <Button variant="contained" disabled={!mayWrite} onClick={() => setEditing('new')}>
          New job
        </Button>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '2fr 1fr 1fr' }, gap: 2, mb: 2 }}>
        <TextField
          label="Search title, customer, design or number"
          value={filter.search}
          onChange={(event) => narrow({ search: event.target.value.slice(0, 80) })}
        />
        <TextField
          select
          label="State"
          value={filter.state}
          onChange={(event) => narrow({ state: event.target.value as JobFilter['state'] })}
          slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        >
          <MenuItem value="">any</MenuItem>
          {declared.JobIn.choices.state.map((state) => (
            <MenuItem key={state} value={state}>
              {state}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Customer"
          value={filter.customer ?? ''}
          onChange={(event) => narrow({ customer: Number(event.target.value) || null })}
          slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        >
          <MenuItem value="">anybody</MenuItem>
          {customers.data?.map((customer) => (
            <MenuItem key={customer.id} value={customer.id}>
              {customer.name}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      {jobs.error && <Alert severity="error">{jobs.error.message}</Alert>}
      {jobs.data && jobs.data.count === 0 ? (
        <Box sx={{ background: inks.sheet, border: `1px solid ${inks.line}`, p: 5, textAlign: 'center' }}>
          <Typography variant="h2">{filtered ? 'No job matches' : 'No jobs yet'}</Typography>
          <Typography color="textSecondary" sx={{ mt: 1 }}>
            {filtered
              ? 'Search for less, or take the filters off.'
              : 'Start with “New job”: a title is enough. The tank’s design opens right away.'}
          </Typography>
        </Box>
      ) : (
        <Box sx={{ background: inks.sheet, border: `1px solid ${inks.line}`, overflowX: 'auto' }}>
          <Table aria-label="Jobs">
            <TableHead>
              <TableRow>
                <TableCell>No.</TableCell>
                <TableCell>Job</TableCell>
                <TableCell>Customer</TableCell>
                <TableCell>State</TableCell>
                <TableCell>Designs</TableCell>
                <TableCell>Last change</TableCell>
                <TableCell />
              </TableRow>
            </TableHead>
            <TableBody>
              {jobs.data?.items.map((job) => (
                <JobRow
                  key={job.id}
                  job={job}
                  mayWrite={mayWrite}
                  onEdit={() => setEditing(job)}
                  onAdd={() => setAdding(job)}
                />
              ))}
            </TableBody>
          </Table>
        </Box>
      )}
      {jobs.data && jobs.data.pages > 1 && (
        <Pagination
          sx={{ mt: 2 }}
          count={jobs.data.pages}
          page={filter.page}
          onChange={(_, page) => setFilter({ ...filter, page })}
        />
      )}
      {editing && (
        <Suspense>
          <JobDialog job={editing === 'new' ? null : editing} onClose={() => setEditing(null)} />
        </Suspense>
      )}
      {adding && <DesignDialog job={adding} onClose={() => setAdding(null)} />}
      {customersOpen && (
        <Suspense>
          <CustomersDialog onClose={() => setCustomersOpen(false)} mayWrite={mayWrite} />
        </Suspense>
      )}
    </Box>
  )
}

function JobRow({
  job,
  mayWrite,
  onEdit,
  onAdd,
}: {
  job: Job
  mayWrite: boolean
  onEdit: () => void
  onAdd: () => void
}) {
  const { inks } = useTheme()
  return (
    <TableRow data-job={job.number}>
      <TableCell sx={{ fontWeight: 650 }}>{job.number}</TableCell>
      <TableCell sx={{ minWidth: 200 }}>
        <Box
          component={Link}
          to={`/jobs/${job.number}`}
          sx={{ fontWeight: 600, color: 'text.primary', display: 'inline-block', py: 0.75 }}
        >
          {job.title}
        </Box>
        {job.note && <Box sx={{ fontSize: 13, color: 'text.secondary', maxWidth: '44ch' }}>{job.note}</Box>}
      </TableCell>
      <TableCell>{job.customer || '–'}</TableCell>
      <TableCell>{job.state}</TableCell>
      <TableCell>
        {job.designs.map((design) => (
          <Button
            key={design.id}
            component={Link}
            to={`/designs/${design.id}/bay`}
            variant="outlined"
            sx={{ mr: 1, my: 0.25 }}
          >
            {design.name}
            <span style={{ color: inks.quiet, fontWeight: 450, marginLeft: 6 }}>r{design.revision}</span>
          </Button>
        ))}
      </TableCell>
      <TableCell sx={{ whiteSpace: 'nowrap' }}>
        {new Date(job.changed).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
      </TableCell>
      <TableCell align="right" sx={{ whiteSpace: 'nowrap' }}>
        <Button disabled={!mayWrite} onClick={onAdd} aria-label={`Add design to ${job.title}`}>
          Add design
        </Button>
        <Button disabled={!mayWrite} onClick={onEdit} aria-label={`Change job ${job.title}`}>
          Change
        </Button>
      </TableCell>
    </TableRow>
  )
}
