import { useWork } from '../../work/store'
import { shownLater, type Station } from '../station'
import { useRun } from './slosh'

export const slosh: Station = {
  name: 'slosh',
  title: 'Slosh',
  about: 'where it starves',
  Panel: shownLater(() => import('./SloshStation'), 'SloshStation'),
  board: {
    Shown: shownLater(() => import('./SloshBoard'), 'SloshBoard'),
    first: true,
    useIsThere: () => useWork((work) => Boolean(work.evaluation?.shell?.geometry)),
  },
  // A run settles it when nothing runs dry.
  useMark: () => useRun((state) => (!state.run ? 'untouched' : state.run.spells.length ? 'in work' : 'settled')),
}
