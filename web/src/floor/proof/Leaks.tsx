import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import type { Build, ProofRound } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { record } from '../build'
import { Photo } from '../Photo'
import { ReasonDialog } from '../ReasonDialog'
import { moment } from '../time'

/** Leaks of a test, each with its seam, size, photo and repair. */
export function Leaks({ build, round, mayWrite }: { build: Build; round: ProofRound; mayWrite: boolean }) {
  const { inks } = useTheme()
  const units = useUnits()
  const [mending, setMending] = useState<string | null>(null)
  if (!round.leaks.length) return null
  const names = new Map(build.walk.map((seam) => [seam.id, seam.name]))
  return (
    <Box component="ul" aria-label="Leaks" sx={{ m: 0, p: 0, listStyle: 'none' }}>
      {round.leaks.map(({ found, author, when, repaired, repaired_by }) => (
        <Box
          component="li"
          key={found.id}
          data-leak={found.id}
          sx={{ borderLeft: `4px solid ${repaired ? inks.good : inks.stop}`, pl: 1.25, py: 0.5, my: 0.75 }}
        >
          <b>
            {names.get(found.subject) ?? found.subject}, {units.lengthUnitText(found.at_mm)} along
          </b>
          : {found.size}
          {found.note && `. ${found.note}`}
          <Box sx={{ fontSize: 14, color: 'text.secondary' }}>
            {author}, {moment(when)}
          </Box>
          {build.photos
            .filter((photo) => found.photos?.includes(photo.id))
            .map((photo) => (
              <Box key={photo.id} sx={{ width: 120, height: 90, my: 0.5 }}>
                <Photo job={build.job_number} picture={photo} small />
              </Box>
            ))}
          {repaired ? (
            <Box sx={{ color: inks.good }}>
              Mended by {repaired_by}: {repaired.how}
            </Box>
          ) : (
            mayWrite && (
              <Button variant="outlined" sx={{ minHeight: 44, mt: 0.5 }} onClick={() => setMending(found.id)}>
                Record its repair
              </Button>
            )
          )}
        </Box>
      ))}
      {mending && (
        <ReasonDialog
          title="How the leak was mended"
          warning="Vapour out, air off, then heat. The test is made again afterwards."
          label="Record repair"
          asks="What was done"
          onClose={() => setMending(null)}
          onGiven={(how) => void record(build, { kind: 'leak repaired', of: mending, how })}
        />
      )}
    </Box>
  )
}
