import { always, shownLater, type Station } from '../station'

export const brief: Station = {
  name: 'brief',
  title: 'Brief',
  about: 'fuel and target',
  group: 'design',
  Panel: shownLater(() => import('./BriefStation'), 'BriefStation'),
  asks: ['brief'],
  board: {
    Shown: shownLater(() => import('./DemandBoard'), 'DemandBoard'),
    name: 'the demand',
    first: true,
    useIsThere: always,
  },
}
