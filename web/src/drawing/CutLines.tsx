import { useTheme } from '@mui/material/styles'
import { type KeyboardEvent, type PointerEvent, useState } from 'react'
import type { Shape } from '../api/model'
import { useUnits } from '../units/useUnits'
import { setCut } from '../work/store'
import type { Placed } from './layout'

const REACH = 26

/** In the plan: where the elevation (A) and the end view (B) are cut. Drag a line, or use the arrow keys; twice clicked it goes back to the middle. */
export function CutLines({ view, shape }: { view: Placed; shape: Shape }) {
  return (
    <g>
      <CutLine view={view} shape={shape} axis="y" name="A" />
      <CutLine view={view} shape={shape} axis="x" name="B" />
    </g>
  )
}

function CutLine({ view, shape, axis, name }: { view: Placed; shape: Shape; axis: 'x' | 'y'; name: string }) {
  const { inks } = useTheme()
  const units = useUnits()
  const [from, setFrom] = useState<{ pixel: number; at: number } | null>(null)
  const at = shape.cuts.find((cut) => cut.axis === axis)?.at_mm ?? 0
  const [low, high] = [shape.body.low[axis], shape.body.high[axis]]
  const put = (mm: number) => setCut(axis, Math.min(high, Math.max(low, Math.round(mm / units.round) * units.round)))
  const level = axis === 'y'
  const [x0, x1] = [view.toX(shape.overall.low.x) - REACH, view.toX(shape.overall.high.x) + REACH]
  const [y0, y1] = [view.toY(shape.overall.high.y) - REACH, view.toY(shape.overall.low.y) + REACH]
  const place = level ? view.toY(at) : view.toX(at)
  const line = level ? { x1: x0, x2: x1, y1: place, y2: place } : { x1: place, x2: place, y1: y0, y2: y1 }
  const tags: [number, number][] = level ? [[x1 - 9, place]] : [[place, y0 + 9]]
  const key = (event: KeyboardEvent) => {
    const way = {
      ArrowRight: level ? 0 : 1,
      ArrowLeft: level ? 0 : -1,
      ArrowUp: level ? 1 : 0,
      ArrowDown: level ? -1 : 0,
    }[event.key]
    if (!way) return
    event.preventDefault()
    put(at + way * units.nudge * (event.shiftKey ? 10 : 1))
  }
  const down = (event: PointerEvent<SVGGElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId)
    setFrom({ pixel: level ? event.clientY : event.clientX, at })
  }
  const move = (event: PointerEvent) =>
    from && put(from.at + (level ? from.pixel - event.clientY : event.clientX - from.pixel) / view.scale)
  return (
    <g>
      <line {...line} stroke={inks.quiet} strokeWidth={1} strokeDasharray="14 4 3 4" pointerEvents="none" />
      {tags.map(([x, y]) => (
        <g
          key={`${x}`}
          role="slider"
          tabIndex={0}
          aria-label={level ? 'Where the elevation is cut' : 'Where the end view is cut'}
          aria-orientation={level ? 'vertical' : 'horizontal'}
          aria-valuenow={Math.round(at)}
          aria-valuemin={Math.round(low)}
          aria-valuemax={Math.round(high)}
          aria-valuetext={units.lengthUnitText(at)}
          data-cut={axis}
          style={{ cursor: level ? 'ns-resize' : 'ew-resize', touchAction: 'none' }}
          onPointerDown={down}
          onPointerMove={move}
          onPointerUp={() => setFrom(null)}
          onPointerCancel={() => setFrom(null)}
          onDoubleClick={() => setCut(axis, null)}
          onKeyDown={key}
        >
          <rect x={x - 22} y={y - 22} width={44} height={44} fill="transparent" />
          <circle cx={x} cy={y} r={9} fill={inks.sheet} stroke={inks.quiet} strokeWidth={1.4} />
          <text x={x} y={y + 4} textAnchor="middle" fontSize={11} fontWeight={700} fill={inks.quiet}>
            {name}
          </text>
        </g>
      ))}
    </g>
  )
}
