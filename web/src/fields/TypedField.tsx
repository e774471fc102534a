import { InputAdornment, TextField } from '@mui/material'
import { type KeyboardEvent, useState } from 'react'
import type { Parsed } from '../units/length'

interface Props {
  label: string
  value: number | null
  unit: string
  edit: (value: number) => string
  parse: (text: string) => Parsed
  onCommit: (value: number | null) => void
  /** What an empty field stands for; without it the field must be filled. */
  emptyText?: string | undefined
  fault?: string | undefined
  hint?: string | undefined
  disabled?: boolean | undefined
  autoFocus?: boolean
  /** No unit in the field: it stands over the table that the field is in. */
  compact?: boolean | undefined
}

/** A quantity that is typed the way people say it. What can't be read stays as typed, with the reason beside it. */
export function TypedField({
  label,
  value,
  unit,
  edit,
  parse,
  onCommit,
  emptyText,
  fault,
  hint,
  disabled,
  autoFocus,
  compact,
}: Props) {
  const [typed, setTyped] = useState<string | null>(null)
  const [reason, setReason] = useState<string | null>(null)
  const shown = typed ?? (value === null ? '' : edit(value))

  const commit = () => {
    if (typed === null) return
    if (!typed.trim() && emptyText !== undefined) {
      setTyped(null)
      setReason(null)
      if (value !== null) onCommit(null)
      return
    }
    if (!typed.trim() && value === null) {
      setTyped(null)
      setReason(null)
      return
    }
    const read = parse(typed)
    if (!read.ok) {
      setReason(read.reason)
      return
    }
    setTyped(null)
    setReason(null)
    if (value === null || edit(read.value) !== edit(value)) onCommit(read.value)
  }
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') {
      event.preventDefault()
      commit()
    } else if (event.key === 'Escape' && typed !== null) {
      event.stopPropagation()
      setTyped(null)
      setReason(null)
    }
  }
  const wrong = reason ?? fault
  return (
    <TextField
      label={label}
      value={shown}
      placeholder={emptyText}
      disabled={Boolean(disabled)}
      autoFocus={Boolean(autoFocus)}
      error={Boolean(wrong)}
      helperText={wrong ?? hint}
      onChange={(event) => {
        setTyped(event.target.value)
        setReason(null)
      }}
      onFocus={(event) => event.target.select()}
      onBlur={commit}
      onKeyDown={onKeyDown}
      slotProps={{
        inputLabel: { shrink: true },
        htmlInput: { inputMode: 'text', autoComplete: 'off', 'data-typing': typed !== null || undefined },
        input: compact ? {} : { endAdornment: <InputAdornment position="end">{unit}</InputAdornment> },
      }}
    />
  )
}
