import { markup } from './markup'
import { View } from '../src/drawing/TankDrawing'
import { boundsOf, layOut } from '../src/drawing/layout'
import { register, stationOf } from '../src/stations/registry'
import { always, type LayerProps, shownLater, type Station } from '../src/stations/station'
import { AtStation } from '../src/work/AtStation'
import { Stations } from '../src/work/Stations'

const PAINT: Station = {
  name: 'paint',
  title: 'Paint',
  about: 'how many coats',
  group: 'make',
  Panel: shownLater(() => Promise.resolve({ Panel: ({ findings }) => <p>how many coats{findings}</p> }), 'Panel'),
  board: {
    Shown: shownLater(() => Promise.resolve({ Board: () => <table /> }), 'Board'),
    name: 'the coats',
    first: true,
    useIsThere: always,
  },
  asks: ['paint'],
  drawing: {
    Layer: shownLater(
      () => Promise.resolve({ Layer: ({ view }: LayerProps) => <circle data-paint={view.id} /> }),
      'Layer',
    ),
  },
}

/** What a station that is registered for a moment brings to rail, page and drawing, and what is left of it after. */
export async function shown() {
  const none = { name: '', title: '' }
  const takeOut = register(PAINT)
  const bay = { length_mm: 900, width_mm: 500, height_mm: 400, keep_outs: [] }
  const bounds = boundsOf({ bay, mount: { straps: [], feet: [], stops: [] } } as never, [])
  const views = bounds ? layOut(bounds, 900, 600).views : []
  const there = {
    found: (stationOf('paint') ?? none).title,
    rail: await markup(<Stations designId={7} at="paint" />),
    page: await markup(
      <AtStation
        station={PAINT}
        designId={7}
        turned={undefined}
        onTurn={() => undefined}
        findings={<b>Two coats</b>}
      />,
    ),
    drawing: await markup(
      <svg>
        {views.map((view) => (
          <View key={view.id} view={view} station={PAINT} onEdit={undefined} />
        ))}
      </svg>,
    ),
  }
  takeOut()
  return { ...there, after: await markup(<Stations designId={7} at="shell" />), gone: stationOf('paint') === undefined }
}
