import { Button } from '@mui/material'
import { useRef } from 'react'
import { readOutOnly } from '../app/hidden'
import { addPhoto } from './outbox'

interface Props {
  job: number
  label: string
  large?: boolean
  disabled?: boolean
  /** The photo's name, once it is kept on this device. */
  onTaken: (id: string) => void
}

/** The camera of a phone, or a file where there is none. */
export function PhotoButton({ job, label, large = false, disabled = false, onTaken }: Props) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <Button
        variant="outlined"
        disabled={disabled}
        sx={large ? { minHeight: 56 } : {}}
        onClick={() => input.current?.click()}
      >
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        accept="image/*"
        capture="environment"
        aria-label={label}
        tabIndex={-1}
        style={readOutOnly}
        onChange={(event) => {
          const photo = event.target.files?.[0]
          event.target.value = ''
          if (photo) void addPhoto(job, photo).then(onTaken)
        }}
      />
    </>
  )
}
