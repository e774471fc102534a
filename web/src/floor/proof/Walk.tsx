import { Box, Button, Slider } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { type ReactNode, useState } from 'react'
import type { Build, ProofRound, WalkSeam } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { record } from '../build'
import { PhotoButton } from '../PhotoButton'
import { placeAlong } from './proof'
import { SeamSketch } from './SeamSketch'
import { useWalked } from './useRounds'

interface Props {
  build: Build
  round: ProofRound
  seams: WalkSeam[]
  /** The seam at hand, and how far along it the finger is. */
  at: string | null
  along: number
  onSeam: (id: string | null) => void
  onAlong: (mm: number) => void
}

/** The soap walk: seam by seam in order, each with the spots to look at first. */
export function Walk({ build, round, seams, at, along, onSeam, onAlong }: Props) {
  const { walked, leaks } = useWalked(build, round)
  const next = seams.find((seam) => !walked.has(seam.id))
  const seam = seams.find((one) => one.id === at) ?? next
  const done = seams.filter((one) => walked.has(one.id)).length
  const go = (id: string | null) => {
    onSeam(id)
    onAlong(0)
  }
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.5 }} data-walk>
      <Box sx={{ fontWeight: 650 }}>
        {done} of {seams.length} seams walked, {leaks.length} {leaks.length === 1 ? 'leak' : 'leaks'}
      </Box>
      {seam ? (
        <SeamAtHand
          key={seam.id}
          build={build}
          round={round}
          seam={seam}
          sketch={<SeamSketch seams={seams} at={seam} along={along} walked={walked} />}
          place={seams.indexOf(seam) + 1}
          along={along}
          onAlong={onAlong}
          onWalked={() => go(seams.find((one) => one !== seam && !walked.has(one.id))?.id ?? null)}
        />
      ) : (
        <Box>Every seam has been walked. End the test.</Box>
      )}
      <SeamList seams={seams} at={seam?.id ?? null} walked={walked} leaks={leaks} onSeam={go} />
    </Box>
  )
}

/** The finger is on a spot when it is no further from it. */
const SAME_MM = 0.5
const SIZES = ['slow bubbles', 'quick bubbles', 'blows the soap off'] as const

interface AtHandProps {
  build: Build
  round: ProofRound
  seam: WalkSeam
  sketch: ReactNode
  place: number
  along: number
  onAlong: (mm: number) => void
  onWalked: () => void
}

function SeamAtHand({ build, round, seam, sketch, place, along, onAlong, onWalked }: AtHandProps) {
  const { inks } = useTheme()
  const units = useUnits()
  const [leaking, setLeaking] = useState(false)
  const [photo, setPhoto] = useState<string | null>(null)
  const proof = round.begun.id
  const chosen = seam.spots.find((spot) => Math.abs(spot.at_mm - along) < SAME_MM)
  const pin = (size: (typeof SIZES)[number]) => {
    const spot = placeAlong(seam, along)
    const low = build.corner ?? { x: 0, y: 0, z: 0 }
    void record(build, {
      kind: 'leak found',
      of: proof,
      subject: seam.id,
      at_mm: along,
      x_mm: spot.x - low.x,
      y_mm: spot.y - low.y,
      z_mm: spot.z - low.z,
      size,
      photos: photo ? [photo] : [],
    })
    setLeaking(false)
    setPhoto(null)
  }
  return (
    <Box data-seam={seam.id} sx={{ border: `2px solid ${inks.hand}`, p: 1.5, display: 'grid', gap: 1.25 }}>
      <Box>
        <Box sx={{ fontSize: 20, fontWeight: 700 }}>
          {place}. {seam.name}
        </Box>
        <Box sx={{ color: 'text.secondary' }}>
          {units.lengthUnitText(seam.length_mm)} long{seam.uneven && `; uneven: ${units.say(seam.uneven)}`}
        </Box>
      </Box>
      {sketch}
      <Box role="group" aria-label="Look here first" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5 }}>
        {seam.spots.map((spot, n) => (
          <Button
            key={n}
            size="small"
            variant={spot === chosen ? 'contained' : 'outlined'}
            aria-label={`At ${units.lengthUnitText(spot.at_mm)}: ${units.say(spot.why)}`}
            sx={{ minHeight: 44, px: 1 }}
            onClick={() => onAlong(spot.at_mm)}
          >
            {units.lengthUnitText(Math.round(spot.at_mm))}
          </Button>
        ))}
      </Box>
      <Box sx={{ minHeight: 24 }} aria-live="polite">
        {chosen ? units.say(chosen.why) : 'Look at these spots first, then along all of it.'}
      </Box>
      <Box sx={{ px: 1 }}>
        <Slider
          aria-label="Along the seam"
          min={0}
          max={Math.max(1, seam.length_mm)}
          step={1}
          value={Math.min(along, seam.length_mm)}
          valueLabelDisplay="auto"
          valueLabelFormat={(mm) => units.lengthUnitText(mm)}
          onChange={(_, value) => onAlong(Number(value))}
          sx={{ py: 2.5 }}
        />
      </Box>
      {leaking ? (
        <Box role="group" aria-label="What the soap does" sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
          {SIZES.map((size) => (
            <Button key={size} variant="contained" color="error" sx={{ minHeight: 56 }} onClick={() => pin(size)}>
              {size}
            </Button>
          ))}
          <PhotoButton
            job={build.job_number}
            label={photo ? 'Another photo' : 'Photo of it'}
            large
            onTaken={setPhoto}
          />
          <Button sx={{ minHeight: 56 }} onClick={() => setLeaking(false)}>
            Cancel
          </Button>
        </Box>
      ) : (
        <Box sx={{ display: 'flex', gap: 1 }}>
          <Button
            variant="contained"
            sx={{ minHeight: 56, flex: 1 }}
            onClick={() => {
              void record(build, { kind: 'seam walked', of: proof, subject: seam.id })
              onWalked()
            }}
          >
            Walked to its end
          </Button>
          <Button variant="outlined" color="error" sx={{ minHeight: 56, flex: 1 }} onClick={() => setLeaking(true)}>
            Leak at {units.lengthUnitText(Math.round(along))}
          </Button>
        </Box>
      )}
    </Box>
  )
}

interface ListProps {
  seams: WalkSeam[]
  at: string | null
  walked: ReadonlySet<string>
  leaks: readonly { subject: string }[]
  onSeam: (id: string) => void
}

/** All seams in the order of the walk, and how far it is. */
export function SeamList({ seams, at, walked, leaks, onSeam }: ListProps) {
  const { inks } = useTheme()
  return (
    <Box component="ol" sx={{ m: 0, p: 0, listStyle: 'none' }} aria-label="Seams">
      {seams.map((seam, n) => {
        const leaky = leaks.filter((leak) => leak.subject === seam.id).length
        return (
          <li key={seam.id}>
            <Button
              fullWidth
              onClick={() => onSeam(seam.id)}
              aria-current={seam.id === at}
              data-walked={walked.has(seam.id)}
              sx={{
                justifyContent: 'space-between',
                color: 'text.primary',
                fontWeight: seam.id === at ? 700 : 500,
                borderTop: `1px solid ${inks.line}`,
                textAlign: 'left',
              }}
            >
              <span>
                {n + 1}. {seam.name}
              </span>
              <span style={{ color: leaky ? inks.stop : inks.quiet, whiteSpace: 'nowrap' }}>
                {leaky > 0 ? `${leaky} ${leaky === 1 ? 'leak' : 'leaks'}` : walked.has(seam.id) ? '✓ dry' : ''}
              </span>
            </Button>
          </li>
        )
      })}
    </Box>
  )
}
