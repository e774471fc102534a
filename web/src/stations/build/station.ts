import { useQuery } from '@tanstack/react-query'
import { isLast } from '../../floor/build'
import { buildQuery } from '../../floor/query'
import { always, shownLater, type Station } from '../station'

export const build: Station = {
  name: 'build',
  title: 'Build',
  about: 'order of work and gates',
  group: 'make',
  Panel: shownLater(() => import('./BuildStation'), 'BuildStation'),
  asks: ['sheet.folding'],
  board: {
    Shown: shownLater(() => import('./BuildBoard'), 'BuildBoard'),
    name: 'the build',
    first: true,
    useIsThere: always,
  },
  // Ready when every operation is settled; blocked while the next one waits at a shut gate.
  useMark: (designId) => {
    const state = useQuery({ ...buildQuery(designId), refetchInterval: false }).data?.state
    const steps = state?.operations.filter((one) => !isLast(one.operation)) ?? []
    if (!steps.some((one) => one.standing !== 'open')) return 'not judged yet'
    if (steps.every((one) => one.standing === 'done' || one.standing === 'skipped')) return 'ready'
    return state?.next === null ? 'blocked' : 'needs attention'
  },
}
