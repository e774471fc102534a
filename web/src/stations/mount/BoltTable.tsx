import { Box, Typography } from '@mui/material'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'

/** Every bolt: how many, which, how long, how it is locked. */
export function BoltTable() {
  const units = useUnits()
  const rows = useWork((work) => work.evaluation?.mount?.bolts) ?? []
  return (
    <>
      <Box component="table" aria-label="Bolts" sx={{ fontSize: 14, '& td, & th': { textAlign: 'left', py: 0.4 } }}>
        <thead>
          <tr>
            <th>Place</th>
            <th>Bolt</th>
            <th>Length</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.id}>
              <td>{row.name}</td>
              <td>
                {row.count} × {row.size} {row.grade}, {row.captive ? 'captive nut' : row.locking}
              </td>
              <td>{row.length_mm === null ? 'none long enough' : units.lengthUnitText(row.length_mm)}</td>
            </tr>
          ))}
        </tbody>
      </Box>
      <Typography variant="body2">
        Put all bolts in loose first. Tighten only when the tank sits right, from the middle outward, and mark each one.
      </Typography>
    </>
  )
}
