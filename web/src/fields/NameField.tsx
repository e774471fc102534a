import { TextField } from '@mui/material'
import { useState } from 'react'
import * as declared from '../api/declared'

/** A name, kept when the field is left; an empty one goes back to what it was. */
export function NameField({
  label = 'Name',
  value,
  disabled,
  onCommit,
}: {
  label?: string
  value: string
  disabled: boolean
  onCommit: (value: string) => void
}) {
  const [typed, setTyped] = useState<string | null>(null)
  return (
    <TextField
      label={label}
      value={typed ?? value}
      disabled={disabled}
      onChange={(event) => setTyped(event.target.value.slice(0, declared.Port.most.name))}
      onBlur={() => {
        if (typed?.trim() && typed.trim() !== value) onCommit(typed.trim())
        setTyped(null)
      }}
    />
  )
}
