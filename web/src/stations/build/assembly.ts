import type { Build, Operation, OperationState } from '../../api/model'

/** How far a part is: nothing done, cut and still flat, bent as it is to be, in its place. */
export type Stage = 'planned' | 'flat' | 'made' | 'in place'

const JOINS = new Set(['join', 'tack', 'weld', 'close'])
const SHAPES = new Set(['bend', 'roll', 'send'])

/** Done operations in the order in which they were done. */
export const history = (build: Build): OperationState[] =>
  build.state.operations
    .filter((one) => one.standing === 'done' && one.when)
    .sort((a, b) => Date.parse(a.when ?? '') - Date.parse(b.when ?? ''))

/** What is looked at and cleaned is all of it: nothing of it is lit. */
const LOOKS = new Set(['clean', 'look', 'prepare', 'dress', 'deburr'])

/** Whether an operation is done on a piece. */
export const isOn = (operation: Operation, { part, piece }: { part: string; piece: string }) =>
  operation.parts.includes(part) && (operation.pieces.length === 0 || operation.pieces.includes(piece))

/** Whether a piece is lit while an operation is at hand. */
export const isLit = (operation: Operation, piece: { part: string; piece: string }) =>
  !LOOKS.has(operation.kind) && isOn(operation, piece)

/** How far each piece is once these operations are done. */
export function stageOf(
  piece: { part: string; piece: string },
  all: readonly OperationState[],
  done: readonly OperationState[],
): Stage {
  const mine = done.filter((one) => isOn(one.operation, piece))
  if (mine.some((one) => JOINS.has(one.operation.kind))) return 'in place'
  if (!mine.some((one) => one.operation.kind !== 'prepare')) return 'planned'
  const open = (one: OperationState) => !done.includes(one)
  return all.some((one) => open(one) && SHAPES.has(one.operation.kind) && isOn(one.operation, piece)) ? 'flat' : 'made'
}
