import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import type { Build, Condition, Entry, GateState, Operation, OperationState } from '../api/model'
import { newId, useOutbox, type Waiting, write } from './outbox'
import { buildQuery } from './query'

/** How far a tank is, with what waits on this device already in it. */
export function useBuild(designId: number) {
  const queries = useQueryClient()
  const query = useQuery(buildQuery(designId))
  const waiting = useOutbox((outbox) => outbox.waiting)
  const arrived = useOutbox((outbox) => outbox.arrived)
  useEffect(() => {
    if (arrived) void queries.invalidateQueries({ queryKey: ['build', designId] })
  }, [arrived, designId, queries])
  const build = useMemo(
    () => query.data && withWaiting(query.data as Build, waiting, designId),
    [query.data, waiting, designId],
  )
  return { build, error: query.error }
}

/** The present moment, an entry's own name, its design: what every entry begins with. */
export const begun = (designId: number) => ({ id: newId(), design: designId, at: new Date().toISOString() })

type Fields = { kind: Entry['kind'] } & Record<string, unknown>

/** Write about a design of a job. */
export const record = (build: Build, fields: Fields) =>
  write(build.job_number, { ...begun(build.design_id), note: '', photos: [], ...fields } as unknown as Entry)

const STANDS: Partial<Record<Entry['kind'], OperationState['standing']>> = {
  done: 'done',
  skipped: 'skipped',
  started: 'started',
  paused: 'open',
}

/** What was written here and hasn't arrived is shown as if it had: the workshop decides once it has it. */
export function withWaiting(build: Build, waiting: Waiting[], designId: number): Build {
  const entries = waiting
    .filter((one) => one.entry?.design === designId && !one.refused)
    .map((one) => one.entry as Entry)
  if (!entries.length) return build
  const stands = new Map<string, OperationState['standing']>()
  for (const entry of entries) {
    const standing = STANDS[entry.kind]
    if (standing && 'subject' in entry && entry.subject) stands.set(entry.subject, standing)
  }
  const gates = build.state.gates.map((gate) => withLooks(gate, entries))
  const shut = new Set(gates.filter((gate) => gate.standing === 'shut').map((gate) => gate.gate.id))
  const settled = new Set(
    [...stands].filter(([, standing]) => standing === 'done' || standing === 'skipped').map(([id]) => id),
  )
  const operations = build.state.operations.map((one) => ({
    ...one,
    standing: stands.get(one.operation.id) ?? one.standing,
    waits_for: one.waits_for.filter((id) => !settled.has(id)),
    shut: one.shut.filter((id) => shut.has(id)),
  }))
  const next = operations.find((one) => isOpen(one) && !one.waits_for.length && !one.shut.length)
  return { ...build, state: { ...build.state, operations, gates, next: next?.operation.id ?? null } }
}

/** A gate with the looks and overrides that wait here; counts and readings are judged by the workshop alone. */
function withLooks(gate: GateState, entries: Entry[]): GateState {
  const conditions = gate.conditions.map((one) => {
    const seen = entries.findLast((entry) => entry.kind === 'checked' && entry.check === checkOf(one.condition))
    if (seen?.kind !== 'checked') return one
    const photo = one.condition.kind === 'looked' && one.condition.photo && !seen.photos?.length
    return seen.passed && !photo ? { ...one, lacks: null } : one
  })
  const overridden = entries.some((entry) => entry.kind === 'override' && entry.subject === gate.gate.id)
  const met = conditions.every((one) => !one.lacks)
  return { ...gate, conditions, standing: met ? 'open' : overridden ? 'overridden' : gate.standing }
}

export const checkOf = (condition: Condition) =>
  condition.kind === 'looked' || condition.kind === 'free of vapour' ? condition.check : null
/** The operation at hand: the next that can be done, or else the first that waits at its gate. */
export const atHand = (build: Build): string | null =>
  build.state.next ?? build.state.operations.find(isOpen)?.operation.id ?? null

export const isOpen = (one: OperationState) => one.standing === 'open' || one.standing === 'started'
export const isSettled = (one: OperationState) => !isOpen(one)

/** Whether a step of the work belongs to the hand-over: from first fuel on. */
export const isLast = (operation: Pick<Operation, 'kind'>) => operation.kind === 'commission'

/** A build with its last steps alone, or with all but those. */
export const withSteps = (build: Build, last: boolean): Build => ({
  ...build,
  state: { ...build.state, operations: build.state.operations.filter((one) => isLast(one.operation) === last) },
})

/** The operation that fills a cell up to a step. */
export const pourOf = (fill: { id: string }) => `commission:pour-${fill.id}`
export const VISIT = 'commission:joints'
