import { Box, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { LoadCase, MountCheck } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { select, useWork } from '../../work/store'
import { showLoad, useMountView } from './view'

/** The load in each direction and the weakest link of each mount. */
export function LoadTable() {
  const { inks } = useTheme()
  const units = useUnits()
  const loads = useWork((work) => work.evaluation?.mount?.loads)
  const way = useMountView((view) => view.way)
  if (!loads?.mass) return null
  const shown = loads.cases.find((one) => one.way === way)
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
      <Typography variant="body2" data-mass>
        Full tank {units.quantity('kg', loads.mass.kg)}. Press a direction to see its load on the drawing.
      </Typography>
      <ToggleButtonGroup
        exclusive
        size="small"
        aria-label="Load direction"
        value={way}
        onChange={(_, next: LoadCase['way'] | null) => showLoad(next)}
        sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', '& button': { minHeight: 44 } }}
      >
        {loads.cases.map((one) => (
          <ToggleButton
            key={one.way}
            value={one.way}
            sx={{ display: 'block', lineHeight: 1.25, color: one.is_held ? undefined : inks.stop }}
          >
            {one.way}
            <Box component="span" sx={{ display: 'block', fontSize: 12 }}>
              {units.quantity('g', one.g)}: {units.quantity('n', one.load_n)}
              {!one.is_held && ', not held'}
            </Box>
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {shown && <Carried shown={shown} />}
      <Mounts mounts={loads.mounts} />
    </Box>
  )
}

/** What each mount carries of the load at hand. */
function Carried({ shown }: { shown: LoadCase }) {
  const units = useUnits()
  const { straps, feet, stops, bearers } = useWork((work) => work.design.mount)
  const name = (id: string) => [...straps, ...feet, ...stops, ...bearers].find((one) => one.id === id)?.name ?? id
  return (
    <Typography variant="body2" data-carried={shown.way}>
      {shown.by.length
        ? shown.by.map((held) => `${name(held.holder)} ${units.quantity('n', held.force_n)}`).join(' · ')
        : shown.way === 'down' && shown.is_held
          ? 'What the tank sits on carries it.'
          : 'Nothing carries it.'}
    </Typography>
  )
}

const times = (reserve: number) => (reserve >= 100 ? 'over 100' : reserve.toFixed(reserve < 10 ? 2 : 1))

function Mounts({ mounts }: { mounts: MountCheck[] }) {
  const { inks } = useTheme()
  const least = Math.min(...mounts.map((one) => one.links[0]?.reserve ?? Infinity))
  return (
    <Box component="table" aria-label="Weakest links" sx={{ fontSize: 14, width: '100%', borderCollapse: 'collapse' }}>
      <thead>
        <tr>
          <th style={{ textAlign: 'left' }}>Mount</th>
          <th style={{ textAlign: 'left' }}>Weakest link</th>
          <th style={{ textAlign: 'right' }}>Reserve</th>
        </tr>
      </thead>
      <tbody>
        {mounts.map((one) => {
          const link = one.links[0]
          const weakest = link && link.reserve === least
          return (
            <Box
              component="tr"
              key={one.id}
              data-mount={one.id}
              onClick={() => select({ kind: 'mount', id: one.id })}
              sx={{
                cursor: 'pointer',
                fontWeight: weakest ? 700 : 400,
                '& td': { borderTop: `1px solid ${inks.line}`, py: 0.5 },
              }}
            >
              <td>{one.name}</td>
              <td>{link ? `${link.name}${link.at && `, ${link.at}`}, ${link.way}` : 'carries nothing'}</td>
              <Box component="td" sx={{ textAlign: 'right', color: weakest ? inks.hand : undefined }}>
                {link ? times(link.reserve) : ''}
              </Box>
            </Box>
          )
        })}
      </tbody>
    </Box>
  )
}
