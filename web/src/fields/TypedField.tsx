import { InputAdornment, TextField } from '@mui/material'
import { memo, type KeyboardEvent, useState } from 'react'
import type { Parsed } from '../units/length'
import { useLatest } from './useLatest'

interface Shown {
  label: string
  unit: string
  /** What an empty field stands for; without it the field must be filled. */
  emptyText?: string | undefined
  fault?: string | undefined
  hint?: string | undefined
  disabled?: boolean | undefined
  autoFocus?: boolean
  /** No unit in the field: it stands over the table that the field is in. */
  compact?: boolean | undefined
}

interface Props extends Shown {
  value: number | null
  edit: (value: number) => string
  parse: (text: string) => Parsed
  onCommit: (value: number | null) => void
}

/** A quantity that is typed the way people say it. What can't be read stays as typed, with the reason beside it. */
export function TypedField({ value, edit, parse, onCommit, ...shown }: Props) {
  const text = value === null ? '' : edit(value)
  const take = useLatest((typed: string): string | null => {
    if (!typed.trim() && (value === null || shown.emptyText !== undefined)) {
      if (value !== null) onCommit(null)
      return null
    }
    const read = parse(typed)
    if (!read.ok) return read.reason
    if (value === null || edit(read.value) !== text) onCommit(read.value)
    return null
  })
  return <Typing {...shown} text={text} take={take} />
}

interface TypingProps extends Shown {
  text: string
  /** Takes what was typed; why it can't be, where it can't. */
  take: (typed: string) => string | null
}

/** The field itself: a panel of a hundred is drawn anew with every edit, and few of them show anything else. */
const Typing = memo(function Typing({
  label,
  text,
  unit,
  take,
  emptyText,
  fault,
  hint,
  disabled,
  autoFocus,
  compact,
}: TypingProps) {
  const [typed, setTyped] = useState<string | null>(null)
  const [reason, setReason] = useState<string | null>(null)

  const commit = () => {
    if (typed === null) return
    const wrong = take(typed)
    setReason(wrong)
    if (wrong === null) setTyped(null)
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
      value={typed ?? text}
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
})
