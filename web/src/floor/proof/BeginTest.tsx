import { Box, Button } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useState } from 'react'
import * as declared from '../../api/declared'
import type { Build, CellPlan, ProofMethod } from '../../api/model'
import { Choice, QuantityField, Toggle } from '../../fields/fields'
import { useUnits } from '../../units/useUnits'
import { record } from '../build'
import { GateCard } from '../GateCard'
import { newId } from '../outbox'
import { cellOf, leastOf, VAPOUR } from './proof'

const BY_READINGS: ProofMethod = 'pressure decay'
const ON_PAPER: ProofMethod = 'filled, on dry paper'

/** What a test is begun with: the plan's figures, and what has to be so before air goes in. */
export function BeginTest({ build, plan, onBegun }: { build: Build; plan: CellPlan; onBegun: (id: string) => void }) {
  const { inks } = useTheme()
  const units = useUnits()
  const [method, setMethod] = useState<ProofMethod>(build.plan?.method ?? BY_READINGS)
  const [pressure, setPressure] = useState(plan.pressure_kpa)
  const [limiter, setLimiter] = useState(plan.limiter_kpa)
  const [typed, setMinutes] = useState<number | null>(null)
  const [open, setOpen] = useState(false)
  const [simulated, setSimulated] = useState(false)
  const vapour = build.state.gates.find((one) => one.gate.id === VAPOUR)
  const byReadings = method === BY_READINGS
  const byAir = method !== ON_PAPER
  const watched = method === 'submerged' ? build.plan?.submerged_min : build.plan?.on_paper_min
  const least = byReadings ? leastOf(plan.least_min) : (watched ?? 0)
  const minutes = typed ?? (byReadings ? plan.minutes : least)
  const own = build.state.operations.find((one) => cellOf(one.operation) === plan.cell)
  const ahead = build.state.operations.find((one) => one.operation.id === own?.waits_for[0])
  const begin = async () => {
    const id = newId()
    await record(build, {
      kind: 'proof begun',
      id,
      subject: plan.cell,
      method,
      pressure_kpa: pressure,
      limiter: build.plan?.limiter,
      limiter_kpa: limiter,
      minutes: method === 'soap and low pressure' ? null : minutes,
      neighbours_open: open ? plan.neighbours : [],
      braces: build.plan?.braces ?? 0,
      gauge: byReadings ? build.plan?.gauge : null,
      simulated: byReadings && simulated,
    })
    onBegun(id)
  }
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.5 }} data-begin={plan.cell}>
      {ahead && (
        <Box sx={{ color: inks.caution }} data-ahead={ahead.operation.id}>
          Not done yet: {units.say(ahead.operation.title)}. Heat afterwards voids the test.
        </Box>
      )}
      {vapour && byAir && vapour.standing === 'shut' && <GateCard build={build} state={vapour} mayWrite />}
      <Choice
        label="Method"
        value={method}
        options={declared.Proof.choices.method.map((value) => ({ value, label: value }))}
        onChange={(value) => setMethod(value as ProofMethod)}
      />
      {byAir && (
        <>
          <QuantityField
            of="finekpa"
            label="Test pressure"
            value={pressure}
            hint={`bears ${units.quantity('finekpa', plan.bears_kpa)}: ${plan.is_capped ? 'house rule' : (plan.panels[0]?.name ?? '')}`}
            onCommit={(value) => value && setPressure(value)}
          />
          <QuantityField
            of="finekpa"
            label={build.plan?.limiter === 'water column' ? 'Water column opens at' : 'Relief valve opens at'}
            value={limiter}
            hint={`a column of ${units.lengthUnitText(Math.round(102 * limiter))} of water`}
            onCommit={(value) => value && setLimiter(value)}
          />
        </>
      )}
      {method !== 'soap and low pressure' && (
        <QuantityField
          of="min"
          label="Length"
          value={minutes}
          hint={`at least ${units.quantity('min', least)}`}
          onCommit={(value) => value && setMinutes(value)}
        />
      )}
      {method === 'submerged' && (
        <Box sx={{ background: inks.handFill, p: 1.25, fontSize: 15 }}>
          A tank under water lifts and rolls: {units.quantity('n', plan.hold_down_n)} hold it down. Its lowest seam no
          deeper than {units.lengthUnitText(Math.floor(plan.deepest_mm))}: below that water is pressed in.
        </Box>
      )}
      {plan.neighbours.length > 0 && byAir && (
        <Toggle label={`${plan.neighbours.join(', ')} stands open`} checked={open} onChange={setOpen} />
      )}
      {byReadings && <Toggle label="Simulated gauge (proves nothing)" checked={simulated} onChange={setSimulated} />}
      <Box sx={{ background: inks.handFill, p: 1.25, fontSize: 15 }}>
        Air in a tank throws plugs and splits seams: limiter tried, plugs tied, goggles on, a regulator before it.
      </Box>
      <Button variant="contained" sx={{ minHeight: 56 }} onClick={() => void begin()}>
        {byAir ? 'Tank is shut and at pressure: begin' : 'Tank is filled and stands on paper: begin'}
      </Button>
    </Box>
  )
}
