import { useWork } from '../../work/store'
import { shownLater, type Station } from '../station'

export const sheet: Station = {
  name: 'sheet',
  title: 'Sheet',
  about: 'flat parts',
  group: 'make',
  Panel: shownLater(() => import('./SheetStation'), 'SheetStation'),
  asks: ['sheet'],
  drawing: { Layer: shownLater(() => import('./SeamLayer'), 'SeamLayer') },
  board: {
    Shown: shownLater(() => import('./FlatBoard'), 'FlatBoard'),
    name: 'the flat parts',
    first: true,
    useIsThere: () => useWork((work) => Boolean(work.evaluation?.sheet?.unfolded?.parts.length)),
  },
}
