import { Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { LineRun } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { changeRun } from './edits'
import { portNamed } from './names'

/** Both ends by name: what is on either side, what seals it, what doesn't fit. */
export function RunEnds({ run, readOnly }: { run: LineRun; readOnly: boolean }) {
  const { inks } = useTheme()
  const units = useUnits()
  const lines = useWork((work) => work.design.lines)
  const ports = useWork((work) => work.design.ports)
  const joints = useWork((work) => work.evaluation?.lines?.joints)?.filter((joint) => joint.run === run.id) ?? []
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
      {(['start', 'end'] as const).map((side) => {
        const joint = joints.find((one) => one.side === side)
        return (
          <Box key={side} data-end={side}>
            <Typography variant="body2" sx={{ fontWeight: 650 }}>
              {side === 'start' ? 'Start' : 'End'}: {portNamed(lines, run[side], ports)}
            </Typography>
            {joint?.part_side && (
              <Typography variant="body2">
                {joint.part_side}, with {joint.line_side || 'an end that isn’t known'}; sealed by {joint.seal}
              </Typography>
            )}
            {joint && !joint.part_side && (
              <Typography variant="body2">Standard and size of its connection aren’t known.</Typography>
            )}
            {joint?.adapter && <Typography variant="body2">Adapter: {joint.adapter}</Typography>}
            {joint?.why && (
              <Typography variant="body2" sx={{ color: inks.stop }}>
                {units.say(joint.why)}
              </Typography>
            )}
          </Box>
        )
      })}
      <Button
        disabled={readOnly}
        onClick={() => changeRun(run.id, { start: run.end, end: run.start, corners: [...run.corners].reverse() })}
      >
        Turn it round
      </Button>
    </Box>
  )
}
