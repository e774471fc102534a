import { useTheme } from '@mui/material/styles'
import type { Panel, PanelEdge } from '../../api/model'

interface Props {
  panel: Panel
  /** The longest it may be drawn, in pixels. */
  reach: number
  /** With it each edge is a button that says what it meets and how it is held. */
  onEdge?: (edge: PanelEdge) => void
}

const TICK = 6

/** A panel to scale, each edge as it is held: hatched where it can't turn, on rollers where it can. */
export function PanelFigure({ panel, reach, onEdge }: Props) {
  const { inks } = useTheme()
  const margin = onEdge ? 60 : 8
  const scale = reach / Math.max(panel.first_mm, panel.second_mm)
  const [wide, tall] = [Math.max(panel.first_mm * scale, 14), Math.max(panel.second_mm * scale, 14)]
  const size = { width: wide + 2 * margin, height: tall + 2 * (onEdge ? 34 : margin) }
  const top = (size.height - tall) / 2
  return (
    <svg
      {...size}
      viewBox={`0 0 ${size.width} ${size.height}`}
      style={{ maxWidth: '100%', flex: 'none' }}
      aria-hidden={onEdge ? undefined : true}
      aria-label={onEdge ? `${panel.name}, its edges` : undefined}
      role={onEdge ? 'group' : undefined}
    >
      {panel.round ? (
        <>
          <circle
            cx={size.width / 2}
            cy={size.height / 2}
            r={wide / 2}
            fill={inks.metalFill}
            stroke={inks.metal}
            strokeWidth={1.5}
          />
          {panel.edges[0] && (
            <RoundEdge edge={panel.edges[0]} x={size.width / 2} y={size.height / 2} radius={wide / 2} onEdge={onEdge} />
          )}
        </>
      ) : (
        <>
          <rect
            x={margin}
            y={top}
            width={wide}
            height={tall}
            fill={inks.metalFill}
            stroke={inks.metal}
            strokeWidth={1.5}
          />
          {panel.edges.map((edge, n) => (
            <Edge key={n} edge={edge} side={n} left={margin} top={top} wide={wide} tall={tall} onEdge={onEdge} />
          ))}
        </>
      )}
    </svg>
  )
}

interface EdgeProps {
  edge: PanelEdge
  /** 0 and 1 are the ends of the first side (left, right), 2 and 3 those of the second (foot, top). */
  side: number
  left: number
  top: number
  wide: number
  tall: number
  onEdge?: (edge: PanelEdge) => void
}

function Edge({ edge, side, left, top, wide, tall, onEdge }: EdgeProps) {
  const upright = side < 2
  const outward = side === 0 || side === 3 ? -1 : 1
  const [x, y] = [side === 1 ? left + wide : left, side === 2 ? top + tall : top]
  const long = upright ? tall : wide
  const place = upright ? `translate(${x} ${y}) rotate(90)` : `translate(${x} ${y})`
  // Turned by a quarter, what lies outward of an upright edge lies the other way.
  const out = upright ? -outward : outward
  const label = upright
    ? { x: x + outward * 12, y: top + tall / 2, anchor: outward < 0 ? 'end' : 'start' }
    : { x: left + wide / 2, y: y + outward * 20 + 4, anchor: 'middle' }
  return (
    <Pressable
      edge={edge}
      onEdge={onEdge}
      box={
        upright
          ? { x: x + (outward < 0 ? -58 : -6), y: top, width: 64, height: tall }
          : { x: left, y: y + (outward < 0 ? -32 : -6), width: wide, height: 38 }
      }
    >
      <g transform={place}>
        <Held edge={edge} long={long} out={out} />
      </g>
      {onEdge && <Label {...label} text={edge.beside} held={edge} />}
    </Pressable>
  )
}

function RoundEdge({
  edge,
  x,
  y,
  radius,
  onEdge,
}: {
  edge: PanelEdge
  x: number
  y: number
  radius: number
  onEdge?: (edge: PanelEdge) => void
}) {
  const count = Math.max(8, Math.round((2 * Math.PI * radius) / 10))
  return (
    <Pressable
      edge={edge}
      onEdge={onEdge}
      box={{ x: x - radius - 10, y: y - radius - 10, width: 2 * radius + 20, height: 2 * radius + 20 }}
    >
      {Array.from({ length: count }, (_, n) => (
        <g key={n} transform={`translate(${x} ${y}) rotate(${(360 * n) / count}) translate(0 ${radius})`}>
          <Held edge={edge} long={1} out={1} />
        </g>
      ))}
      {onEdge && <Label x={x} y={y} anchor="middle" text={edge.beside} held={edge} />}
    </Pressable>
  )
}

/** Hatching for an edge that is clamped, rollers for one that is simply supported, along x, on the outer side. */
function Held({ edge, long, out }: { edge: PanelEdge; long: number; out: number }) {
  const { inks } = useTheme()
  const clamped = edge.held === 'clamped'
  const count = Math.max(1, Math.floor(long / (clamped ? 5 : 12)))
  return Array.from({ length: count }, (_, n) => {
    const at = ((n + 0.5) * long) / count
    return clamped ? (
      <line key={n} x1={at} y1={0} x2={at + 3} y2={out * TICK} stroke={inks.metal} strokeWidth={1.2} />
    ) : (
      <circle key={n} cx={at} cy={out * 3.5} r={2.5} fill="none" stroke={inks.metal} strokeWidth={1.2} />
    )
  })
}

function Label({ x, y, anchor, text, held }: { x: number; y: number; anchor: string; text: string; held: PanelEdge }) {
  const { inks } = useTheme()
  return (
    <text
      x={x}
      y={y}
      textAnchor={anchor as 'middle'}
      fontSize={11.5}
      fill={held.joint === 'as typed' ? inks.hand : inks.ink}
      fontWeight={held.joint === 'as typed' ? 700 : 400}
    >
      {text}
    </text>
  )
}

/** What can be pressed to turn an edge from clamped to simply supported and back. */
function Pressable({
  edge,
  onEdge,
  box,
  children,
}: {
  edge: PanelEdge
  onEdge?: (edge: PanelEdge) => void
  box: { x: number; y: number; width: number; height: number }
  children: React.ReactNode
}) {
  if (!onEdge) return <g>{children}</g>
  const press = () => onEdge(edge)
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`${edge.beside}: ${edge.held}, ${edge.joint}`}
      style={{ cursor: 'pointer' }}
      onClick={press}
      onKeyDown={(event) => {
        if (event.key === 'Enter' || event.key === ' ') {
          event.preventDefault()
          press()
        }
      }}
    >
      <title>{`${edge.held}: ${edge.joint}. Press to change.`}</title>
      <rect {...box} fill="transparent" />
      {children}
    </g>
  )
}
