import { always, shownLater, type Station } from '../station'

export const buying: Station = {
  name: 'buying',
  title: 'Buying',
  about: 'everything that is needed on the day',
  group: 'fit',
  Panel: shownLater(() => import('./BuyingStation'), 'BuyingStation'),
  asks: ['buying'],
  board: {
    Shown: shownLater(() => import('./BuyingBoard'), 'BuyingBoard'),
    first: true,
    useIsThere: always,
  },
}
