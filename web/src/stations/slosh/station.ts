import { useWork } from '../../work/store'
import { shownLater, type Station } from '../station'
import { useRun } from './slosh'

export const slosh: Station = {
  name: 'slosh',
  title: 'Slosh',
  about: 'when fuel runs short',
  group: 'design',
  Panel: shownLater(() => import('./SloshStation'), 'SloshStation'),
  board: {
    Shown: shownLater(() => import('./SloshBoard'), 'SloshBoard'),
    first: true,
    useIsThere: () => useWork((work) => Boolean(work.evaluation?.shell?.geometry)),
  },
  // It is ready when nothing runs dry.
  useMark: () =>
    useRun((state) => (!state.run ? 'not judged yet' : state.run.spells.length ? 'needs attention' : 'ready')),
}
