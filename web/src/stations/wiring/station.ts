import { always, shownLater, type Station } from '../station'
import { reachOf } from './reach'

export const wiring: Station = {
  name: 'wiring',
  title: 'Wiring',
  about: 'current to the pumps, what stops them, signals and bonds',
  group: 'fit',
  Panel: shownLater(() => import('./WiringStation'), 'WiringStation'),
  asks: ['wiring', 'lines.routes', 'lines.places', 'mount.vehicle'],
  board: {
    Shown: shownLater(() => import('./WiringBoard'), 'WiringBoard'),
    name: 'diagram and tables',
    first: false,
    useIsThere: always,
  },
  drawing: {
    Layer: shownLater(() => import('./WiringLayer'), 'WiringLayer'),
    unnamedPorts: true,
    reach: reachOf,
  },
}
