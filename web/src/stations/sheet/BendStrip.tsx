import { Box, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { Schemas } from '../../api/client'
import { isNumber } from '../../units/number'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'

type Step = Schemas['BendStep']
type Bending = Schemas['Bending']
type Spots = readonly (readonly number[])[]

const PICTURE = { wide: 138, high: 96 }
/** A bend that turns an edge back on itself. */
const HEM_DEG = 180

/** A part on the folder, bend by bend: what it looks like before and after, and how far to bend it. */
export function BendStrip({ part: name }: { part: string }) {
  const bending = useWork((work) => work.evaluation?.sheet?.bending)
  const { inks } = useTheme()
  const part = bending?.parts.find((one) => one.name === name || name.startsWith(`${one.name}-`))
  if (!bending || !part?.steps.length) return null
  return (
    <Box
      component="section"
      aria-label={`Bends of the ${part.title.toLowerCase()}`}
      sx={{ flex: 'none', borderTop: `1px solid ${inks.line}`, background: inks.paper, px: 1.5, py: 1 }}
    >
      {part.stuck !== null && (
        <Typography sx={{ fontSize: 13, fontWeight: 650, color: inks.stop }}>
          The bend at line {part.stuck} from the left can’t be made
        </Typography>
      )}
      <Box
        component="ol"
        tabIndex={0}
        aria-label="Bending, step by step"
        sx={{ display: 'flex', overflowX: 'auto', gap: 1, p: 0, m: 0, listStyle: 'none' }}
      >
        {part.steps.map((step, place) => (
          <Box component="li" key={place} sx={{ width: PICTURE.wide, flex: 'none' }}>
            <Picture step={step} machine={part} />
            <Words step={step} place={place + 1} />
          </Box>
        ))}
      </Box>
      <Typography sx={{ fontSize: 12, color: inks.quiet, mt: 0.5 }}>
        On {part.machine}, drawn filled. By yield, stiffness and radius the sheet springs back to the angle wanted; a
        strip bent on your own tool beats the figure.
      </Typography>
    </Box>
  )
}

function Words({ step, place }: { step: Step; place: number }) {
  const units = useUnits()
  const wanted = `${units.number(step.angle_deg, 1)}°`
  return (
    <Typography sx={{ fontSize: 12, lineHeight: 1.35 }}>
      <strong>{place}</strong>{' '}
      {step.angle_deg >= HEM_DEG
        ? `hem ${step.direction}, as far as it goes, then pressed down`
        : isNumber(step.bend_to_deg)
          ? `${step.turned_over ? 'turned over, ' : ''}${step.direction} to ${units.number(step.bend_to_deg, 1)}°, ${wanted} is left`
          : `${step.direction}: springs back flat, the radius is too large for ${wanted}`}
      {step.on_the_way?.length ? (
        <span style={{ display: 'block', opacity: 0.8 }}>
          Let go at{' '}
          {step.on_the_way
            .map((one) => `${units.number(one.bent_to_deg, 0)}°: ${units.number(one.left_deg, 1)}° is left`)
            .join(', at ')}
        </span>
      ) : null}
    </Typography>
  )
}

function Picture({ step, machine }: { step: Step; machine: Bending }) {
  const { inks } = useTheme()
  if (!step.after.length) return null
  const pieces = [machine.tool, machine.under, lifted(machine.leaf, step.angle_deg)].filter(({ length }) => length)
  const all = [...step.before, ...step.after, ...pieces.flat()] as [number, number][]
  const [left, right] = [Math.min(...all.map(([x]) => x)), Math.max(...all.map(([x]) => x))]
  const [low, high] = [Math.min(...all.map(([, y]) => y)), Math.max(...all.map(([, y]) => y))]
  const scale = Math.min((PICTURE.wide - 8) / (right - left || 1), (PICTURE.high - 8) / (high - low || 1))
  const line = (spots: Spots) =>
    spots.map(([x, y]) => `${4 + ((x ?? 0) - left) * scale},${4 + (high - (y ?? 0)) * scale}`).join(' ')
  return (
    <svg width={PICTURE.wide} height={PICTURE.high} aria-hidden="true" style={{ display: 'block' }}>
      {pieces.map((piece, place) => (
        <polygon key={place} points={line(piece)} fill={inks.blockFill} stroke={inks.block} />
      ))}
      <polyline points={line(step.before)} fill="none" stroke={inks.quiet} strokeWidth={1} strokeDasharray="3 3" />
      <polyline points={line(step.after)} fill="none" stroke={inks.hand} strokeWidth={2} />
    </svg>
  )
}

/** A folder's leaf once it has made a bend. */
function lifted(leaf: Spots, angle_deg: number): Spots {
  const [cos, sin] = [Math.cos((angle_deg * Math.PI) / 180), Math.sin((angle_deg * Math.PI) / 180)]
  return leaf.map(([x = 0, y = 0]) => [x * cos - y * sin, x * sin + y * cos])
}
