import { useQuery } from '@tanstack/react-query'
import { always, shownLater, type Station } from '../station'
import { calibrationsQuery } from './bench'

export const bench: Station = {
  name: 'bench',
  title: 'Bench',
  about: 'measured by pouring',
  group: 'make',
  Panel: shownLater(() => import('./BenchStation'), 'BenchStation'),
  board: {
    Shown: shownLater(() => import('./BenchBoard'), 'BenchBoard'),
    first: true,
    useIsThere: always,
  },
  // The bench judges nothing: it is ready when its last calibration was kept.
  useMark: (designId) => {
    const last = useQuery(calibrationsQuery(designId)).data?.[0]
    return !last ? 'not judged yet' : last.closed ? 'ready' : 'needs attention'
  },
}
