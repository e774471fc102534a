import { Button } from '@mui/material'
import { useRef } from 'react'

/** A button that takes a file. */
export function FileButton({
  label,
  accept,
  disabled,
  onFile,
}: {
  label: string
  accept: string
  disabled?: boolean
  onFile: (file: globalThis.File) => void
}) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        hidden
        aria-label={label}
        onChange={(event) => {
          const file = event.target.files?.[0]
          event.target.value = ''
          if (file) onFile(file)
        }}
      />
      <Button variant="outlined" disabled={Boolean(disabled)} onClick={() => input.current?.click()}>
        {label}
      </Button>
    </>
  )
}
