import { shownLater, type Station } from '../station'

export const bay: Station = {
  name: 'bay',
  title: 'Bay',
  about: 'the measured space',
  Panel: shownLater(() => import('./BayStation'), 'BayStation'),
}
