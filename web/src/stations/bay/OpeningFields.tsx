import * as declared from '../../api/declared'
import type { Schemas } from '../../api/client'
import { Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { Bay, Opening } from '../../api/model'
import { setBay } from '../../drawing/edits'
import { Choice, LengthField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Sheet } from '../Board'

/** The opening, and whether the tank goes in through it, which way round, by how much. */
export function OpeningFields({ bay, readOnly }: { bay: Bay; readOnly: boolean }) {
  const answer = useWork((work) => work.evaluation?.bay?.goes_in ?? null)
  const { opening } = bay
  if (!opening) {
    const whole: Opening = {
      ...declared.Opening.defaults,
      a_mm: 0,
      b_mm: 0,
      long_mm: bay.length_mm,
      wide_mm: bay.width_mm,
    }
    return (
      <>
        <Typography variant="body2" color="textSecondary">
          Without an opening, the bay counts as open on one side.
        </Typography>
        <Button variant="outlined" disabled={readOnly} onClick={() => setBay({ opening: whole })}>
          Measure an opening
        </Button>
      </>
    )
  }
  const set = (part: Partial<Opening>) => setBay({ opening: { ...opening, ...part } })
  const level = opening.side === 'roof' || opening.side === 'floor'
  const [first, second] = level
    ? ['rear', 'right']
    : opening.side === 'front' || opening.side === 'rear'
      ? ['right', 'floor']
      : ['rear', 'floor']
  return (
    <>
      <Choice
        label="Side of the bay"
        value={opening.side}
        options={declared.Opening.choices.side}
        disabled={readOnly}
        onChange={(side) => set({ side })}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        <Field label={`From ${first}`} name="a_mm" opening={opening} set={set} readOnly={readOnly} />
        <Field label={`From ${second}`} name="b_mm" opening={opening} set={set} readOnly={readOnly} />
        <Field
          label={first === 'rear' ? 'Length' : 'Width'}
          name="long_mm"
          opening={opening}
          set={set}
          readOnly={readOnly}
        />
        <Field
          label={second === 'right' ? 'Width' : 'Height'}
          name="wide_mm"
          opening={opening}
          set={set}
          readOnly={readOnly}
        />
      </Box>
      {answer && <Answer answer={answer} />}
      <Button disabled={readOnly} onClick={() => setBay({ opening: null })}>
        Remove the opening
      </Button>
    </>
  )
}

function Field({
  label,
  name,
  opening,
  set,
  readOnly,
}: {
  label: string
  name: 'a_mm' | 'b_mm' | 'long_mm' | 'wide_mm'
  opening: Opening
  set: (part: Partial<Opening>) => void
  readOnly: boolean
}) {
  return (
    <LengthField
      label={label}
      value={opening[name]}
      path={`bay.opening.${name}`}
      disabled={readOnly}
      onCommit={(mm) => mm !== null && set({ [name]: mm })}
    />
  )
}

type GoesIn = Schemas['GoesIn']
type Passage = GoesIn['ways'][number]

/** How the tank is held, in words. */
function heldAs(way: Passage, degrees: (value: number) => string): string {
  if (way.as_it_stands) return 'in its installed orientation'
  if (way.leaning_deg > 0.1) return `${way.leading} first, leaning ${degrees(way.leaning_deg)} to ${way.leaning_to}`
  return `${way.leading} first${way.turned_deg > 0.1 ? `, turned ${degrees(way.turned_deg)}` : ''}`
}

/** The tank's silhouette as it goes through, in the opening, at one scale; then every way that was tried. */
function Answer({ answer }: { answer: GoesIn }) {
  const { inks } = useTheme()
  const units = useUnits()
  const degrees = (value: number) => `${units.number(value, 0)}°`
  const best = answer.bare[0] ?? answer.ways[0]
  if (!best) return null
  const reach = Math.max(answer.long_mm, answer.wide_mm, ...best.outline.flat().map((mm) => 2 * Math.abs(mm as number)))
  const scale = 200 / reach
  const path = `M${best.outline.map(([x, y]) => `${(150 + (x as number) * scale).toFixed(1)},${(110 - (y as number) * scale).toFixed(1)}`).join('L')}z`
  const room = units.lengthUnitText(Math.abs(best.room_mm))
  const off = answer.off.length ? `, with ${answer.off.join(', ')} off` : ''
  return (
    <Box data-goes-in={answer.passes ? 'yes' : 'no'}>
      <Typography
        variant="body2"
        sx={{ fontWeight: 650, color: !answer.passes ? inks.stop : best.turns_inside ? inks.caution : inks.good }}
      >
        {answer.passes
          ? `Passes the opening ${heldAs(best, degrees)}${off}, ${room} to spare.`
          : `Doesn’t pass the opening: ${room} too large, at best ${heldAs(best, degrees)}${off}.`}
      </Typography>
      {best.turns_inside && (
        <Typography variant="body2" sx={{ color: inks.caution }}>
          It reaches {units.lengthUnitText(best.deep_mm)} along that way and the bay is{' '}
          {units.lengthUnitText(answer.deep_mm)} deep: it turns while in the opening.
        </Typography>
      )}
      <svg viewBox="0 0 300 220" width="100%" role="img" aria-label="The tank’s silhouette in the opening">
        <rect
          x={150 - (answer.long_mm / 2) * scale}
          y={110 - (answer.wide_mm / 2) * scale}
          width={answer.long_mm * scale}
          height={answer.wide_mm * scale}
          fill="none"
          stroke={inks.block}
          strokeWidth={3}
        />
        <path
          d={path}
          fill={inks.metalFill}
          fillOpacity={0.7}
          stroke={best.passes ? inks.metal : inks.stop}
          strokeWidth={1.6}
        />
      </svg>
      <Ways
        heading={answer.bare.length ? 'With everything on' : 'All ways tried'}
        ways={answer.ways}
        named={(way) => heldAs(way, degrees)}
      />
      {answer.bare.length > 0 && (
        <Ways heading={`With ${answer.off.join(', ')} off`} ways={answer.bare} named={(way) => heldAs(way, degrees)} />
      )}
      <Typography variant="body2" color="textSecondary">
        Moved straight through. Turning it on the way isn’t calculated.
      </Typography>
    </Box>
  )
}

/** Ways to hold it, and the room that each leaves or lacks. */
function Ways({ heading, ways, named }: { heading: string; ways: Passage[]; named: (way: Passage) => string }) {
  const units = useUnits()
  return (
    <Sheet
      label={heading}
      columns={[{ name: heading }, { name: 'room left', right: true }]}
      rows={ways.map((way) => ({
        key: named(way),
        strong: way.passes,
        cells: [named(way), `${way.room_mm < 0 ? '−' : ''}${units.lengthUnitText(Math.abs(way.room_mm))}`],
      }))}
    />
  )
}
