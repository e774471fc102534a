import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useLayoutEffect, useRef, useState } from 'react'
import type { FlatPart } from '../api/model'
import { useUnits } from '../units/useUnits'

const PAD = { left: 104, right: 60, top: 62, bottom: 62 }
const LABEL_ROOM = 56
const LINE_ROOM = 15
const SAME_MM = 0.05

/** The flat parts, inside face up, each dimensioned from its lower left datum corner; all at one scale. */
export function FlatDrawing({ parts }: { parts: FlatPart[] }) {
  const { inks } = useTheme()
  const box = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(0)
  const [height, setHeight] = useState(0)
  useLayoutEffect(() => {
    const element = box.current
    if (!element) return
    const watch = new ResizeObserver(([entry]) => {
      setWidth(entry?.contentRect.width ?? 0)
      setHeight(entry?.contentRect.height ?? 0)
    })
    watch.observe(element)
    return () => watch.disconnect()
  }, [])
  const across = Math.max(...parts.map((part) => part.length_mm), 1)
  const down = parts.reduce((sum, part) => sum + part.width_mm, 0)
  const scale = Math.max(0.02, Math.min((width - PAD.left - PAD.right) / across, (height - parts.length * (PAD.top + PAD.bottom)) / down))
  const tops = parts.map((_, place) => parts.slice(0, place).reduce((sum, before) => sum + before.width_mm * scale + PAD.top + PAD.bottom, PAD.top))
  return (
    <Box ref={box} component="section" aria-label="Flat parts" sx={{ flex: 1, minWidth: 0, minHeight: 0, background: inks.sheet, overflow: 'hidden' }}>
      {width > 0 && (
        <svg width={width} height={height} role="group" aria-label="Flat parts with bend lines">
          {parts.map((part, place) => (
            <Part key={part.name} part={part} scale={scale} x={PAD.left} y={(tops[place] ?? 0) + part.width_mm * scale} />
          ))}
        </svg>
      )}
    </Box>
  )
}

function Part({ part, scale, x, y }: { part: FlatPart; scale: number; x: number; y: number }) {
  const { inks } = useTheme()
  const units = useUnits()
  const px = (mm: number) => x + mm * scale
  const py = (mm: number) => y - mm * scale
  const outline = part.outline.map(([u, v]) => `${px(u as number)},${py(v as number)}`).join(' ')
  const uprights = part.bends.filter((bend) => bend.start[0] === bend.end[0])
  const levels = part.bends.filter((bend) => bend.start[0] !== bend.end[0])
  return (
    <g data-part={part.name}>
      <text x={x} y={py(part.width_mm) - 32} fontSize={15} fontWeight={650} fill={inks.ink}>
        {part.title} <tspan fontWeight={450}>× {part.quantity}, flat {units.length(part.length_mm)} × {units.length(part.width_mm)} {units.inches ? '' : 'mm'}</tspan>
      </text>
      <text x={x} y={py(part.width_mm) - 13} fontSize={13} fill={inks.quiet}>
        {part.note}
      </text>
      <polygon points={outline} fill={inks.metalFill} stroke={inks.metal} strokeWidth={1.8} />
      {part.marks.map((mark, place) => (
        <line key={place} x1={px(mark.start[0] as number)} y1={py(mark.start[1] as number)} x2={px(mark.end[0] as number)} y2={py(mark.end[1] as number)} stroke={inks.quiet} strokeWidth={0.8} strokeDasharray="1 3" />
      ))}
      {part.bends.map((bend) => (
        <line
          key={bend.order}
          x1={px(bend.start[0] as number)}
          y1={py(bend.start[1] as number)}
          x2={px(bend.end[0] as number)}
          y2={py(bend.end[1] as number)}
          stroke={inks.hand}
          strokeWidth={1.6}
          strokeDasharray={bend.direction === 'up' ? '12 4' : '3 4'}
        >
          <title>{`Bend ${bend.order}: ${bend.direction}, ${bend.angle_deg}°, inside radius ${units.exact(bend.radius_mm)}`}</title>
        </line>
      ))}
      {uprights.map((bend) => (
        <BendLabel key={bend.order} x={px(bend.start[0] as number)} y={(py(bend.start[1] as number) + py(bend.end[1] as number)) / 2} order={bend.order} text={`${bend.direction} ${bend.angle_deg}°`} turned />
      ))}
      {levels.map((bend) => (
        <BendLabel key={bend.order} x={(px(bend.start[0] as number) + px(bend.end[0] as number)) / 2} y={py(bend.start[1] as number)} order={bend.order} text={`${bend.direction} ${bend.angle_deg}°`} />
      ))}
      <Ordinates along={marked([...uprights.map((bend) => bend.start[0] as number), ...part.corners.map((corner) => corner[0] as number)], part.length_mm)} zero={x} px={px} at={y + 22} foot={y} />
      <Uprights along={marked([...levels.map((bend) => bend.start[1] as number), ...part.corners.map((corner) => corner[1] as number)], part.width_mm)} py={py} at={x - 14} foot={x} />
      <path d={`M${x - 5} ${y + 5}l5 -5`} stroke={inks.ink} strokeWidth={2} />
    </g>
  )
}

