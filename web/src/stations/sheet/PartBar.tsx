import { Box, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { FlatPart } from '../../api/model'
import { Toggle } from '../../fields/fields'
import { Papers } from '../../papers/Papers'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { BentFromOneSheet } from '../shell/BentFromOneSheet'
import { markCut, sendOut } from './edits'

/** The chosen part: who makes it, what cuts it, its files. */
export function PartBar({ part }: { part: FlatPart }) {
  const sent = useWork((work) => work.design.sheet?.sent_out)
  const cutting = useWork((work) => work.evaluation?.sheet?.cutting)
  const cutAlready = useWork((work) => work.design.sheet?.cut)
  const readOnly = useWork((work) => work.readOnly)
  const feature = useWork((work) => work.design.shell?.features.find(({ id }) => id === part.feature))
  const { inks } = useTheme()
  const units = useUnits()
  const cut = cutting?.find((one) => one.name === part.name)
  const isSent = sent?.includes(part.name) ?? false
  const left = cut?.holes_left_mm.map((mm) => `⌀ ${units.length(mm as number)}`).join(', ')
  const words = [
    cut?.by.length ? `Cut with ${cut.by.join(' or ')}${cut.loud ? ', all loud' : ''}.` : '',
    cut?.holes_by.length ? `Holes with ${cut.holes_by.join(', ')}.` : '',
    left ? `Nothing here cuts holes ${left}.` : '',
  ]
  return (
    <Box
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'center',
        columnGap: 1.5,
        px: 1.5,
        py: 0.5,
        flex: 'none',
        borderBottom: `1px solid ${inks.line}`,
      }}
    >
      <Toggle
        compact
        label="Sent out"
        checked={isSent}
        disabled={readOnly}
        onChange={(next) => sendOut(part.name, next)}
      />
      <Toggle
        compact
        label="Cut already"
        checked={cutAlready?.includes(part.name) ?? false}
        disabled={readOnly}
        onChange={(next) => markCut(part.name, next)}
      />
      {feature && <BentFromOneSheet compact feature={feature} readOnly={readOnly} />}
      <Papers
        compact
        station="sheet"
        only={(name) => [`${part.name}.dxf`, `${part.name}.svg`, `send-out-${part.name}.pdf`].includes(name)}
      />
      <Typography sx={{ fontSize: 12, color: inks.quiet }}>{words.filter(Boolean).join(' ')}</Typography>
    </Box>
  )
}
