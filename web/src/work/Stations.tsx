import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import type { StationMark, StationName } from '../api/model'
import { calibrationsQuery } from '../stations/bench/bench'
import { useRun } from '../stations/slosh/slosh'
import { StationMarkIcon } from './Marks'
import { useWork } from './store'

export const STATIONS: { name: StationName; title: string; about: string }[] = [
  { name: 'brief', title: 'Brief', about: 'fuel and target' },
  { name: 'bay', title: 'Bay', about: 'the measured space' },
  { name: 'shell', title: 'Shell', about: 'shape and capacity' },
  { name: 'inside', title: 'Inside', about: 'baffles, foam, bladder' },
  { name: 'ports', title: 'Ports', about: 'in, out and air' },
  { name: 'slosh', title: 'Slosh', about: 'where it starves' },
  { name: 'gauge', title: 'Gauge', about: 'senders and needle' },
  { name: 'bench', title: 'Bench', about: 'measured by pouring' },
  { name: 'sheet', title: 'Sheet', about: 'flat parts' },
]

/** The stations of the work, joined by the line the job runs along. */
export function Stations({ designId, at }: { designId: number; at: StationName }) {
  const { inks } = useTheme()
  const states = useWork((work) => work.evaluation?.stations)
  const bench = useBenchState(designId)
  const slosh = useSloshState()
  return (
    <Box component="nav" aria-label="Stations" sx={{ width: { xs: 96, lg: 150 }, flexShrink: 0, background: inks.paper, borderRight: `1px solid ${inks.line}`, py: 1, overflowY: 'auto' }}>
      {STATIONS.map(({ name, title, about }, place) => {
        const state = name === 'bench' ? bench : name === 'slosh' ? slosh : (states?.find((item) => item.station === name)?.state ?? 'untouched')
        const here = name === at
        return (
          <Box
            key={name}
            component={Link}
            to={`/designs/${designId}/${name}`}
            aria-current={here ? 'step' : undefined}
            data-station={name}
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
              '&::after': place < STATIONS.length - 1 ? { content: '""', position: 'absolute', left: { xs: 16, lg: 22 }, top: 36, bottom: -10, width: 2, background: inks.line } : undefined,
            }}
          >
            <Box sx={{ pt: '2px', zIndex: 1 }}>
              <StationMarkIcon state={state} />
            </Box>
            <div>
              <Box sx={{ fontWeight: here ? 700 : 550, lineHeight: 1.3 }}>{title}</Box>
              <Box sx={{ fontSize: 12, color: 'text.secondary', display: { xs: 'none', lg: 'block' }, '@media (max-height: 900px)': { display: 'none' } }}>{about}</Box>
              <Box sx={{ fontSize: 12, color: state === 'has a stop' ? inks.stop : 'text.secondary' }}>{state}</Box>
            </div>
          </Box>
        )
      })}
    </Box>
  )
}

/** The bench judges nothing: it is settled when its last calibration was kept. */
function useBenchState(designId: number): StationMark {
  const last = useQuery(calibrationsQuery(designId)).data?.[0]
  if (!last) return 'untouched'
  return last.closed ? 'settled' : 'in work'
}

/** A run settles it when nothing runs dry. */
function useSloshState(): StationMark {
  return useRun((state) => (!state.run ? 'untouched' : state.run.spells.length ? 'in work' : 'settled'))
}
