import { Box, ButtonBase, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { Schemas } from '../../api/client'
import type { Patch } from '../../api/model'
import { isNumber } from '../../units/number'
import { useUnits } from '../../units/useUnits'
import { applyPatch, useWork } from '../../work/store'

type Way = Schemas['HoldingWay']

/** Ways to hold the tank with what each takes, the favoured one first: a press holds it so. */
export function HoldingWays() {
  const ways = useWork((work) => work.evaluation?.mount?.ways)
  const readOnly = useWork((work) => work.readOnly)
  if (!ways?.length) return null
  const rank = (way: Way) => (way.favoured ? 0 : way.stop || way.unheld.length ? 2 : 1)
  return (
    <Box component="section" aria-label="Ways to hold it" sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
      {[...ways]
        .sort((a, b) => rank(a) - rank(b))
        .map((way) => (
          <Card key={way.title} way={way} readOnly={readOnly} />
        ))}
      <Typography variant="body2" color="text.secondary">
        Reserves are for the loads chosen under “Loads for”. Masses leave out bolts and pads; a stop counts as a bracket
        of plate, a foot as a plate.
      </Typography>
    </Box>
  )
}

function Card({ way, readOnly }: { way: Way; readOnly: boolean }) {
  const { inks } = useTheme()
  const units = useUnits()
  const weld = way.weld_mm ? `${units.lengthUnitText(way.weld_mm)} of weld` : 'no weld'
  const limit = `limit ${units.number(way.least_reserve, 1)} (house rule)`
  const reserve = isNumber(way.reserve)
    ? `Least reserve ${units.number(way.reserve, 1)}, ${limit}: ${way.weakest}.`
    : 'Reserve not known: nor is the full tank’s mass.'
  return (
    <ButtonBase
      data-way-to-hold={way.title}
      aria-pressed={way.chosen}
      disabled={readOnly || Boolean(way.stop)}
      onClick={() => applyPatch(way.patch as Patch)}
      sx={{
        display: 'block',
        textAlign: 'left',
        p: 1.25,
        border: `1px solid ${way.chosen ? inks.hand : inks.line}`,
        background: way.chosen ? inks.handFill : 'transparent',
        '&:focus-visible': { outline: `2px solid ${inks.hand}`, outlineOffset: 2 },
      }}
    >
      <Typography sx={{ fontWeight: 650, textDecoration: way.stop ? 'line-through' : 'none' }}>{way.title}</Typography>
      {way.why && (
        <Typography variant="body2" sx={{ fontWeight: 700, color: inks.hand }}>
          The figures favour it: {units.say(way.why)}
        </Typography>
      )}
      {way.stop && (
        <Typography variant="body2" sx={{ color: inks.stop }}>
          {units.say(way.stop)}
        </Typography>
      )}
      {way.unheld.length > 0 && (
        <Typography variant="body2" sx={{ color: inks.stop }}>
          Nothing holds it {way.unheld.join(', ')}
        </Typography>
      )}
      <Typography variant="body2">
        Adds {units.quantity('kg', way.kg)} in {way.pieces} pieces, {way.bolts} bolts through the vehicle, {weld} on the
        tank. {reserve}
      </Typography>
      <Typography variant="body2" color="text.secondary">
        {units.say(way.means)}
      </Typography>
    </ButtonBase>
  )
}
