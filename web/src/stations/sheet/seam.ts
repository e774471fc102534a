// Where a hand puts the closing seam.
import type { Schemas } from '../../api/client'
import * as declared from '../../api/declared'
import type { SheetScheme } from '../../api/model'
import type { Placed } from '../../drawing/layout'

export type SeamFace = Schemas['SeamFace']
export type Seam = Pick<SheetScheme, 'seam' | 'seam_share'>
type Point = Schemas['Point']

export const HALF = 0.5
/** So near the middle of a face the seam goes there [px]. */
const SNAP_PX = 9
const [LEAST, MOST] = declared.SheetScheme.limits.seam_share

export const onPage = (view: Placed, point: Point): [number, number] => [
  view.toX(point[view.across]),
  view.toY(point[view.up]),
]
export const within = (share: number) => Math.min(Math.max(share, LEAST), MOST)

/** Where a seam goes that is held at a place of the page: to the nearest face, to its middle or a whole percent. */
export function nearest(view: Placed, faces: SeamFace[], spot: [number, number], snaps: boolean): Seam {
  let [best, off] = [{ seam: 'lid', seam_share: HALF } as Seam, Infinity]
  for (const face of faces) {
    const [a, b] = [onPage(view, face.low), onPage(view, face.high)]
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]]
    const long = Math.hypot(dx, dy)
    const along = long ? ((spot[0] - a[0]) * dx + (spot[1] - a[1]) * dy) / long ** 2 : 0
    const share = Math.min(Math.max(along, 0), 1)
    // A corner has to be meant: it wins only where the hand is nearly on it.
    const away = Math.hypot(spot[0] - a[0] - share * dx, spot[1] - a[1] - share * dy) + (long ? 0 : -SNAP_PX)
    if (away >= off) continue
    const middle = snaps && Math.abs(share - HALF) * long < SNAP_PX
    off = away
    best = {
      seam: face.seam,
      seam_share: !long || middle ? HALF : within(snaps ? Math.round(share * 100) / 100 : share),
    }
  }
  return best
}
