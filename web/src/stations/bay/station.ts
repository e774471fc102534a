import { shownLater, type Station } from '../station'

export const bay: Station = {
  name: 'bay',
  title: 'Bay',
  about: 'the measured space',
  group: 'design',
  Panel: shownLater(() => import('./BayStation'), 'BayStation'),
  asks: ['bay'],
  drawing: {
    Layer: shownLater(() => import('./BayLayer'), 'BayLayer'),
    bayAtHand: true,
    gaps: true,
    unnamedPorts: true,
  },
}
