import { Box, Button, Typography } from '@mui/material'
import type { WireEnd } from '../../api/model'
import { useWork, select } from '../../work/store'
import { pressTerminal, sameEnd } from './edits'
import { useWiringView } from './view'

/** Every terminal of one thing: its wires, and a button that begins or ends one there. */
export function Terminals({
  of,
  id,
  names,
  readOnly,
}: {
  of: WireEnd['of']
  id: string
  names: readonly string[]
  readOnly: boolean
}) {
  const wires = useWork((work) => work.design.wiring.wires)
  const joined = useWork((work) => work.evaluation?.wiring?.runs?.joined)
  const from = useWiringView((view) => view.from)
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column' }}>
      {names.map((terminal) => {
        const end: WireEnd = { of, id, terminal }
        const mine = wires.filter((wire) => sameEnd(wire.start, end) || sameEnd(wire.end, end))
        return (
          <Box
            key={terminal}
            sx={{ display: 'flex', alignItems: 'center', gap: 1, minHeight: 44 }}
            data-terminal={terminal}
          >
            <Typography variant="body2" sx={{ minWidth: 56, fontWeight: 650 }}>
              {terminal}
            </Typography>
            <Box sx={{ flex: 1 }}>
              {mine.map((wire) => (
                <Button
                  key={wire.id}
                  size="small"
                  sx={{ minWidth: 44, px: 0.5 }}
                  onClick={() => select({ kind: 'wire', id: wire.id })}
                >
                  {wire.name}
                </Button>
              ))}
              {!mine.length && (
                <Typography variant="body2" color="textSecondary">
                  nothing joined
                </Typography>
              )}
            </Box>
            <Button
              size="small"
              variant="outlined"
              disabled={readOnly}
              aria-label={`${from ? 'Wire to' : 'Wire from'} ${terminal}`}
              onClick={() => pressTerminal(end, from, joined)}
            >
              {from ? 'To here' : 'Wire from'}
            </Button>
          </Box>
        )
      })}
    </Box>
  )
}
