import {
  Alert,
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  List,
  ListItemButton,
  ListItemText,
  Stack,
  TextField,
} from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import * as declared from '../api/declared'
import { api, asked } from '../api/client'
import { addCustomer, type Customer, customersQuery, useJobChange } from './queries'

const MOST = declared.CustomerIn.most
const BLANK = { ...declared.CustomerIn.defaults, name: '' }

/** The customers' records. */
export function CustomersDialog({ onClose, mayWrite }: { onClose: () => void; mayWrite: boolean }) {
  const customers = useQuery(customersQuery)
  const [chosen, setChosen] = useState<Customer | null>(null)
  const [fields, setFields] = useState(BLANK)
  const keep = useJobChange(() =>
    chosen
      ? asked(api.PUT('/api/customers/{customer_id}', { params: { path: { customer_id: chosen.id } }, body: fields }))
      : addCustomer(fields),
  )
  const show = (customer: Customer | null) => {
    setChosen(customer)
    setFields(customer ? { name: customer.name, contact: customer.contact ?? '', note: customer.note ?? '' } : BLANK)
  }
  const choose = (customer: Customer | null) => {
    keep.reset()
    show(customer)
  }
  const submit = (event: FormEvent) => {
    event.preventDefault()
    keep.mutate(undefined, { onSuccess: show })
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-labelledby="customers-title">
      <DialogTitle id="customers-title">Customers</DialogTitle>
      <DialogContent sx={{ display: 'flex', gap: 3 }}>
        <Box sx={{ width: 240, flexShrink: 0 }}>
          <List dense>
            {customers.data?.map((customer) => (
              <ListItemButton
                key={customer.id}
                selected={chosen?.id === customer.id}
                onClick={() => choose(customer)}
                sx={{ minHeight: 44 }}
              >
                <ListItemText primary={customer.name} secondary={customer.contact} />
              </ListItemButton>
            ))}
          </List>
          <Button onClick={() => choose(null)} disabled={!mayWrite}>
            New customer
          </Button>
        </Box>
        <Stack component="form" onSubmit={submit} sx={{ flex: 1, gap: 2, pt: 1 }}>
          {keep.error && <Alert severity="error">{keep.error.message}</Alert>}
          {keep.isSuccess && <Alert severity="success">Kept.</Alert>}
          <TextField
            label="Name"
            required
            value={fields.name}
            disabled={!mayWrite}
            onChange={(event) => setFields({ ...fields, name: event.target.value.slice(0, MOST.name) })}
          />
          <TextField
            label="Contact"
            value={fields.contact}
            disabled={!mayWrite}
            onChange={(event) => setFields({ ...fields, contact: event.target.value.slice(0, MOST.contact) })}
          />
          <TextField
            label="Note"
            multiline
            minRows={3}
            value={fields.note}
            disabled={!mayWrite}
            onChange={(event) => setFields({ ...fields, note: event.target.value.slice(0, MOST.note) })}
          />
          <Button
            type="submit"
            variant="contained"
            disabled={!mayWrite || !fields.name.trim() || keep.isPending}
            sx={{ alignSelf: 'flex-start' }}
          >
            {chosen ? 'Save' : 'Add'}
          </Button>
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  )
}
