import { Alert, Box, Button, Typography } from '@mui/material'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { api, asked } from '../../api/client'
import { Choice, QuantityField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { takeAsBent } from './edits'

/** A bend of the section that was measured otherwise: how far the seam stands open, and the section pulled together. */
export function AsBent() {
  const design = useWork((work) => work.design)
  const angles = useWork((work) => work.evaluation?.sheet?.angles)
  const readOnly = useWork((work) => work.readOnly)
  const units = useUnits()
  const [corner, setCorner] = useState('0')
  const answer = useMutation({
    mutationFn: (built_deg: number) =>
      asked(api.POST('/api/sheet/as-bent', { body: { design, corner: Number(corner), built_deg } })),
  })
  const angle = angles?.[Number(corner)] ?? angles?.[0]
  if (!angles || !angle) return null
  const bent = answer.data
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.5 }}>
      <Choice
        label="Bend that came out otherwise"
        value={corner}
        options={angles.map(({ name }, n) => ({ value: String(n), label: name }))}
        disabled={readOnly}
        onChange={(next) => {
          setCorner(next)
          answer.reset()
        }}
      />
      <QuantityField
        key={corner}
        label="Angle inside, measured"
        of="deg"
        value={null}
        emptyText={units.number(angle.angle_deg, 1)}
        disabled={readOnly}
        onCommit={(deg) => deg !== null && answer.mutate(deg)}
      />
      {answer.isError && <Alert severity="error">{answer.error.message}</Alert>}
      {bent && (
        <Typography variant="body2">
          With the other bends as planned the seam stands open by <strong>{units.lengthUnitText(bent.gap_mm)}</strong>.{' '}
          {bent.built
            ? 'Pulled together, every side as long as it is, the section leans: square ends no longer fit.'
            : 'With more than four sides the other bends give as they will: measure the corners and type them above.'}
        </Typography>
      )}
      {bent?.built && !readOnly && (
        <Button
          variant="outlined"
          onClick={() => {
            takeAsBent(bent)
            answer.reset()
          }}
        >
          Apply as bent
        </Button>
      )}
    </Box>
  )
}
