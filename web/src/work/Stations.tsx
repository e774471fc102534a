import { Box, ButtonBase } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { readOutOnly } from '../app/hidden'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Finding, StationMark } from '../api/model'
import { stations } from '../stations/registry'
import type { Group, Station } from '../stations/station'
import { StationMarkIcon } from './Marks'
import { useWork } from './store'

const GROUPS: [Group, string][] = [
  ['design', 'Design'],
  ['make', 'Make'],
  ['fit', 'Fit'],
]
const FOLDED = 'folded groups'
const NONE: Finding[] = []

/** The stations of the work in their groups; a group folds away and stays so. */
export function Stations({ designId, at }: { designId: number; at: string }) {
  const { inks } = useTheme()
  const [folded, setFolded] = useState(() => new Set(localStorage.getItem(FOLDED)?.split(' ') ?? []))
  const fold = (group: Group) => {
    const next = new Set(folded)
    if (!next.delete(group)) next.add(group)
    localStorage.setItem(FOLDED, [...next].join(' '))
    setFolded(next)
  }
  return (
    <Box
      component="nav"
      aria-label="Stations"
      sx={{
        width: { xs: 112, lg: 150 },
        flexShrink: 0,
        background: inks.paper,
        borderRight: `1px solid ${inks.line}`,
        py: 0.5,
        overflowY: 'auto',
      }}
    >
      {GROUPS.map(([group, title]) => {
        const within = stations().filter((station) => station.group === group)
        if (!within.length) return null
        const open = !folded.has(group)
        return (
          <Box key={group} component="section" aria-label={title}>
            <ButtonBase
              onClick={() => fold(group)}
              aria-expanded={open}
              data-group={group}
              sx={{
                width: '100%',
                minHeight: 24,
                justifyContent: 'space-between',
                px: { xs: 1, lg: 1.75 },
                fontFamily: 'inherit',
                fontSize: 12,
                fontWeight: 650,
                letterSpacing: '0.04em',
                color: 'text.secondary',
                '&:hover': { background: inks.sheet },
              }}
            >
              {title}
              <Box component="span" aria-hidden sx={{ transform: open ? 'none' : 'rotate(-90deg)' }}>
                ▾
              </Box>
            </ButtonBase>
            {within.map(
              (station) =>
                (open || station.name === at) && (
                  <StationLink key={station.name} station={station} designId={designId} here={station.name === at} />
                ),
            )}
          </Box>
        )
      })}
    </Box>
  )
}

/** Where the core judges a station its mark counts. */
const unmarked = (): StationMark | null => null

function StationLink({ station, designId, here }: { station: Station; designId: number; here: boolean }) {
  const { inks } = useTheme()
  const useMark = station.useMark ?? unmarked
  const judged = useWork((work) => work.evaluation?.stations.find((item) => item.station === station.name)?.state)
  const open = useWork((work) => work.evaluation?.findings ?? NONE).filter(
    (finding) => finding.station === station.name && finding.severity !== 'note',
  ).length
  const state = useMark(designId) ?? judged ?? 'not judged yet'
  const said = open ? `${state}, ${open} open` : state
  return (
    <Box
      component={Link}
      to={`/designs/${designId}/${station.name}`}
      aria-current={here ? 'step' : undefined}
      data-station={station.name}
      data-state={state}
      title={`${station.about}; ${said}`}
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1.1,
        px: { xs: 1, lg: 1.75 },
        minHeight: 36,
        color: 'text.primary',
        textDecoration: 'none',
        background: here ? inks.sheet : 'transparent',
        boxShadow: here ? `inset 4px 0 0 ${inks.hand}` : 'none',
        '&:hover': { background: inks.sheet },
      }}
    >
      <StationMarkIcon state={state} />
      <Box sx={{ flex: 1, fontWeight: here ? 700 : 550 }}>{station.title}</Box>
      <Box sx={readOutOnly}>, {state}</Box>
      {open > 0 && (
        <Box
          sx={{
            fontSize: 12,
            fontVariantNumeric: 'tabular-nums',
            color: state === 'blocked' ? inks.stop : 'text.secondary',
          }}
        >
          {open}
        </Box>
      )}
      {open > 0 && <Box sx={readOutOnly}> open</Box>}
    </Box>
  )
}
