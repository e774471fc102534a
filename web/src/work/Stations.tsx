import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { Link } from 'react-router'
import type { StationMark } from '../api/model'
import { STATIONS } from '../stations/registry'
import type { Station } from '../stations/station'
import { StationMarkIcon } from './Marks'
import { useWork } from './store'

/** The stations of the work, joined by the line the job runs along. */
export function Stations({ designId, at }: { designId: number; at: string }) {
  const { inks } = useTheme()
  return (
    <Box component="nav" aria-label="Stations" sx={{ width: { xs: 96, lg: 150 }, flexShrink: 0, background: inks.paper, borderRight: `1px solid ${inks.line}`, py: 1, overflowY: 'auto' }}>
      {STATIONS.map((station, place) => (
        <StationLink key={station.name} station={station} designId={designId} here={station.name === at} last={place === STATIONS.length - 1} />
      ))}
    </Box>
  )
}

/** Where the core judges a station its mark counts. */
const unmarked = (): StationMark | null => null

function StationLink({ station, designId, here, last }: { station: Station; designId: number; here: boolean; last: boolean }) {
  const { inks } = useTheme()
  const useMark = station.useMark ?? unmarked
  const judged = useWork((work) => work.evaluation?.stations.find((item) => item.station === station.name)?.state)
  const state = useMark(designId) ?? judged ?? 'untouched'
  return (
    <Box
      component={Link}
      to={`/designs/${designId}/${station.name}`}
      aria-current={here ? 'step' : undefined}
      data-station={station.name}
      sx={{
        position: 'relative',
        display: 'flex',
        gap: 1.2,
        px: { xs: 1, lg: 1.75 },
        py: 0.9,
        minHeight: 44,
        color: 'text.primary',
        textDecoration: 'none',
        background: here ? inks.sheet : 'transparent',
        boxShadow: here ? `inset 4px 0 0 ${inks.hand}` : 'none',
        '&:hover': { background: inks.sheet },
        '&::after': last ? undefined : { content: '""', position: 'absolute', left: { xs: 16, lg: 22 }, top: 36, bottom: -10, width: 2, background: inks.line },
      }}
    >
      <Box sx={{ pt: '2px', zIndex: 1 }}>
        <StationMarkIcon state={state} />
      </Box>
      <div>
        <Box sx={{ fontWeight: here ? 700 : 550, lineHeight: 1.3 }}>{station.title}</Box>
        <Box sx={{ fontSize: 12, color: 'text.secondary', display: { xs: 'none', lg: 'block' }, '@media (max-height: 900px)': { display: 'none' } }}>{station.about}</Box>
        <Box sx={{ fontSize: 12, color: state === 'has a stop' ? inks.stop : 'text.secondary' }}>{state}</Box>
      </div>
    </Box>
  )
}
