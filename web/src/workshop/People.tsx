import { Alert, Box, Button, Table, TableBody, TableCell, TableHead, TableRow, TextField } from '@mui/material'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import * as declared from '../api/declared'
import { api, asked, type Schemas } from '../api/client'
import { Choice } from '../fields/fields'

type Role = Schemas['PersonOut']['role']
const KEY = ['people']

export function People() {
  const queries = useQueryClient()
  const people = useQuery({ queryKey: KEY, queryFn: () => asked(api.GET('/api/people')) })
  const again = () => void queries.invalidateQueries({ queryKey: KEY })
  const change = useMutation({
    mutationFn: ({ id, ...body }: { id: number; role?: Role; trades?: string[]; is_active?: boolean }) =>
      asked(api.PATCH('/api/people/{person_id}', { params: { path: { person_id: id } }, body })),
    onSuccess: again,
  })
  const [fresh, setFresh] = useState<Schemas['PersonIn']>({ username: '', name: '', role: 'fabricator', password: '' })
  const add = useMutation({
    mutationFn: () => asked(api.POST('/api/people', { body: fresh })),
    onSuccess: () => {
      setFresh({ username: '', name: '', role: 'fabricator', password: '' })
      again()
    },
  })
  const error = change.error ?? add.error
  return (
    <>
      {error && <Alert severity="error">{error.message}</Alert>}
      <Table size="small" sx={{ mb: 2 }}>
        <TableHead>
          <TableRow>
            <TableCell>Name</TableCell>
            <TableCell>Signs in as</TableCell>
            <TableCell>Role</TableCell>
            <TableCell>Trades</TableCell>
            <TableCell />
          </TableRow>
        </TableHead>
        <TableBody>
          {people.data?.map((person) => (
            <TableRow key={person.id}>
              <TableCell>{person.name}</TableCell>
              <TableCell>{person.username}</TableCell>
              <TableCell sx={{ width: 200 }}>
                <Choice
                  label={`Role of ${person.name}`}
                  value={person.role}
                  options={declared.PersonIn.choices.role}
                  onChange={(role) => change.mutate({ id: person.id, role })}
                />
              </TableCell>
              <TableCell sx={{ width: 240 }}>
                <Trades
                  name={person.name}
                  trades={person.trades}
                  onCommit={(trades) => change.mutate({ id: person.id, trades })}
                />
              </TableCell>
              <TableCell align="right">
                <Button onClick={() => change.mutate({ id: person.id, is_active: !person.is_active })}>
                  {person.is_active ? 'Close the account' : 'Open it again'}
                </Button>
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      <Box
        component="form"
        sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr 1fr auto', gap: 2 }}
        onSubmit={(event) => {
          event.preventDefault()
          add.mutate()
        }}
      >
        <TextField
          label="Name"
          value={fresh.name}
          onChange={(event) => setFresh({ ...fresh, name: event.target.value })}
        />
        <TextField
          label="Signs in as"
          value={fresh.username}
          onChange={(event) => setFresh({ ...fresh, username: event.target.value.toLowerCase() })}
        />
        <Choice
          label="Role"
          value={fresh.role}
          options={declared.PersonIn.choices.role}
          onChange={(role) => setFresh({ ...fresh, role })}
        />
        <TextField
          label="First password"
          type="password"
          autoComplete="new-password"
          value={fresh.password}
          onChange={(event) => setFresh({ ...fresh, password: event.target.value })}
        />
        <Button type="submit" variant="outlined" disabled={!fresh.name || !fresh.username || !fresh.password}>
          Add
        </Button>
      </Box>
    </>
  )
}

interface TradesProps {
  name: string
  trades: string[]
  onCommit: (trades: string[]) => void
}

/** What somebody may do beyond what anybody who builds may, with commas between. */
function Trades({ name, trades, onCommit }: TradesProps) {
  const kept = trades.join(', ')
  const [text, setText] = useState(kept)
  return (
    <TextField
      label={`Trades of ${name}`}
      placeholder="coded welder"
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => {
        const next = text
          .split(',')
          .map((trade) => trade.trim())
          .filter(Boolean)
        if (next.join(', ') !== kept) onCommit(next)
      }}
    />
  )
}
