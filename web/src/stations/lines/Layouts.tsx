import { Box, ButtonBase, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { LineLayout } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { applyPatch, useWork } from '../../work/store'

/** Ways to lay the line out, each with this design's figures; a press takes one. */
export function Layouts() {
  const shown = useWork((work) => work.evaluation?.lines?.layouts)
  const readOnly = useWork((work) => work.readOnly)
  if (!shown?.length)
    return <Typography variant="body2">No pickup to draw from yet: add one at Ports first.</Typography>
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1 }} data-layouts>
      {shown.map((layout) => (
        <LayoutCard key={layout.title} layout={layout} disabled={readOnly || layout.stop !== null} />
      ))}
    </Box>
  )
}

function LayoutCard({ layout, disabled }: { layout: LineLayout; disabled: boolean }) {
  const { inks } = useTheme()
  const units = useUnits()
  return (
    <ButtonBase
      disabled={disabled}
      onClick={() => applyPatch(layout.patch)}
      data-layout={layout.title}
      sx={{
        display: 'block',
        textAlign: 'left',
        p: 1.25,
        border: `1px solid ${layout.favoured ? inks.hand : inks.line}`,
        opacity: layout.stop ? 0.75 : 1,
      }}
    >
      <Typography sx={{ fontWeight: 650 }}>
        {layout.title}
        {layout.chosen && ' – as drawn'}
      </Typography>
      {layout.favoured && layout.why && (
        <Typography variant="body2" sx={{ color: inks.hand, fontWeight: 600 }}>
          Favoured: {units.say(layout.why)}
        </Typography>
      )}
      {layout.stop ? (
        <Typography variant="body2" sx={{ color: inks.stop }}>
          {units.say(layout.stop)}
        </Typography>
      ) : (
        <Typography variant="body2">
          {[
            `${layout.joints} joints`,
            `${layout.parts} parts`,
            units.quantity('m', layout.metres),
            layout.idle_kpa !== null && layout.full_kpa !== null
              ? `${units.pressure(layout.idle_kpa)} at idle, ${units.pressure(layout.full_kpa)} at full power`
              : '',
            layout.failing.length
              ? `lacks fuel or pressure in ${layout.failing.length} of ${layout.modes} modes`
              : `suffices in all ${layout.modes} modes`,
          ]
            .filter(Boolean)
            .join(' · ')}
        </Typography>
      )}
      <Typography variant="body2" color="textSecondary">
        {units.say(layout.means)}
      </Typography>
    </ButtonBase>
  )
}
