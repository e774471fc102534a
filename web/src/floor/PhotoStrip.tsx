import { Box, ButtonBase } from '@mui/material'
import type { Build, Picture } from '../api/model'
import { LargePhoto } from './LargePhoto'
import { Photo } from './Photo'

const SMALL_PX = 84

interface Props {
  build: Build
  /** Operations whose photos are shown; all of the job's where none are named. */
  of?: readonly string[]
  open: string | null
  onOpen: (id: string | null) => void
  mayWrite?: boolean
  onPin?: (id: string) => void
}

/** Photos in a row; pressed they are large. */
export function PhotoStrip({ build, of, open, onOpen, mayWrite = false, onPin }: Props) {
  const shown = build.photos.filter((photo) => !of || isOf(build, photo, of))
  const large = build.photos.find((photo) => photo.id === open)
  if (!shown.length && !large) return null
  return (
    <Box
      aria-label="Photos"
      role="group"
      sx={{ display: 'flex', gap: 1, overflowX: 'auto', px: 2, py: 1, flexShrink: 0 }}
    >
      {shown.map((photo) => (
        <ButtonBase
          key={photo.id}
          aria-label={`Photo of ${titleOf(build, photo)}`}
          onClick={() => onOpen(photo.id)}
          sx={{ width: SMALL_PX, height: SMALL_PX, flexShrink: 0 }}
        >
          <Photo job={build.job_number} picture={photo} small />
        </ButtonBase>
      ))}
      {large && (
        <LargePhoto
          build={build}
          picture={large}
          mayWrite={mayWrite}
          onClose={() => onOpen(null)}
          {...(onPin ? { onPin } : {})}
        />
      )}
    </Box>
  )
}

/** Whether a photo is of one of some operations, or of a gate before it; of nothing that is done, it belongs to all. */
function isOf(build: Build, { of: picture }: Picture, operations: readonly string[]): boolean {
  const known = build.state.operations.some((one) => one.operation.id === picture.subject)
  const gate = build.state.gates.find((one) => one.gate.id === picture.subject)
  if (!known && !gate) return true
  return operations.includes(picture.subject) || Boolean(gate?.gate.before.some((id) => operations.includes(id)))
}

function titleOf(build: Build, { of: picture }: Picture): string {
  const operation = build.state.operations.find((one) => one.operation.id === picture.subject)
  return operation ? operation.operation.title.text.replace(/\{\w+\}/g, '…') : picture.subject || 'the job'
}
