import { shownLater, type Station } from '../station'

export const shell: Station = {
  name: 'shell',
  title: 'Shell',
  about: 'shape and capacity',
  group: 'design',
  Panel: shownLater(() => import('./ShellStation'), 'ShellStation'),
  asks: ['bay.fit', 'inside.next_plate'],
  drawing: {
    Layer: shownLater(() => import('./ShellLayer'), 'ShellLayer'),
    gaps: true,
    remainders: true,
    unnamedPorts: true,
  },
}
