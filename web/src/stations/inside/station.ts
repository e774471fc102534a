import { shownLater, type Station } from '../station'

export const inside: Station = {
  name: 'inside',
  title: 'Inside',
  about: 'baffles, foam, bladder',
  group: 'design',
  Panel: shownLater(() => import('./InsideStation'), 'InsideStation'),
  asks: ['inside'],
  drawing: { Layer: shownLater(() => import('./InsideLayer'), 'InsideLayer') },
}
