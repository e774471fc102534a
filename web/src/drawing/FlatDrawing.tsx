import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { useLayoutEffect, useRef, useState } from 'react'
import type { FlatPart } from '../api/model'
import { useUnits } from '../units/useUnits'
import { ASIDE, LEAST_ROOM, LINE_ROOM, Ordinates, Uprights } from './FlatFigures'
import { useLabels } from './labels'
import { fitted, inRows, LETTER, marked, middleOf, PEEK, SAME_MM, withRoom, wrapped } from './flats'

/** A bend shorter than this has its number only [px]. */
const LABEL_LONG = 96
const LABEL_HALF = 30
/** So many figures have room up the side of the lowest part, over and under it. */
const MOST_UP = 4
/** An angle without a zero after it. */
const degrees = (angle: number) => `${Number(angle.toFixed(1))}°`

/** The flat parts, inside face up, each dimensioned from its lower left datum corner; those of the shell at one scale, those inside at another. */
export function FlatDrawing({ parts }: { parts: FlatPart[] }) {
  const { inks } = useTheme()
  const box = useRef<HTMLDivElement>(null)
  const svg = useRef<SVGSVGElement>(null)
  const leaders = useRef<SVGPathElement>(null)
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
  useLabels(svg, leaders, width > 0)
  const shell = parts.filter((part) => !part.feature)
  const inside = parts.filter((part) => part.feature)
  // What stands inside has a scale of its own under the shell: it would be too small beside a wrapper.
  const forShell = shell.length === 0 ? 0 : inside.length ? height - PEEK : height
  const scales = [fitted(shell, width, forShell), fitted(inside, width, height)] as const
  const above = inRows(shell, width, scales[0])
  const below = inRows(inside, width, scales[1])
  const start = inside.length ? Math.max(above.height, forShell) : above.height
  const tall = start + below.height
  return (
    <Box
      ref={box}
      component="section"
      aria-label="Flat parts"
      tabIndex={tall > height ? 0 : undefined}
      sx={{
        flex: 1,
        minWidth: 0,
        minHeight: 0,
        background: inks.sheet,
        overflow: tall > height + 1 ? 'auto' : 'hidden',
      }}
    >
      {width > 0 && (
        <svg
          ref={svg}
          width={width}
          height={Math.max(height, tall) - 1}
          role="group"
          aria-label="Flat parts with bend lines"
          style={{ display: 'block' }}
        >
          {above.laid.map(({ part, x, y, wide }) => (
            <Part key={part.name} part={part} scale={scales[0]} x={x} y={y} wide={wide} />
          ))}
          {below.laid.map(({ part, x, y, wide }) => (
            <Part key={part.name} part={part} scale={scales[1]} x={x} y={start + y} wide={wide} />
          ))}
          <path ref={leaders} fill="none" stroke={inks.quiet} strokeWidth={0.8} />
        </svg>
      )}
    </Box>
  )
}

type Bend = FlatPart['bends'][number]
const lengthOf = (bend: Bend) =>
  Math.hypot((bend.end[0] as number) - (bend.start[0] as number), (bend.end[1] as number) - (bend.start[1] as number))

