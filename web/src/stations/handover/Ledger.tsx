import { Box, Button, ButtonBase, TextField } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { type ReactNode, useState } from 'react'
import { Link } from 'react-router'
import type { Build, OpenItem } from '../../api/model'
import { Choice } from '../../fields/fields'
import { record, VISIT } from '../../floor/build'
import { chooseJoint } from '../../floor/handover/atHand'
import { ReasonDialog } from '../../floor/ReasonDialog'
import { useUnits } from '../../units/useUnits'
import { select, useWork } from '../../work/store'
import { Folded } from '../Folded'
import { stationOf } from '../registry'
import { chooseStep } from './steps'

const BEFORE: OpenItem['before'][] = ['first fuel', 'engine running', 'hand-over']
const WHY = ['temporary', 'loose', 'untied', 'missing', 'held open', 'unknown', 'to be coated'] as const
const MOST = 400

interface Props {
  build: Build
  mayWrite: boolean
  /** Turns to the steps. */
  onStep: () => void
}

/** Everything open, by the step that it has to be closed before; a press leads to where it is closed. */
export function Ledger({ build, mayWrite, onStep }: Props) {
  const { inks } = useTheme()
  const { ledger } = build.state
  const staying = ledger.filter((one) => one.stays)
  return (
    <>
      {ledger.length === staying.length && (
        <Box sx={{ color: inks.good, fontWeight: 650 }}>Nothing is open: the engine may run, the tank may go.</Box>
      )}
      {BEFORE.map((before) => {
        const items = ledger.filter((one) => one.before === before && !one.stays)
        return (
          items.length > 0 && (
            <Box key={before} component="section" aria-label={`Before ${before}`}>
              <Box component="h2" sx={{ fontSize: 16, m: 0, mb: 0.5 }}>
                Before {before}, {items.length}
              </Box>
              {items.map((item) => (
                <Item key={item.key} build={build} item={item} mayWrite={mayWrite} onStep={onStep} />
              ))}
            </Box>
          )
        )
      })}
      {staying.length > 0 && (
        <Folded title={`Stays as it is, ${staying.length}`}>
          {staying.map((item) => (
            <Item key={item.key} build={build} item={item} mayWrite={mayWrite} onStep={onStep} />
          ))}
        </Folded>
      )}
      {mayWrite && <LeaveOpen build={build} />}
    </>
  )
}

function Item({ build, item, mayWrite, onStep }: Props & { item: OpenItem }) {
  const { inks } = useTheme()
  const { say } = useUnits()
  const [asking, setAsking] = useState<'close' | 'stay' | null>(null)
  const byHand = item.key.startsWith('left ')
  const close = (reason: string, stays: boolean) =>
    void record(build, { kind: 'closed', subject: item.key, reason, stays })
  return (
    <Box data-open={item.key} sx={{ borderTop: `1px solid ${inks.line}`, display: 'flex', alignItems: 'stretch' }}>
      <WayTo build={build} item={item} onStep={onStep}>
        <Box sx={{ fontSize: 13, color: item.stays ? 'text.secondary' : inks.stop, fontWeight: 650 }}>
          {item.why}
          {item.by && `, ${item.by}`}
        </Box>
        {say(item.what)}
        {item.stays && <Box sx={{ fontSize: 14, color: 'text.secondary' }}>Stays: {item.stays}</Box>}
      </WayTo>
      {mayWrite && !item.stays && (
        <Button sx={{ flexShrink: 0 }} onClick={() => setAsking(byHand ? 'close' : 'stay')}>
          {byHand ? 'Closed' : 'Let it stay'}
        </Button>
      )}
      {asking === 'close' && (
        <ReasonDialog
          title="Closed"
          label="Record as closed"
          asks="How it was closed"
          onClose={() => setAsking(null)}
          onGiven={(reason) => close(reason, false)}
        />
      )}
      {asking === 'stay' && (
        <ReasonDialog
          title="Let it stay as it is"
          warning="It no longer holds back fuel, engine or hand-over. Your name and the reason stand on the customer’s papers."
          label="I answer for it"
          onClose={() => setAsking(null)}
          onGiven={(reason) => close(reason, true)}
        />
      )}
    </Box>
  )
}

const ROW = {
  flex: 1,
  minHeight: 56,
  py: 0.75,
  display: 'block',
  textAlign: 'left',
  font: 'inherit',
  color: 'text.primary',
} as const

/** To the station, or the step here, where it is closed: one press. */
function WayTo({
  build,
  item,
  onStep,
  children,
}: {
  build: Build
  item: OpenItem
  onStep: () => void
  children: ReactNode
}) {
  const { station, subject } = item
  const joint = build.joints.find((one) => one.id === subject)
  const step = joint ? VISIT : subject
  const where = station === 'handover' ? undefined : (stationOf(station)?.title ?? station)
  if (where)
    return (
      <ButtonBase sx={ROW} component={Link} to={`/designs/${build.design_id}/${station}`} onClick={() => leadTo(item)}>
        {children}
        <Box sx={{ fontSize: 13, color: 'primary.main', fontWeight: 650 }}>At {where} ›</Box>
      </ButtonBase>
    )
  if (!build.state.operations.some((one) => one.operation.id === step)) return <Box sx={ROW}>{children}</Box>
  return (
    <ButtonBase
      sx={ROW}
      onClick={() => {
        chooseStep(step)
        if (joint) chooseJoint(joint.id)
        onStep()
      }}
    >
      {children}
      <Box sx={{ fontSize: 13, color: 'primary.main', fontWeight: 650 }}>To the step ›</Box>
    </ButtonBase>
  )
}

/** What is at hand once the other station shows. */
function leadTo({ station, subject }: OpenItem) {
  const { lines, wiring } = useWork.getState().design
  const has = (list: readonly { id: string }[]) => list.some((one) => one.id === subject)
  if (station === 'ports') select({ kind: 'port', id: subject })
  if (station === 'lines' && has(lines.parts)) select({ kind: 'line part', id: subject })
  if (station === 'lines' && has(lines.runs)) select({ kind: 'run', id: subject })
  if (station === 'wiring' && has(wiring.wires)) select({ kind: 'wire', id: subject })
  if (station === 'wiring' && has(wiring.devices)) select({ kind: 'device', id: subject })
  if (station === 'mount') select({ kind: 'mount', id: subject.split('.')[0] ?? subject })
}

/** Something that somebody leaves for later. */
function LeaveOpen({ build }: { build: Build }) {
  const [what, setWhat] = useState('')
  const [why, setWhy] = useState<(typeof WHY)[number]>('temporary')
  const [before, setBefore] = useState<OpenItem['before']>('hand-over')
  return (
    <Folded title="Write down something open">
      <TextField label="What" value={what} onChange={(event) => setWhat(event.target.value.slice(0, MOST))} />
      <Choice label="It is" value={why} options={WHY.map((value) => ({ value, label: value }))} onChange={setWhy} />
      <Choice
        label="To be closed before"
        value={before}
        options={BEFORE.map((value) => ({ value, label: value }))}
        onChange={setBefore}
      />
      <Button
        variant="outlined"
        disabled={!what.trim()}
        onClick={() => {
          void record(build, { kind: 'left open', what: what.trim(), why, before })
          setWhat('')
        }}
      >
        Add to the open items
      </Button>
    </Folded>
  )
}
