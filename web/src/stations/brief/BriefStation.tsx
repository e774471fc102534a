import { Box, TextField, Typography } from '@mui/material'
import { type ReactNode, useState } from 'react'
import type { Brief } from '../../api/model'
import { Choice, VolumeField } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { change, useFault, useWork } from '../../work/store'

const FUELS: Brief['fuel'][] = ['petrol E10', 'race petrol', 'E85', 'methanol', 'diesel', 'kerosene', 'avgas 100']

const setBrief = (part: Partial<Brief>) => change((design) => ({ ...design, brief: { ...design.brief, ...part } as Brief }))

export function BriefStation({ findings }: { findings: ReactNode }) {
  const brief = useWork((work) => work.design.brief)
  const figures = useWork((work) => work.evaluation?.figures)
  const readOnly = useWork((work) => work.readOnly)
  const fault = useFault('brief.target_l')
  const units = useUnits()
  const target = brief?.target_l ?? null
  return (
    <>
      <Choice label="Fuel" value={brief?.fuel ?? 'petrol E10'} options={FUELS} onChange={(fuel) => setBrief({ fuel })} disabled={readOnly} />
      <VolumeField label="Target, rated capacity" value={target} emptyText="none yet" fault={fault} hint="What has to go in with room left to expand" onCommit={(value) => setBrief({ target_l: value })} disabled={readOnly} />
      <Reason key={brief?.reason} value={brief?.reason ?? ''} disabled={readOnly} />
      {figures && target !== null && (
        <Box>
          <Typography variant="body2" color="textSecondary">
            The tank as drawn is rated {units.volumeUnitText(figures.rated_l)}:{' '}
            {Math.abs(figures.rated_l - target) < 0.005 ? 'just the target.' : `${units.volumeUnitText(Math.abs(figures.rated_l - target))} ${figures.rated_l < target ? 'less' : 'more'} than asked.`}
          </Typography>
        </Box>
      )}
      {findings}
    </>
  )
}

function Reason({ value, disabled }: { value: string; disabled: boolean }) {
  const [text, setText] = useState(value)
  return (
    <TextField
      label="Why this much"
      multiline
      minRows={3}
      value={text}
      disabled={disabled}
      helperText="Range, hours, a stint, or the customer’s own figure"
      onChange={(event) => setText(event.target.value)}
      onBlur={() => setBrief({ reason: text.slice(0, 2000) })}
    />
  )
}
