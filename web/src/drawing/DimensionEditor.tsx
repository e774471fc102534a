import { Paper, TextField } from '@mui/material'
import { useState } from 'react'
import { useUnits } from '../units/useUnits'
import type { Editing } from './Dimension'

const WIDTH = 176

/** The box that opens over a dimension's figure: type, Enter, done. */
export function DimensionEditor({ editing, width, onDone }: { editing: Editing; width: number; onDone: () => void }) {
  const units = useUnits()
  const [text, setText] = useState(units.editLength(editing.value))
  const [reason, setReason] = useState('')
  const finish = () => {
    const read = units.parseLength(text)
    if (!read.ok) {
      setReason(read.reason)
      return
    }
    if (units.editLength(read.value) !== units.editLength(editing.value)) editing.commit(read.value)
    onDone()
  }
  return (
    <Paper
      elevation={4}
      sx={{
        position: 'absolute',
        left: Math.min(Math.max(editing.x, WIDTH / 2 + 8), width - WIDTH / 2 - 8),
        top: editing.y,
        transform: 'translate(-50%, -50%)',
        width: WIDTH,
        p: 0.75,
        zIndex: 5,
      }}
    >
      <TextField
        label={`${editing.label}, ${units.lengthUnit}`}
        value={text}
        autoFocus
        error={Boolean(reason)}
        helperText={reason || undefined}
        onFocus={(event) => event.target.select()}
        onChange={(event) => {
          setText(event.target.value)
          setReason('')
        }}
        onBlur={() => (reason ? undefined : finish())}
        onKeyDown={(event) => {
          if (event.key === 'Enter') finish()
          if (event.key === 'Escape') onDone()
        }}
        slotProps={{ htmlInput: { autoComplete: 'off', 'data-typing': true } }}
      />
    </Paper>
  )
}
