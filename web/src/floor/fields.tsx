import { Box, Button, TextField } from '@mui/material'
import { useState } from 'react'
import { useUnits } from '../units/useUnits'

const LARGE = { minHeight: 56 }

/** One of a few, or anything else typed: the usual needs no typing. */
export function Choices({
  label,
  choices,
  onChoose,
}: {
  label: string
  choices: readonly string[]
  onChoose: (chosen: string) => void
}) {
  const [other, setOther] = useState('')
  return (
    <Box role="group" aria-label={label} sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
      {choices.map((choice) => (
        <Button key={choice} variant="outlined" sx={LARGE} onClick={() => onChoose(choice)}>
          {choice}
        </Button>
      ))}
      <Box sx={{ display: 'flex', gap: 1, width: '100%' }}>
        <TextField
          label={`${label}, other`}
          value={other}
          onChange={(event) => setOther(event.target.value.slice(0, 200))}
        />
        <Button disabled={!other.trim()} onClick={() => onChoose(other.trim())}>
          Record
        </Button>
      </Box>
    </Box>
  )
}

/** So many pieces in, or out. */
export function CountField({
  label,
  expected,
  only,
  onRecord,
}: {
  label: string
  expected?: number
  only?: 'in' | 'out'
  onRecord: (way: 'in' | 'out', value: number) => void
}) {
  const [text, setText] = useState(expected === undefined ? '' : String(expected))
  const value = /^\d{1,6}$/.test(text.trim()) ? Number(text) : null
  const step = (by: number) => setText(String(Math.max(0, (value ?? 0) + by)))
  return (
    <Box role="group" aria-label={label} sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
      <Button
        variant="outlined"
        aria-label={`One ${label} less`}
        sx={{ ...LARGE, minWidth: 56 }}
        onClick={() => step(-1)}
      >
        −
      </Button>
      <TextField
        label={label}
        value={text}
        error={value === null && text !== ''}
        helperText={value === null && text !== '' ? 'a whole number, zero or more' : undefined}
        onChange={(event) => setText(event.target.value)}
        sx={{ width: 150 }}
        slotProps={{ htmlInput: { inputMode: 'numeric' } }}
      />
      <Button
        variant="outlined"
        aria-label={`One ${label} more`}
        sx={{ ...LARGE, minWidth: 56 }}
        onClick={() => step(1)}
      >
        +
      </Button>
      {(['in', 'out'] as const)
        .filter((way) => !only || way === only)
        .map((way) => (
          <Button
            key={way}
            variant="contained"
            sx={LARGE}
            disabled={value === null}
            onClick={() => value !== null && onRecord(way, value)}
          >
            Count {way}
          </Button>
        ))}
    </Box>
  )
}

/** A length as people say it, and how it was measured. */
export function LengthField({
  label,
  ways,
  onRecord,
}: {
  label: string
  ways: readonly string[]
  onRecord: (mm: number, way: string) => void
}) {
  const units = useUnits()
  const [text, setText] = useState('')
  const read = units.parseLength(text)
  const mm = read.ok && read.value > 0 ? read.value : null
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'flex-start' }}>
      <TextField
        label={`${label}, ${units.lengthUnit}`}
        value={text}
        error={text !== '' && mm === null}
        helperText={text === '' || mm !== null ? undefined : read.ok ? 'a length above zero' : read.reason}
        onChange={(event) => setText(event.target.value)}
        sx={{ width: 200 }}
      />
      {ways.map((way) => (
        <Button
          key={way}
          variant="outlined"
          sx={LARGE}
          disabled={mm === null}
          onClick={() => {
            if (mm === null) return
            onRecord(mm, way)
            setText('')
          }}
        >
          By {way}
        </Button>
      ))}
    </Box>
  )
}

/** A reading as it stands on the instrument. */
export function NumberField({ label, onRecord }: { label: string; onRecord: (value: number) => void }) {
  const [text, setText] = useState('')
  const value = text.trim() === '' ? NaN : Number(text.replace(',', '.'))
  const isReading = Number.isFinite(value) && value >= 0
  const write = () => {
    onRecord(value)
    setText('')
  }
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'flex-start' }}>
      <TextField
        label={label}
        value={text}
        error={text !== '' && !isReading}
        helperText={text === '' || isReading ? undefined : 'a number, 0 or more: zero the instrument'}
        onChange={(event) => setText(event.target.value)}
        slotProps={{ htmlInput: { inputMode: 'decimal' } }}
      />
      <Button variant="contained" sx={LARGE} disabled={!isReading} onClick={write}>
        Record
      </Button>
    </Box>
  )
}
