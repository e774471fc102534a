import { useWork } from '../../work/store'
import { shownLater, type Station } from '../station'

export const ports: Station = {
  name: 'ports',
  title: 'Ports',
  about: 'in, out and air',
  group: 'design',
  Panel: shownLater(() => import('./PortsStation'), 'PortsStation'),
  asks: ['ports'],
  drawing: { portsAtHand: true, remainders: true },
  board: {
    Shown: shownLater(() => import('./PortsBoard'), 'PortsBoard'),
    name: 'the figures',
    first: false,
    useIsThere: () => useWork((work) => Boolean(work.evaluation?.shell?.geometry)),
  },
}