function BendLabel({ x, y, order, text, turned = false }: { x: number; y: number; order: number; text: string; turned?: boolean }) {
  const { inks } = useTheme()
  return (
    <g transform={turned ? `rotate(-90 ${x} ${y})` : undefined}>
      <circle cx={x - 26} cy={y} r={9} fill={inks.hand} />
      <text x={x - 26} y={y + 4} textAnchor="middle" fontSize={12} fontWeight={700} fill={inks.sheet}>
        {order}
      </text>
      <text x={x - 12} y={y + 4} fontSize={12} fontWeight={600} fill={inks.hand} stroke={inks.metalFill} strokeWidth={4} paintOrder="stroke">
        {text}
      </text>
    </g>
  )
}

/** Distances to dimension, each once, in order, up to the far edge. */
function marked(all: number[], far: number): number[] {
  const inside = all.filter((mm) => mm > SAME_MM && mm < far - SAME_MM).sort((a, b) => a - b)
  return [...inside.filter((mm, place) => place === 0 || mm - (inside[place - 1] as number) > SAME_MM), far]
}

/** Room for labels side by side: each gives way to the one before it. */
function spread(wanted: number[], room: number): number[] {
  const given: number[] = []
  for (const at of wanted) given.push(Math.max(at, (given.at(-1) ?? -Infinity) + room))
  return given
}

/** Distances from the datum edge, each with a tick of its own. */
function Ordinates({ along, zero, px, at, foot }: { along: number[]; zero: number; px: (mm: number) => number; at: number; foot: number }) {
  const { inks } = useTheme()
  const units = useUnits()
  const all = [0, ...along]
  const labels = spread(all.map(px), LABEL_ROOM)
  return (
    <g>
      <line x1={zero} x2={px(Math.max(...along))} y1={at - 10} y2={at - 10} stroke={inks.quiet} strokeWidth={0.8} />
      {all.map((mm, place) => (
        <g key={mm}>
          <polyline points={`${px(mm)},${foot + 3} ${px(mm)},${at - 6} ${labels[place]},${at + 2}`} fill="none" stroke={inks.quiet} strokeWidth={0.8} />
          <text x={labels[place]} y={at + 15} fontSize={12} fontWeight={600} textAnchor="middle" fill={inks.ink}>
            <title>{units.exact(mm)}</title>
            {units.length(mm)}
          </text>
        </g>
      ))}
    </g>
  )
}

function Uprights({ along, py, at, foot }: { along: number[]; py: (mm: number) => number; at: number; foot: number }) {
  const { inks } = useTheme()
  const units = useUnits()
  const labels = spread(along.map((mm) => -py(mm)), LINE_ROOM).map((up) => -up)
  return (
    <g>
      {along.map((mm, place) => (
        <g key={mm}>
          <polyline points={`${foot - 3},${py(mm)} ${at},${py(mm)} ${at - 8},${labels[place]}`} fill="none" stroke={inks.quiet} strokeWidth={0.8} />
          <text x={at - 12} y={(labels[place] ?? 0) + 4} fontSize={12} fontWeight={600} textAnchor="end" fill={inks.ink}>
            <title>{units.exact(mm)}</title>
            {units.length(mm)}
          </text>
        </g>
      ))}
    </g>
  )
}
