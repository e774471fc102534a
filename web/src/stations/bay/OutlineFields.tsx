import { Alert, Box, Button, Typography } from '@mui/material'
import type { Bay } from '../../api/model'
import { setBay } from '../../drawing/edits'
import { Choice, LengthField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useFault } from '../../work/store'
import { ClearanceFields } from './ClearanceFields'

type Outline = NonNullable<Bay['profile']>

/** The bay's true outline across one axis: what lies outside it is blocked. */
export function OutlineFields({ bay, readOnly }: { bay: Bay; readOnly: boolean }) {
  const fault = useFault('bay.profile.points')?.message
  const { inText, lengthUnit } = useUnits()
  const outline = bay.profile
  if (!outline) {
    const across = bay.length_mm
    const points = [
      { across_mm: 0, up_mm: 0 },
      { across_mm: across, up_mm: 0 },
      { across_mm: across, up_mm: Math.round(bay.height_mm * 0.7) },
      { across_mm: Math.round(across * 0.7), up_mm: bay.height_mm },
      { across_mm: 0, up_mm: bay.height_mm },
    ]
    return (
      <Button
        variant="outlined"
        disabled={readOnly}
        onClick={() => setBay({ profile: { axis: 'y', points, clearance: { kind: 'hard metal', mm: null } } })}
      >
        Type an outline
      </Button>
    )
  }
  const set = (part: Partial<Outline>) => setBay({ profile: { ...outline, ...part } })
  const point = (place: number, part: Partial<Outline['points'][number]>) =>
    set({ points: outline.points.map((item, here) => (here === place ? { ...item, ...part } : item)) })
  const after = (place: number) => {
    const [a, b] = [outline.points[place], outline.points[(place + 1) % outline.points.length]]
    if (!a || !b) return
    const middle = {
      across_mm: Math.round((a.across_mm + b.across_mm) / 2),
      up_mm: Math.round((a.up_mm + b.up_mm) / 2),
    }
    set({ points: outline.points.flatMap((item, here) => (here === place ? [item, middle] : [item])) })
  }
  return (
    <>
      <Choice
        label="Constant along the axis"
        value={outline.axis}
        options={[
          { value: 'y', label: 'the width: seen from the right' },
          { value: 'x', label: 'the length: seen from the front' },
        ]}
        disabled={readOnly}
        onChange={(axis) => set({ axis })}
      />
      {outline.points.map((item, place) => (
        <Box key={place} sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr auto auto', gap: 0.75 }}>
          <LengthField
            compact
            label={`${place + 1} across`}
            value={item.across_mm}
            disabled={readOnly}
            onCommit={(mm) => mm !== null && point(place, { across_mm: mm })}
          />
          <LengthField
            compact
            label={`${place + 1} up`}
            value={item.up_mm}
            disabled={readOnly}
            onCommit={(mm) => mm !== null && point(place, { up_mm: mm })}
          />
          <Button
            sx={{ minWidth: 44, px: 0 }}
            disabled={readOnly}
            aria-label={`A corner after ${place + 1}`}
            onClick={() => after(place)}
          >
            +
          </Button>
          <Button
            sx={{ minWidth: 44, px: 0 }}
            disabled={readOnly || outline.points.length <= 3}
            aria-label={`Remove corner ${place + 1}`}
            onClick={() => set({ points: outline.points.filter((_, here) => here !== place) })}
          >
            ×
          </Button>
        </Box>
      ))}
      {fault && <Alert severity="error">{inText(fault)}</Alert>}
      <ClearanceFields
        title="It is"
        clearance={outline.clearance}
        path="bay.profile.clearance.mm"
        disabled={readOnly}
        onChange={(clearance) => set({ clearance })}
      />
      <Button disabled={readOnly} onClick={() => setBay({ profile: null })}>
        Back to a plain box
      </Button>
      <Typography variant="body2" color="textSecondary">
        Corners in their order round the outline, in {lengthUnit}, within the bay’s sizes.
      </Typography>
    </>
  )
}
