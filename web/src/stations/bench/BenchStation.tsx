import { Alert, Button, TextField, Typography } from '@mui/material'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import * as declared from '../../api/declared'
import { api, asked } from '../../api/client'
import type { Calibration } from '../../api/model'
import { Choice } from '../../fields/fields'
import { save } from '../../work/saving'
import { useWork } from '../../work/store'
import { calibrationsQuery, useOnBench } from './bench'

/** Start a calibration of a sender, and find the ones that were made. */
export function BenchStation({ designId }: { designId: number }) {
  const senders = useWork((work) => work.design.gauge.senders)
  const readOnly = useWork((work) => work.readOnly)
  const list = useQuery(calibrationsQuery(designId))
  return (
    <>
      <Typography variant="body2">
        Pour a known amount, read the sender, pour again: the curve of the tank as built, beside the one calculated.
        Real instruments send their readings, or bring them as CSV; the meters here are simulated stand-ins and say so.
      </Typography>
      {senders.length === 0 ? (
        <Typography variant="body2">There is no sender to measure yet: hang one in the tank at Gauge.</Typography>
      ) : (
        <Start designId={designId} readOnly={readOnly} />
      )}
      {list.error && <Alert severity="error">{list.error.message}</Alert>}
      {(list.data ?? []).map((item) => (
        <Kept key={item.id} item={item} />
      ))}
    </>
  )
}

function Start({ designId, readOnly }: { designId: number; readOnly: boolean }) {
  const senders = useWork((work) => work.design.gauge.senders)
  const [chosen, setChosen] = useState('')
  const [note, setNote] = useState('')
  const queries = useQueryClient()
  const sender = senders.find((item) => item.id === chosen) ?? senders[0]
  const start = useMutation({
    mutationFn: async () => {
      if (!(await save())) throw new Error('The design isn’t saved yet: put that right first.')
      return asked(
        api.POST('/api/designs/{design_id}/calibrations', {
          params: { path: { design_id: designId } },
          body: { sender: sender?.id ?? '', note },
        }),
      )
    },
    onSuccess: (made) => {
      queries.setQueryData(['calibration', made.id], made)
      void queries.invalidateQueries({ queryKey: ['calibrations', designId] })
      useOnBench.setState({ id: made.id })
      setNote('')
    },
  })
  return (
    <>
      {senders.length > 1 && (
        <Choice
          label="Sender"
          value={sender?.id ?? ''}
          options={senders.map((item) => ({ value: item.id, label: item.name }))}
          disabled={readOnly}
          onChange={setChosen}
        />
      )}
      <TextField
        label="Note"
        value={note}
        placeholder="how it stands, which fuel"
        disabled={readOnly}
        onChange={(event) => setNote(event.target.value.slice(0, declared.StartIn.most.note))}
      />
      <Button variant="contained" disabled={readOnly || start.isPending} onClick={() => start.mutate()}>
        Start measuring {sender?.name}
      </Button>
      {start.error && <Alert severity="error">{start.error.message}</Alert>}
    </>
  )
}

function Kept({ item }: { item: Calibration }) {
  const open = useOnBench((bench) => bench.id === item.id)
  return (
    <Button
      variant={open ? 'outlined' : 'text'}
      aria-pressed={open}
      sx={{ justifyContent: 'space-between', textAlign: 'left' }}
      onClick={() => useOnBench.setState({ id: item.id })}
      data-calibration={item.id}
    >
      <span>
        {item.sender_name}, {new Date(item.started).toLocaleDateString('en-GB')}
        {item.note && `, ${item.note}`}
      </span>
      <span
        style={{ fontWeight: 500, fontSize: 13 }}
      >{`${item.readings.length} ${item.readings.length === 1 ? 'reading' : 'readings'}${item.simulated ? ', simulated' : ''}${item.closed ? ', kept' : ''}`}</span>
    </Button>
  )
}
