import { Box, Button, Typography } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { lazy, type ReactNode, Suspense } from 'react'
import type { Build, Operation, OperationState, Words } from '../api/model'
import { useUnits } from '../units/useUnits'
import { record } from './build'
import { BoltRing } from './BoltRing'
import { CountField } from './fields'
import { Goods } from './Goods'
import { GateCard } from './GateCard'
import { cellOf, VAPOUR } from './proof/proof'
import { ReasonDialog, useAsking } from './ReasonDialog'
import { moment, span } from './time'

const LeakTest = lazy(() => import('./proof/LeakTest').then((module) => ({ default: module.LeakTest })))

const LastStep = lazy(() => import('./handover/LastStep').then((module) => ({ default: module.LastStep })))

interface Props {
  build: Build
  state: OperationState
  mayWrite: boolean
  /** What it is counted among; all of the work where nothing is named. */
  among?: OperationState[]
}

export const STANDING_WORDS: Record<OperationState['standing'], string> = {
  open: 'open',
  started: 'in work',
  done: 'done',
  skipped: 'skipped',
}

/** One operation, whole: what it is, what hurts, what has to lie ready, what it waits for. */
export function OperationCard({ build, state, mayWrite, among = build.state.operations }: Props) {
  const { say } = useUnits()
  const { operation } = state
  const place = among.findIndex((one) => one.operation.id === operation.id)
  const gates = build.state.gates.filter((gate) => gate.gate.before.includes(operation.id))
  const cell = cellOf(operation)
  const titles = new Map(build.state.operations.map((one) => [one.operation.id, say(one.operation.title)]))
  return (
    <Box
      data-operation={operation.id}
      data-standing={state.standing}
      sx={{ display: 'flex', flexDirection: 'column', gap: 1.5 }}
    >
      <Box sx={{ fontSize: 14, color: 'text.secondary' }}>
        {place + 1} of {among.length}, {STANDING_WORDS[state.standing]}
        {operation.minutes !== null && `, planned ${span(operation.minutes)}`}
        {state.spent_min !== null && `, taken ${span(state.spent_min)}`}
        {operation.by && `, for a ${operation.by}`}
      </Box>
      <Typography variant="h1" component="h2" sx={{ fontSize: '1.5rem', lineHeight: 1.25 }}>
        {say(operation.title)}
      </Typography>
      {state.by.length > 0 && (
        <Box sx={{ fontSize: 14, color: 'text.secondary' }}>
          {state.by.join(', ')}
          {state.when && `, ${moment(state.when)}`}
          {state.reason && `: ${state.reason}`}
        </Box>
      )}
      <Changed build={build} state={state} mayWrite={mayWrite} />
      {state.waits_for.length > 0 && (
        <Notice>
          First: {titles.get(state.waits_for[0] ?? '') ?? state.waits_for[0]}
          {state.waits_for.length > 1 && `, and ${state.waits_for.length - 1} more`}
        </Notice>
      )}
      {state.away.length > 0 && (
        <Notice>With somebody else, or back and not right: {state.away.join(', ')}. See Sent out.</Notice>
      )}
      <Lines title="Maker asks" lines={state.asks.map((text) => ({ text: text.replace(/[{}]/g, '') }))} warn />
      <Lines title="Caution" lines={operation.cautions} warn />
      <HaveReady operation={operation} />
      <Lines title="Cheap only now" lines={operation.cheap_now} />
      {operation.steps.length > 0 && (
        <Box component="ol" aria-label="Steps" sx={{ m: 0, pl: 3, '& li': { py: 0.5 } }}>
          {operation.steps.map((step, n) => (
            <li key={n}>{say(step)}</li>
          ))}
        </Box>
      )}
      {operation.tightening && (
        <BoltRing build={build} operation={operation} tightening={operation.tightening} mayWrite={mayWrite} />
      )}
      {mayWrite &&
        operation.counts.map((count) => (
          <CountField
            key={`${count.what} ${count.way}`}
            label={count.what}
            expected={count.expected}
            only={count.way}
            onRecord={(way, value) => void record(build, { kind: 'count', subject: count.what, way, value })}
          />
        ))}
      {cell !== null && (
        <Suspense fallback={null}>
          <LeakTest build={build} cell={cell} mayWrite={mayWrite} />
        </Suspense>
      )}
      {operation.kind === 'receive' && (
        <Goods build={build} mayWrite={mayWrite} of={operation.id === 'receive:lines' ? 'lines' : 'tank'} />
      )}
      <Suspense fallback={null}>
        <LastStep build={build} operation={operation} mayWrite={mayWrite} />
      </Suspense>
      {/* A leak test that begins shows that one itself. */}
      {gates
        .filter((gate) => cell === null || gate.gate.id !== VAPOUR || gate.standing !== 'shut')
        .map((gate) => (
          <GateCard key={gate.gate.id} build={build} state={gate} mayWrite={mayWrite} />
        ))}
    </Box>
  )
}

function Notice({ children }: { children: ReactNode }) {
  const { inks } = useTheme()
  return <Box sx={{ background: inks.handFill, p: 1.25 }}>{children}</Box>
}

/** What the design has changed since it was done: done again, or left as it is with a reason. */
function Changed({ build, state, mayWrite }: Props) {
  const { inks } = useTheme()
  const { asking, ask, close } = useAsking()
  if (!state.changed.length) return null
  return (
    <Box data-changed sx={{ border: `2px solid ${inks.caution}`, p: 1.25 }}>
      <b>Changed since it was done:</b> {state.changed.join(', ')}. Do it again, or accept it as it is.
      {mayWrite && (
        <Box sx={{ display: 'flex', gap: 1, mt: 1, flexWrap: 'wrap' }}>
          <Button variant="outlined" onClick={() => void record(build, { kind: 'done', subject: state.operation.id })}>
            Done again
          </Button>
          <Button variant="outlined" onClick={ask}>
            Accept with reason
          </Button>
        </Box>
      )}
      {asking && (
        <ReasonDialog
          title="Accept as it was made"
          label="Accept"
          onClose={close}
          onGiven={(reason) => void record(build, { kind: 'accepted', subject: state.operation.id, reason })}
        />
      )}
    </Box>
  )
}

function HaveReady({ operation }: { operation: Operation }) {
  const { say } = useUnits()
  const ready = [...operation.tools, ...operation.consumables.map(say)]
  if (!ready.length) return null
  return (
    <Box sx={{ fontSize: 15 }}>
      <b>Have ready:</b> {ready.join(', ')}
    </Box>
  )
}

function Lines({ title, lines, warn = false }: { title: string; lines: Words[]; warn?: boolean }) {
  const { inks } = useTheme()
  const { say } = useUnits()
  if (!lines.length) return null
  return (
    <Box sx={{ borderLeft: `4px solid ${warn ? inks.caution : inks.metal}`, pl: 1.25, fontSize: 15 }}>
      <b>{title}</b>
      {lines.map((line, n) => (
        <Box key={n}>{say(line)}</Box>
      ))}
    </Box>
  )
}
