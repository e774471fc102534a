import { Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'

/** Each flat face: the sheet it wants, how far it bows, and the pressure it bears in a leak test. */
export function PanelTable() {
  const panels = useWork((work) => work.evaluation?.panels) ?? []
  const proof = useWork((work) => work.evaluation?.safe_proof_kpa ?? null)
  const units = useUnits()
  return (
    <>
      {proof !== null && (
        <Typography variant="body2">
          Leak test at no more than <strong>{units.number(proof, 1)} kPa</strong>: the least of the faces at 60 % of the yield beside a weld (house rule), never above 20 kPa. Use a relief or a water column as limiter; never test a tank that holds vapour.
        </Typography>
      )}
      <Table size="small" aria-label="Faces under fuel">
        <TableHead>
          <TableRow>
            <TableCell sx={{ pl: 0 }}>Face</TableCell>
            <TableCell align="right">wants</TableCell>
            <TableCell align="right">bows</TableCell>
            <TableCell align="right" sx={{ pr: 0 }}>
              kPa
            </TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {panels.map((panel) => (
            <TableRow key={panel.name}>
              <TableCell sx={{ pl: 0 }}>
                {panel.name}
                {panel.swaged ? ', swaged' : ''}
                <Typography variant="body2" color="textSecondary">
                  {units.length(panel.long_mm)} × {units.length(panel.short_mm)}
                </Typography>
              </TableCell>
              <TableCell align="right">{units.cut(panel.least_thickness_mm)}</TableCell>
              <TableCell align="right" title={`${units.exact(panel.deflection_mm)} by the small-deflection sum, which errs high past half the thickness`}>
                {units.cut(panel.errs_safe ? panel.large_deflection_mm : panel.deflection_mm)}
              </TableCell>
              <TableCell align="right" sx={{ pr: 0 }}>
                {units.number(panel.proof_kpa, 1)}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      <Typography variant="body2" color="textSecondary">
        Edges taken as clamped, the full depth of fuel over each face at the house rule’s bump. Past half its thickness a face is stiffer than the plain sum says: the bow shown then counts its stretching.
      </Typography>
    </>
  )
}
