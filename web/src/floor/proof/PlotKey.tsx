import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'

/** What the lines of the plot are. */
export function PlotKey() {
  const { inks } = useTheme()
  const lines = [
    { text: 'as read', colour: inks.quiet, style: 'dotted' },
    { text: 'corrected for temperature and barometer', colour: inks.hand, style: 'solid' },
    { text: 'largest leak allowed', colour: inks.stop, style: 'dashed' },
  ]
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2, fontSize: 13 }}>
      {lines.map(({ text, colour, style }) => (
        <Box key={text} sx={{ display: 'flex', alignItems: 'center', gap: 0.75 }}>
          <Box component="span" aria-hidden sx={{ width: 26, borderTop: `3px ${style} ${colour}` }} />
          {text}
        </Box>
      ))}
    </Box>
  )
}
