import { useQuery } from '@tanstack/react-query'
import { isLast } from '../../floor/build'
import { buildQuery } from '../../floor/query'
import { reachOf } from '../lines/reach'
import { shownLater, type Station } from '../station'

export const handover: Station = {
  name: 'handover',
  title: 'Hand-over',
  about: 'what is open, lines proved, first fill, papers',
  group: 'fit',
  Panel: shownLater(() => import('./HandoverStation'), 'HandoverStation'),
  asks: ['lines.routes', 'lines.places', 'mount.vehicle'],
  drawing: {
    Layer: shownLater(() => import('./HandoverLayer'), 'HandoverLayer'),
    reach: reachOf,
  },
  // Ready once it is handed over; blocked while something open holds the step at hand.
  useMark: (designId) => {
    const state = useQuery({ ...buildQuery(designId), refetchInterval: false }).data?.state
    const steps = state?.operations.filter((one) => isLast(one.operation)) ?? []
    if (!steps.some((one) => one.standing !== 'open')) return 'not judged yet'
    if (steps.every((one) => one.standing === 'done' || one.standing === 'skipped')) return 'ready'
    return steps.some((one) => one.operation.id === state?.next) ? 'needs attention' : 'blocked'
  },
}
