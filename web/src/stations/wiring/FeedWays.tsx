import { Box, ButtonBase, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { FeedWay } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { applyPatch, useWork } from '../../work/store'

/** Ways to feed the pumps, each with this design's figures; a press draws one. */
export function FeedWays() {
  const shown = useWork((work) => work.evaluation?.wiring?.feeds)
  const readOnly = useWork((work) => work.readOnly)
  if (!shown?.length)
    return (
      <Typography variant="body2">
        Ways are drawn for one to five electric pumps: draw them at Lines first, or add devices here one by one.
      </Typography>
    )
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1 }} data-feeds>
      {shown.map((way) => (
        <Way key={way.title} way={way} disabled={readOnly} />
      ))}
    </Box>
  )
}

function Way({ way, disabled }: { way: FeedWay; disabled: boolean }) {
  const { inks } = useTheme()
  const units = useUnits()
  return (
    <ButtonBase
      disabled={disabled}
      onClick={() => applyPatch(way.patch)}
      data-feed={way.title}
      sx={{
        display: 'block',
        textAlign: 'left',
        p: 1.25,
        border: `1px solid ${way.favoured ? inks.hand : inks.line}`,
      }}
    >
      <Typography sx={{ fontWeight: 650 }}>
        {way.title}
        {way.chosen && ' – as drawn'}
      </Typography>
      {way.favoured && way.why && (
        <Typography variant="body2" sx={{ color: inks.hand, fontWeight: 600 }}>
          Favoured: {units.say(way.why)}
        </Typography>
      )}
      <Typography variant="body2">
        {[
          `${way.wires} wires, ${units.quantity('m', way.metres, 1)}`,
          `up to ${units.wire(way.thickest_mm2)}`,
          way.drop_v === null ? '' : `${way.drop_v.toFixed(2)} V lost`,
          `${units.quantity('m', way.live_m, 1)} live after a crash`,
        ]
          .filter(Boolean)
          .join(' · ')}
      </Typography>
      <Typography variant="body2" color="textSecondary">
        {units.say(way.means)}
      </Typography>
    </ButtonBase>
  )
}
