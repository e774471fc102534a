import { Box, ButtonBase, Dialog, DialogContent } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Build, Picture } from '../api/model'
import { useUnits } from '../units/useUnits'
import { Photo } from './Photo'
import { moment } from './time'

const SMALL_PX = 84

/** Photos of some operations, all of the job's where none are named; pressed they are large. */
export function PhotoStrip({ build, of }: { build: Build; of?: readonly string[] }) {
  const [open, setOpen] = useState<string | null>(null)
  const wanted = of && new Set(of)
  const gates = new Set(
    build.state.gates.filter((gate) => gate.gate.before.some((id) => wanted?.has(id))).map((gate) => gate.gate.id),
  )
  const shown = build.photos.filter((photo) => !wanted || wanted.has(photo.of.subject) || gates.has(photo.of.subject))
  const large = build.photos.find((photo) => photo.id === open)
  if (!shown.length) return null
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
          onClick={() => setOpen(photo.id)}
          sx={{ width: SMALL_PX, height: SMALL_PX, flexShrink: 0 }}
        >
          <Photo job={build.job_number} picture={photo} small />
        </ButtonBase>
      ))}
      {large && <Large build={build} picture={large} onClose={() => setOpen(null)} />}
    </Box>
  )
}

function titleOf(build: Build, picture: Picture): string {
  const operation = build.state.operations.find((one) => one.operation.id === picture.of.subject)
  return operation ? operation.operation.title.text.replace(/\{\w+\}/g, '…') : picture.of.subject || 'the job'
}

function Large({ build, picture, onClose }: { build: Build; picture: Picture; onClose: () => void }) {
  const { inks } = useTheme()
  const { say } = useUnits()
  const operation = build.state.operations.find((one) => one.operation.id === picture.of.subject)
  return (
    <Dialog open onClose={onClose} maxWidth="lg" aria-label="Photo">
      <DialogContent sx={{ background: inks.sheet }}>
        <Photo job={build.job_number} picture={picture} />
        <Box sx={{ mt: 1 }}>{operation ? say(operation.operation.title) : picture.of.subject}</Box>
        <Box sx={{ fontSize: 14, color: 'text.secondary' }}>
          {picture.of.author}
          {picture.of.happened && `, ${moment(picture.of.happened)}`}
          {picture.of.note && `: ${picture.of.note}`}
        </Box>
      </DialogContent>
    </Dialog>
  )
}