function Part({ part, scale, x, y, wide }: { part: FlatPart; scale: number; x: number; y: number; wide: number }) {
  const { inks } = useTheme()
  const units = useUnits()
  const px = (mm: number) => x + mm * scale
  const py = (mm: number) => y - mm * scale
  const rings = [part.outline, ...part.holes].map(
    (ring) => `M${ring.map(([u, v]) => `${px(u as number)},${py(v as number)}`).join('L')}z`,
  )
  const bores = part.bores ?? []
  const circles = bores.map(({ middle: [u, v], diameter_mm }) => {
    const r = (diameter_mm / 2) * scale
    return `M${px(u as number) - r} ${py(v as number)}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0z`
  })
  const path = [...rings, ...circles].join('')
  const ports = bores.filter((bore) => !bore.bolt)
  const isUpright = (bend: Bend) => Math.abs((bend.start[0] as number) - (bend.end[0] as number)) < SAME_MM
  const isLevel = (bend: Bend) => Math.abs((bend.start[1] as number) - (bend.end[1] as number)) < SAME_MM
  const uprights = part.bends.filter(isUpright)
  const levels = part.bends.filter(isLevel)
  const middles = part.holes.map(middleOf)
  const letters = Math.floor((wide - 20) / LETTER)
  const lacking = part.holes_not_drawn ?? []
  const warning = lacking.length ? wrapped(`Don’t cut yet: holes not drawn for ${lacking.join(', ')}`, letters) : []
  const grain = part.grain === 'width' ? 'Grain up and down.' : 'Grain left to right.'
  const note = [...wrapped(`${units.say(part.note)} ${grain}`, letters), ...warning]
  return (
    <g data-part={part.name}>
      <text x={x} y={py(part.width_mm) - 20 - 15 * note.length} fontSize={15} fontWeight={650} fill={inks.ink}>
        {part.title}{' '}
        <tspan fontWeight={450}>
          × {part.quantity}, flat {units.length(part.length_mm)} × {units.length(part.width_mm)}{' '}
          {units.inches ? '' : 'mm'}
        </tspan>
      </text>
      {note.map((line, place) => (
        <text
          key={line}
          x={x}
          y={py(part.width_mm) - 13 - 15 * (note.length - 1 - place)}
          fontSize={13}
          fontWeight={warning.includes(line) ? 650 : 400}
          fill={warning.includes(line) ? inks.stop : inks.quiet}
        >
          {line}
        </text>
      ))}
      <path d={path} fillRule="evenodd" fill={inks.metalFill} stroke={inks.metal} strokeWidth={1.8} />
      {part.marks.map((mark, place) => (
        <line
          key={place}
          x1={px(mark.start[0] as number)}
          y1={py(mark.start[1] as number)}
          x2={px(mark.end[0] as number)}
          y2={py(mark.end[1] as number)}
          stroke={inks.quiet}
          strokeWidth={0.8}
          strokeDasharray="1 3"
        />
      ))}
      {part.bends.map((bend, place) => (
        <line
          key={place}
          x1={px(bend.start[0] as number)}
          y1={py(bend.start[1] as number)}
          x2={px(bend.end[0] as number)}
          y2={py(bend.end[1] as number)}
          stroke={inks.hand}
          strokeWidth={1.6}
          strokeDasharray={bend.direction === 'up' ? '12 4' : '3 4'}
        >
          <title>{`Bend ${bend.order}: ${bend.direction}, ${degrees(bend.angle_deg)}, inside radius ${units.exact(bend.radius_mm)}`}</title>
        </line>
      ))}
      {part.bends.map((bend, place) => (
        <BendLabel
          key={place}
          x={(px(bend.start[0] as number) + px(bend.end[0] as number)) / 2}
          y={(py(bend.start[1] as number) + py(bend.end[1] as number)) / 2}
          order={bend.order}
          text={lengthOf(bend) * scale < LABEL_LONG ? '' : `${bend.direction} ${degrees(bend.angle_deg)}`}
          turned={isUpright(bend)}
        />
      ))}
      {[...middles, ...ports.map((bore) => bore.middle as [number, number])].map(([u, v]) => (
        <path
          key={`${u} ${v}`}
          d={`M${px(u) - 4} ${py(v)}h8M${px(u)} ${py(v) - 4}v8`}
          stroke={inks.quiet}
          strokeWidth={0.8}
        />
      ))}
      {ports.map((bore) => {
        const [u, v] = [px(bore.middle[0] as number), py(bore.middle[1] as number)]
        const letters = `${bore.name} ⌀ ${units.length(bore.diameter_mm)}`
        return (
          <text
            key={bore.port}
            data-label={2}
            data-at={`${u} ${v}`}
            x={u + (bore.diameter_mm / 2) * scale + 4}
            y={v - 4}
            fontSize={12}
            fontWeight={600}
            fill={inks.ink}
            stroke={inks.metalFill}
            strokeWidth={4}
            paintOrder="stroke"
          >
            {letters}
          </text>
        )
      })}
      <Ordinates
        along={withRoom(
          marked(
            uprights.map((bend) => bend.start[0] as number),
            part.length_mm,
          ),
          marked([...middles.map(([u]) => u), ...part.corners.map((corner) => corner[0] as number)], part.length_mm),
          px,
          LEAST_ROOM,
          // The datum's own zero takes the first place.
          Math.floor((wide - LABEL_HALF + ASIDE) / LEAST_ROOM) - 1,
        )}
        zero={x}
        px={px}
        at={y + 22}
        foot={y}
        end={x + wide - LABEL_HALF}
      />
      <Uprights
        along={withRoom(
          marked(
            levels.map((bend) => bend.start[1] as number),
            part.width_mm,
          ),
          marked([...middles.map(([, v]) => v), ...part.corners.map((corner) => corner[1] as number)], part.width_mm),
          py,
          LINE_ROOM,
          Math.max(MOST_UP, Math.floor((part.width_mm * scale) / LINE_ROOM)),
        )}
        py={py}
        at={x - 14}
        foot={x}
      />
      <path d={`M${x - 5} ${y + 5}l5 -5`} stroke={inks.ink} strokeWidth={2} />
    </g>
  )
}

function BendLabel({
  x,
  y,
  order,
  text,
  turned = false,
}: {
  x: number
  y: number
  order: number
  text: string
  turned?: boolean
}) {
  const { inks } = useTheme()
  return (
    <g transform={turned ? `rotate(-90 ${x} ${y})` : undefined}>
      <circle cx={text ? x - 26 : x} cy={y} r={9} fill={inks.hand} data-mark="" />
      <text x={text ? x - 26 : x} y={y + 4} textAnchor="middle" fontSize={12} fontWeight={700} fill={inks.sheet}>
        {order}
      </text>
      <text
        x={x - 12}
        y={y + 4}
        fontSize={12}
        fontWeight={600}
        fill={inks.hand}
        stroke={inks.metalFill}
        strokeWidth={4}
        paintOrder="stroke"
      >
        {text}
      </text>
    </g>
  )
}
