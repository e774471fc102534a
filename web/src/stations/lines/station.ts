import { always, shownLater, type Station } from '../station'
import { reachOf } from './reach'

export const lines: Station = {
  name: 'lines',
  title: 'Lines',
  about: 'the path from pickup to engine and back',
  group: 'fit',
  Panel: shownLater(() => import('./LinesStation'), 'LinesStation'),
  asks: ['lines', 'mount.vehicle'],
  board: {
    Shown: shownLater(() => import('./LinesBoard'), 'LinesBoard'),
    name: 'the tables',
    first: false,
    useIsThere: always,
  },
  drawing: {
    Layer: shownLater(() => import('./LinesLayer'), 'LinesLayer'),
    Foot: shownLater(() => import('./LinesFoot'), 'LinesFoot'),
    unnamedPorts: true,
    reach: reachOf,
  },
}
