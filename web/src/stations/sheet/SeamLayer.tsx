import { useTheme } from '@mui/material/styles'
import { type KeyboardEvent, type PointerEvent, useState } from 'react'
import * as declared from '../../api/declared'
import { useUnits } from '../../units/useUnits'
import { endDrag, startDrag } from '../../work/store'
import type { LayerProps } from '../station'
import { setScheme } from './edits'
import { HALF, nearest, onPage, type Seam, type SeamFace, within } from './seam'
import { Label } from '../../drawing/Label'

const GRIP = 22

const NAMES: Record<string, string> = { lid: 'lid', side: 'side', floor: 'floor', 'corner butt': 'corner of the lid' }

/** The closing seam on the view that looks along the wrapper: it is dragged along lid, sides and floor, or to the corner. */
export function SeamLayer({ view, design, evaluation, onEdit }: LayerProps) {
  const { inks } = useTheme()
  const units = useUnits()
  const [held, setHeld] = useState(false)
  const places = evaluation?.sheet?.seam
  const shell = design.shell
  if (!places?.at || !shell || shell.kind === 'cylinder') return null
  if (view.up !== 'z' || view.across === shell.wrap_axis) return null
  const faces = places.faces as SeamFace[]
  const seam = design.sheet?.seam ?? declared.SheetScheme.defaults.seam
  const share = design.sheet?.seam_share ?? HALF
  const at = onPage(view, places.at)
  const put = (next: Seam) => (next.seam !== seam || next.seam_share !== share) && setScheme(next)
  const down = (event: PointerEvent<SVGGElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId)
    startDrag()
    setHeld(true)
  }
  const move = (event: PointerEvent<SVGGElement>) => {
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect()
    if (held && box) put(nearest(view, faces, [event.clientX - box.left, event.clientY - box.top], !event.altKey))
  }
  const stop = (keep: boolean) => () => {
    if (held) endDrag(keep)
    setHeld(false)
  }
  const key = (event: KeyboardEvent) => {
    const here = faces.find((face) => face.seam === seam)
    const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: 'next', PageDown: 'next' }[event.key]
    if (!way || !here) return
    event.preventDefault()
    if (way === 'next') {
      const to = (faces.indexOf(here) + (event.key === 'PageUp' ? 1 : faces.length - 1)) % faces.length
      put({ seam: faces[to]?.seam ?? seam, seam_share: HALF })
      return
    }
    const long = Math.hypot(here.high.x - here.low.x, here.high.y - here.low.y, here.high.z - here.low.z) || 1
    const step = (Number(way) * units.nudge * (event.shiftKey ? 10 : 1)) / long
    put({ seam, seam_share: within(share + step) })
  }
  const words = `Closing seam: ${NAMES[seam] ?? seam}${seam in NAMES && share !== HALF ? `, ${Math.round(share * 100)} %` : ''}`
  return (
    <g>
      {held &&
        faces.map((face) => {
          const [a, b] = [onPage(view, face.low), onPage(view, face.high)]
          return (
            <line
              key={face.seam}
              x1={a[0]}
              y1={a[1]}
              x2={b[0]}
              y2={b[1]}
              stroke={inks.hand}
              strokeWidth={3}
              opacity={0.4}
            />
          )
        })}
      <g
        role="button"
        tabIndex={onEdit ? 0 : -1}
        aria-label={`${words}. Arrow keys move it along, Page up and Page down to another face.`}
        data-seam={seam}
        style={{ cursor: onEdit ? 'move' : 'default', touchAction: 'none' }}
        {...(onEdit
          ? {
              onPointerDown: down,
              onPointerMove: move,
              onPointerUp: stop(true),
              onPointerCancel: stop(false),
              onKeyDown: key,
            }
          : {})}
      >
        <rect x={at[0] - GRIP} y={at[1] - GRIP} width={2 * GRIP} height={2 * GRIP} fill="transparent" />
        <path
          d={`M${at[0] - 7} ${at[1] - 7}l14 14m0 -14l-14 14`}
          stroke={inks.hand}
          strokeWidth={3}
          strokeLinecap="round"
        />
        <Label rank={3} of={[at[0], at[1]]} x={at[0] + 12} y={at[1] - 12} fontSize={12} colour={inks.hand}>
          closing seam
        </Label>
      </g>
    </g>
  )
}
