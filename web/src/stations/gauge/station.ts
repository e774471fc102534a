import { useWork } from '../../work/store'
import { shownLater, type Station } from '../station'

export const gauge: Station = {
  name: 'gauge',
  title: 'Gauge',
  about: 'senders and needle',
  group: 'design',
  Panel: shownLater(() => import('./GaugeStation'), 'GaugeStation'),
  asks: ['gauge'],
  drawing: { Layer: shownLater(() => import('./GaugeLayer'), 'GaugeLayer'), unnamedPorts: true },
  board: {
    Shown: shownLater(() => import('./GaugeBoard'), 'GaugeBoard'),
    name: 'the needle',
    first: false,
    useIsThere: () => useWork((work) => Boolean(work.evaluation?.gauge?.truth?.readings.length)),
  },
}
