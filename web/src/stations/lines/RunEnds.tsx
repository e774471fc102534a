import { Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import type { LineRun } from '../../api/model'
import { BoreField, LengthField, Toggle } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import { pair } from '../Row'
import { changeRun } from './edits'
import { portNamed } from './names'

/** A piece between part and line: its length and bore, and whether it is made for this job. */
function AdapterFields({ run, side, readOnly }: { run: LineRun; side: 'start' | 'end'; readOnly: boolean }) {
  const place = useWork((work) => work.design.lines.runs.indexOf(run))
  const { adapter } = run[side]
  if (!adapter) return null
  const change = (part: Partial<NonNullable<typeof adapter>>) =>
    changeRun(run.id, { [side]: { ...run[side], adapter: { ...adapter, ...part } } })
  const path = `lines.runs.${place}.${side}.adapter`
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1, my: 1 }}>
      <Box sx={pair}>
        <LengthField
          label="Seat to seat"
          value={adapter.length_mm || null}
          emptyText="shortest"
          path={`${path}.length_mm`}
          disabled={readOnly}
          onCommit={(mm) => change({ length_mm: mm ?? 0 })}
        />
        <BoreField
          label="Bore to keep"
          value={adapter.bore_mm ?? null}
          emptyText="its ends’"
          path={`${path}.bore_mm`}
          disabled={readOnly}
          onCommit={(bore_mm) => change({ bore_mm })}
        />
      </Box>
      <Toggle
        label="Made for this job: a sheet of its own"
        checked={adapter.special}
        disabled={readOnly}
        onChange={(special) => change({ special })}
      />
      <Button disabled={readOnly} onClick={() => changeRun(run.id, { [side]: { ...run[side], adapter: null } })}>
        Remove the adapter
      </Button>
    </Box>
  )
}

/** Both ends by name: what is on either side, what seals it, what doesn't fit. */
export function RunEnds({ run, readOnly }: { run: LineRun; readOnly: boolean }) {
  const { inks } = useTheme()
  const units = useUnits()
  const lines = useWork((work) => work.design.lines)
  const ports = useWork((work) => work.design.ports)
  const joints = useWork((work) => work.evaluation?.lines?.joints)?.filter((joint) => joint.run === run.id) ?? []
  const pushed = useWork((work) => work.evaluation?.lines?.pushed)?.filter((one) => one.run === run.id) ?? []
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
            {pushed.some((one) => one.side === side) && (
              <LengthField
                label="Pushed on"
                value={run[side].pushed_mm ?? null}
                emptyText={units.length(pushed.find((one) => one.side === side)?.least_mm ?? 0)}
                path={`lines.runs.${lines.runs.indexOf(run)}.${side}.pushed_mm`}
                disabled={readOnly}
                onCommit={(pushed_mm) => changeRun(run.id, { [side]: { ...run[side], pushed_mm } })}
              />
            )}
            {run[side].adapter && <AdapterFields run={run} side={side} readOnly={readOnly} />}
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
