import { always, shownLater, type Station } from '../station'

export const mount: Station = {
  name: 'mount',
  title: 'Mount',
  about: 'straps, feet and loads',
  group: 'fit',
  Panel: shownLater(() => import('./MountStation'), 'MountStation'),
  asks: ['mount'],
  drawing: { Layer: shownLater(() => import('./MountLayer'), 'MountLayer'), unnamedPorts: true },
  board: {
    Shown: shownLater(() => import('./WayInBoard'), 'WayInBoard'),
    name: 'the way in',
    first: false,
    useIsThere: always,
  },
}
