import { TextField } from '@mui/material'
import { memo, type KeyboardEvent, useState } from 'react'
import * as declared from '../api/declared'
import { useLatest } from './useLatest'

interface Props {
  label: string
  value: string
  /** The most letters it may have. */
  most: number
  onCommit: (value: string) => void
  disabled: boolean
  hint?: string
  /** Lines it shows; with more than one, Enter begins a new line. */
  lines?: number
  /** It may be left empty; without it an empty field goes back to what it was. */
  mayBeEmpty?: boolean
}

/** Words, kept when the field is left or with Enter; Escape brings back what was there. */
export function WordsField({ onCommit, ...shown }: Props) {
  return <Wording {...shown} onCommit={useLatest(onCommit)} />
}

const Wording = memo(function Wording({
  label,
  value,
  most,
  onCommit,
  disabled,
  hint,
  lines = 1,
  mayBeEmpty = false,
}: Props) {
  const [typed, setTyped] = useState<string | null>(null)
  const commit = () => {
    const words = typed?.trim() ?? value
    if (words !== value && (words || mayBeEmpty)) onCommit(words)
    setTyped(null)
  }
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter' && lines === 1) commit()
    if (event.key === 'Escape' && typed !== null) {
      event.stopPropagation()
      setTyped(null)
    }
  }
  return (
    <TextField
      label={label}
      value={typed ?? value}
      disabled={disabled}
      helperText={hint}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={commit}
      onKeyDown={onKeyDown}
      slotProps={{ htmlInput: { maxLength: most, 'data-typing': typed !== null || undefined } }}
      {...(lines > 1 && { multiline: true, minRows: lines })}
    />
  )
})

/** The name of something. */
export const NameField = (props: Pick<Props, 'value' | 'disabled' | 'onCommit'> & { label?: string }) => (
  <WordsField label="Name" most={declared.Port.most.name} {...props} />
)
