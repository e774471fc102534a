import { Button, Dialog, DialogActions, DialogContent, DialogContentText, DialogTitle, TextField } from '@mui/material'
import { useId, useState } from 'react'
import type { Build, OperationState } from '../api/model'
import { Choice, Toggle } from '../fields/fields'
import { useUnits } from '../units/useUnits'
import { record } from './build'
import { newId } from './outbox'

const FIRST = 'first'
const MOST = 80

/** Where else in the order an operation may be done: the workshop refuses what it needs before it. */
export function MoveDialog({ build, state, onClose }: { build: Build; state: OperationState; onClose: () => void }) {
  const heading = useId()
  const { say } = useUnits()
  const others = build.state.operations.filter((one) => one.operation.id !== state.operation.id)
  const [after, setAfter] = useState(FIRST)
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby={heading}>
      <DialogTitle id={heading}>Move “{say(state.operation.title)}”</DialogTitle>
      <DialogContent sx={{ display: 'flex', flexDirection: 'column', gap: 2 }}>
        <DialogContentText>What it needs stays before it, what needs it stays after it.</DialogContentText>
        <Choice
          label="After"
          value={after}
          options={[
            { value: FIRST, label: 'nothing: it comes first' },
            ...others.map((one, n) => ({ value: one.operation.id, label: `${n + 1} ${say(one.operation.title)}` })),
          ]}
          onChange={setAfter}
        />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button
          variant="contained"
          onClick={() => {
            void record(build, { kind: 'moved', subject: state.operation.id, after: after === FIRST ? null : after })
            onClose()
          }}
        >
          Move
        </Button>
      </DialogActions>
    </Dialog>
  )
}

/** A step that the design doesn't ask for. */
export function AddStepDialog({ build, after, onClose }: { build: Build; after: string; onClose: () => void }) {
  const heading = useId()
  const [title, setTitle] = useState('')
  const [minutes, setMinutes] = useState('')
  const [hot, setHot] = useState(false)
  const [covers, setCovers] = useState(false)
  const planned = minutes.trim() === '' ? null : Number(minutes)
  const isRead = planned === null || (Number.isFinite(planned) && planned >= 0)
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby={heading}>
      <DialogTitle id={heading}>Add a step</DialogTitle>
      <DialogContent sx={{ display: 'flex', flexDirection: 'column', gap: 2 }}>
        <TextField
          sx={{ mt: 1 }}
          autoFocus
          label="What is done"
          value={title}
          onChange={(event) => setTitle(event.target.value.slice(0, MOST))}
        />
        <TextField
          label="Planned time, min"
          value={minutes}
          error={!isRead}
          helperText={isRead ? undefined : 'zero or more'}
          onChange={(event) => setMinutes(event.target.value)}
          slotProps={{ htmlInput: { inputMode: 'numeric' } }}
        />
        <Toggle label="Heat, sparks or a hole: the leak test is made again after it" checked={hot} onChange={setHot} />
        <Toggle label="Hides seams: it waits for the leak test" checked={covers} onChange={setCovers} />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button
          variant="contained"
          disabled={!title.trim() || !isRead}
          onClick={() => {
            const step = { title: title.trim(), after, minutes: planned, hot, covers }
            void record(build, { kind: 'added', subject: `own:${newId()}`, ...step })
            onClose()
          }}
        >
          Add
        </Button>
      </DialogActions>
    </Dialog>
  )
}
