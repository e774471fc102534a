import { Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { Bay, Evaluation, Opening } from '../../api/model'
import { setBay } from '../../drawing/edits'
import { Choice, LengthField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useFault, useWork } from '../../work/store'

const SIDES = ['roof', 'floor', 'front', 'rear', 'left', 'right'] as const

/** The opening, and whether the tank goes in through it, which way round, by how much. */
export function OpeningFields({ bay, readOnly }: { bay: Bay; readOnly: boolean }) {
  const answer = useWork((work) => work.evaluation?.goes_in ?? null)
  const { opening } = bay
  if (!opening) {
    const whole: Opening = { side: 'roof', a_mm: 0, b_mm: 0, long_mm: bay.length_mm, wide_mm: bay.width_mm }
    return (
      <>
        <Typography variant="body2" color="textSecondary">
          Without one the bay counts as open on a side that is large enough.
        </Typography>
        <Button variant="outlined" disabled={readOnly} onClick={() => setBay({ opening: whole })}>
          Measure an opening
        </Button>
      </>
    )
  }
  const set = (part: Partial<Opening>) => setBay({ opening: { ...opening, ...part } })
  const level = opening.side === 'roof' || opening.side === 'floor'
  const [first, second] = level ? ['rear', 'right'] : opening.side === 'front' || opening.side === 'rear' ? ['right', 'floor'] : ['rear', 'floor']
  return (
    <>
      <Choice label="It is in the" value={opening.side} options={SIDES} disabled={readOnly} onChange={(side) => set({ side })} />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        <Field label={`From ${first}`} name="a_mm" opening={opening} set={set} readOnly={readOnly} />
        <Field label={`From ${second}`} name="b_mm" opening={opening} set={set} readOnly={readOnly} />
        <Field label={first === 'rear' ? 'Length' : 'Width'} name="long_mm" opening={opening} set={set} readOnly={readOnly} />
        <Field label={second === 'right' ? 'Width' : 'Height'} name="wide_mm" opening={opening} set={set} readOnly={readOnly} />
      </Box>
      {answer && <Answer answer={answer} />}
      <Button disabled={readOnly} onClick={() => setBay({ opening: null })}>
        Remove the opening
      </Button>
    </>
  )
}

function Field({ label, name, opening, set, readOnly }: { label: string; name: 'a_mm' | 'b_mm' | 'long_mm' | 'wide_mm'; opening: Opening; set: (part: Partial<Opening>) => void; readOnly: boolean }) {
  return <LengthField label={label} value={opening[name]} fault={useFault(`bay.opening.${name}`)} disabled={readOnly} onCommit={(mm) => mm !== null && set({ [name]: mm })} />
}

/** The tank's silhouette as it goes through, in the opening, at one scale. */
function Answer({ answer }: { answer: NonNullable<Evaluation['goes_in']> }) {
  const { inks } = useTheme()
  const units = useUnits()
  const best = answer.ways[0]
  if (!best) return null
  const reach = Math.max(answer.long_mm, answer.wide_mm, ...best.outline.flat().map((mm) => 2 * Math.abs(mm as number)))
  const scale = 200 / reach
  const path = `M${best.outline.map(([x, y]) => `${(150 + (x as number) * scale).toFixed(1)},${(110 - (y as number) * scale).toFixed(1)}`).join('L')}z`
  const room = units.lengthUnitText(Math.abs(best.room_mm))
  return (
    <Box data-goes-in={answer.passes ? 'yes' : 'no'}>
      <Typography variant="body2" sx={{ fontWeight: 650, color: answer.passes ? inks.good : inks.stop }}>
        {answer.straight ? 'It goes in as it stands.' : answer.passes ? `It goes in with the ${best.leading} first${best.turned_deg > 0.05 ? `, turned ${units.number(best.turned_deg, 0)}°` : ''}, ${room} to spare.` : `It doesn’t go in: ${room} too large, at best with the ${best.leading} first.`}
      </Typography>
      <svg viewBox="0 0 300 220" width="100%" role="img" aria-label="The tank’s silhouette in the opening">
        <rect x={150 - (answer.long_mm / 2) * scale} y={110 - (answer.wide_mm / 2) * scale} width={answer.long_mm * scale} height={answer.wide_mm * scale} fill="none" stroke={inks.block} strokeWidth={3} />
        <path d={path} fill={inks.metalFill} fillOpacity={0.7} stroke={best.passes ? inks.metal : inks.stop} strokeWidth={1.6} />
      </svg>
      <Typography variant="body2" color="textSecondary">
        Straight through, all that stands on it included; tilting on the way is not calculated.
      </Typography>
    </Box>
  )
}
