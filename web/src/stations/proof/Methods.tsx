import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { Folded } from '../Folded'

/** The methods side by side: what each would show here, how long it takes, what it can't see, which the figures favour. */
export function Methods() {
  const { inks } = useTheme()
  const units = useUnits()
  const methods = useWork((work) => work.evaluation?.proof?.methods)
  if (!methods?.length) return null
  return (
    <Folded title="Methods compared">
      {methods.map((one) => (
        <Box
          key={one.method}
          data-method={one.method}
          sx={{ borderLeft: `4px solid ${one.is_favoured ? inks.good : inks.line}`, pl: 1.25 }}
        >
          <b>{one.method}</b>
          {one.is_favoured && <span style={{ color: inks.good }}>, favoured by the figures</span>}
          <Box sx={{ fontVariantNumeric: 'tabular-nums' }}>
            {one.smallest_sccm === null ? 'By liquid' : `From ${units.quantity('sccm', one.smallest_sccm)}`},{' '}
            {units.quantity('min', one.minutes)}
          </Box>
          <Box sx={{ fontSize: 14 }}>
            {units.say(one.tells)}. Not seen: {units.say(one.misses)}
          </Box>
        </Box>
      ))}
    </Folded>
  )
}
