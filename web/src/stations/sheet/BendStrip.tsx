import { Box, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { Schemas } from '../../api/client'
import { isNumber } from '../../units/number'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Folded } from '../Folded'

type Step = Schemas['BendStep']
type Spots = readonly (readonly number[])[]

const PICTURE = { wide: 138, high: 96 }

/** Each part on the folder, bend by bend: what it looks like before and after, and how far to bend it. */
export function BendStrip() {
  const bending = useWork((work) => work.evaluation?.sheet?.bending)
  if (!bending?.parts.length) return null
  return (
    <Folded title="Bending, step by step">
      <Typography variant="body2" color="textSecondary">
        Across the folder, its beam dark, numbered as on the flats. Bend to the larger angle: by the metal’s yield and
        stiffness and the bend’s radius it springs back to the one wanted. A strip bent on your own tool beats the
        figure.
      </Typography>
      {bending.parts.map((part) => (
        <Box key={part.name} component="section" aria-label={`Bends of the ${part.title.toLowerCase()}`}>
          <Typography sx={{ fontWeight: 650, mt: 1 }}>
            {part.title}
            {part.stuck !== null && `: the bend at line ${part.stuck} from the left can’t be made`}
          </Typography>
          <Box component="ol" sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, p: 0, m: 0, listStyle: 'none' }}>
            {part.steps.map((step, place) => (
              <Box component="li" key={step.bend} sx={{ width: PICTURE.wide }}>
                <Picture step={step} beam={bending.beam} />
                <Words step={step} place={place + 1} />
              </Box>
            ))}
          </Box>
        </Box>
      ))}
    </Folded>
  )
}

function Words({ step, place }: { step: Step; place: number }) {
  const units = useUnits()
  const wanted = `${units.number(step.angle_deg, 1)}°`
  return (
    <Typography sx={{ fontSize: 12, lineHeight: 1.35 }}>
      <strong>{place}</strong>{' '}
      {isNumber(step.bend_to_deg)
        ? `${step.direction} to ${units.number(step.bend_to_deg, 1)}°, ${wanted} is left`
        : `${step.direction}: springs back flat, the radius is too large for ${wanted}`}
    </Typography>
  )
}

function Picture({ step, beam }: { step: Step; beam: Spots }) {
  const { inks } = useTheme()
  if (!step.after.length) return null
  const all = [...step.before, ...step.after, ...beam] as [number, number][]
  const [left, right] = [Math.min(...all.map(([x]) => x)), Math.max(...all.map(([x]) => x))]
  const [low, high] = [Math.min(...all.map(([, y]) => y)), Math.max(...all.map(([, y]) => y))]
  const scale = Math.min((PICTURE.wide - 8) / (right - left || 1), (PICTURE.high - 8) / (high - low || 1))
  const line = (spots: Spots) =>
    spots.map(([x, y]) => `${4 + ((x ?? 0) - left) * scale},${4 + (high - (y ?? 0)) * scale}`).join(' ')
  return (
    <svg width={PICTURE.wide} height={PICTURE.high} aria-hidden="true" style={{ display: 'block' }}>
      <polygon points={line(beam)} fill={inks.blockFill} stroke={inks.block} />
      <polyline points={line(step.before)} fill="none" stroke={inks.quiet} strokeWidth={1} strokeDasharray="3 3" />
      <polyline points={line(step.after)} fill="none" stroke={inks.hand} strokeWidth={2} />
    </svg>
  )
}
