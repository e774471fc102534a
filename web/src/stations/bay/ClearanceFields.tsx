import { Box } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import * as declared from '../../api/declared'
import type { Clearance } from '../../api/model'
import { Choice, LengthField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { workshopQuery } from '../../workshop/query'

interface Props {
  title: string
  clearance: Clearance
  path: string
  disabled: boolean
  onChange: (clearance: Clearance) => void
}

/** What a neighbour is, and how far to stay away: by the house rule, or typed. */
export function ClearanceFields({ title, clearance, path, disabled, onChange }: Props) {
  const units = useUnits()
  const workshop = useQuery(workshopQuery)
  const kind = clearance.kind ?? declared.Clearance.defaults.kind
  const rule = workshop.data?.settings.rules?.clearances_mm?.[kind]
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 116px', gap: 1.5 }}>
      <Choice
        label={title}
        value={kind}
        options={declared.Clearance.choices.kind}
        disabled={disabled}
        onChange={(next) => onChange({ ...clearance, kind: next })}
      />
      <LengthField
        label="Clearance"
        value={clearance.mm ?? null}
        emptyText={rule === undefined ? 'rule' : units.length(rule)}
        hint={clearance.mm === null || clearance.mm === undefined ? 'house rule' : 'typed'}
        path={path}
        disabled={disabled}
        onCommit={(mm) => onChange({ ...clearance, mm })}
      />
    </Box>
  )
}
