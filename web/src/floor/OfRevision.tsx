import { Box } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Build } from '../api/model'
import { LearntLine } from './LearntList'
import { PhotoStrip } from './PhotoStrip'
import { buildQuery } from './query'

/** What the shop kept of a revision: what it taught, and its photos. */
export default function OfRevision({ designId, revision }: { designId: number; revision: number }) {
  const [open, setOpen] = useState<string | null>(null)
  const found = useQuery({ ...buildQuery(designId), refetchInterval: false }).data as Build | undefined
  if (!found) return null
  const learnt = found.state.learnt.filter((one) => one.learnt.revision === revision)
  const photos = found.photos.filter((photo) => photo.of.revision === revision)
  if (!learnt.length && !photos.length) return null
  return (
    <Box component="section" aria-label={`Kept of r${revision}`}>
      {learnt.map((one) => (
        <LearntLine key={one.learnt.id} one={one} />
      ))}
      <PhotoStrip build={{ ...found, photos }} open={open} onOpen={setOpen} />
    </Box>
  )
}
