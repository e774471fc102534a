import type { Axis } from '../../api/model'
import type { Snap } from '../../drawing/snaps'
import { boxOf } from '../../drawing/keepOuts'
import { useWork } from '../../work/store'

type Place = Record<Axis, number>

/**
 * Where a corner of a run, by its id, likes to go along an axis: in line with its neighbours and with connections, so that straights
 * are square; and so far off panels, rails and the tank that it runs along them without rubbing.
 */
export function cornerSnaps(run: string, way: readonly Place[], place: number, axis: Axis, offMm: number): Snap[] {
  const { design, evaluation } = useWork.getState()
  const others = way.filter((_, n) => n !== place).map((one) => ({ at: one[axis], why: 'in line' }))
  const joined = evaluation?.lines?.places?.connections ?? []
  const ends = joined.filter((one) => one.joined !== run).map((one) => ({ at: one.at[axis], why: 'in line' }))
  const tank = evaluation?.shell?.geometry?.overall
  const solids = [
    ...(evaluation?.mount?.vehicle?.parts ?? []).filter((part) => part.kind !== 'person'),
    ...(design.bay?.keep_outs ?? []).map((one) => boxOf(one)).filter((box) => box !== null),
    ...(tank ? [tank] : []),
  ]
  const along = solids.flatMap(({ low, high }) => [
    { at: low[axis] - offMm, why: 'along it' },
    { at: high[axis] + offMm, why: 'along it' },
  ])
  const panels = (evaluation?.mount?.vehicle?.parts ?? []).filter((part) => part.kind === 'panel')
  const holes = panels.flatMap((part) =>
    part.holes.map(({ low, high }) => ({ at: (low[axis] + high[axis]) / 2, why: 'through the hole' })),
  )
  return [...others, ...ends, ...holes, ...along]
}
