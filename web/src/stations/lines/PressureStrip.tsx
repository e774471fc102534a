import { useTheme } from '@mui/material/styles'
import type { StripPiece } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { select, useWork } from '../../work/store'
import { TANK } from './edits'
import { shadeOf } from './shades'
import { STRIP_HEIGHT as HEIGHT, StripFrame } from './StripFrame'
import { useModePlace } from './view'

const MARGIN = { left: 64, right: 16, top: 22, bottom: 34 }

/** The path straightened, from pickup to engine and back: pressure is its height. */
export function PressureStrip() {
  const pieces = useWork((work) => work.evaluation?.lines?.strip)
  const mode = useModePlace()
  const name = useWork((work) => work.evaluation?.lines?.modes?.[mode]?.name)
  if (!pieces?.length) return null
  return (
    <StripFrame label="Pressure along the path">
      {(width) => <Drawn pieces={pieces} mode={mode} width={width} title={`Pressure along the path, ${name ?? ''}`} />}
    </StripFrame>
  )
}

function Drawn({ pieces, mode, width, title }: { pieces: StripPiece[]; mode: number; width: number; title: string }) {
  const theme = useTheme()
  const { inks } = theme
  const units = useUnits()
  const at = useWork((work) => work.at)
  const far = Math.max(...pieces.map((piece) => piece.to_m), 0.1)
  const isKnown = pieces.some((piece) => typeof piece.start_kpa[mode] === 'number')
  const all = pieces.flatMap((piece) => [piece.start_kpa[mode] ?? 0, piece.end_kpa[mode] ?? 0])
  const most = Math.max(10, ...all)
  const least = Math.min(0, ...all)
  const x = (m: number) => MARGIN.left + (m / far) * (width - MARGIN.left - MARGIN.right)
  const y = (kpa: number) =>
    HEIGHT - MARGIN.bottom - ((kpa - least) / (most - least)) * (HEIGHT - MARGIN.top - MARGIN.bottom)
  const parts = namesAlong(pieces, mode, x, width)
  const run = (piece: StripPiece) => at?.kind === 'run' && piece.of === 'run' && at.id === piece.id
  const part = (piece: StripPiece) => at?.kind === 'line part' && piece.of === 'part' && at.id === piece.id
  const pick = (piece: StripPiece) =>
    piece.of !== 'port' && select({ kind: piece.of === 'run' ? 'run' : 'line part', id: piece.id })
  return (
    <svg width={width} height={HEIGHT} role="img" aria-label={title} data-strip>
      <text x={width - MARGIN.right} y={15} textAnchor="end" fontSize={12} fill={inks.quiet}>
        {isKnown ? title : `${title}: less comes than is drawn, there is no path to show`}
      </text>
      <line x1={MARGIN.left} x2={width - MARGIN.right} y1={y(0)} y2={y(0)} stroke={inks.line} />
      {[most, 0].map((kpa) => (
        <text key={kpa} x={MARGIN.left - 6} y={y(kpa) + 4} textAnchor="end" fontSize={11} fill={inks.quiet}>
          {units.pressure(kpa)}
        </text>
      ))}
      {pieces.map((piece, n) => {
        const [a, b] = [piece.start_kpa[mode], piece.end_kpa[mode]]
        if (typeof a !== 'number' || typeof b !== 'number') return null
        const flow = Math.abs(piece.flow_lph[mode] ?? 0)
        const hand = run(piece) || part(piece)
        const path = `M${x(piece.from_m)} ${y(a)}L${x(piece.to_m)} ${y(b)}`
        return (
          <g key={n} data-piece={piece.id} onPointerDown={() => pick(piece)} style={{ cursor: 'pointer' }}>
            <title>{`${piece.name}: ${units.quantity('kpa', a)} to ${units.quantity('kpa', b)}, ${units.flowText(flow)}`}</title>
            <path
              d={`${path}L${x(piece.to_m)} ${y(0)}L${x(piece.from_m)} ${y(0)}Z`}
              fill={piece.of === 'part' ? inks.metalFill : inks.fuelFill}
              fillOpacity={flow > 0.05 ? 0.5 : 0.12}
            />
            <path
              d={path}
              fill="none"
              stroke={hand ? inks.hand : piece.of === 'part' ? inks.metal : shadeOf((a + b) / 2, most, theme)}
              strokeWidth={hand ? 5 : 3}
              strokeDasharray={flow > 0.05 ? undefined : '4 4'}
              strokeLinecap="round"
            />
          </g>
        )
      })}
      {parts.map((one) => (
        <text
          key={one.id}
          x={one.x}
          y={HEIGHT - MARGIN.bottom + 13 + 12 * one.row}
          textAnchor="middle"
          fontSize={11}
          fill={inks.ink}
        >
          {one.name}
        </text>
      ))}
    </svg>
  )
}

const LETTER_PX = 6.4
const BETWEEN_PX = 8

interface Named {
  id: string
  name: string
  x: number
  row: number
}

/** Names of parts and ports under the strip, in two rows: parts first, leaving out what has no room. */
function namesAlong(pieces: StripPiece[], mode: number, x: (m: number) => number, width: number): Named[] {
  const spans = new Map<
    string,
    { id: string; name: string; part: boolean; flows: boolean; low: number; high: number }
  >()
  for (const piece of pieces) {
    if (piece.of === 'run' || piece.id === TANK) continue
    const known = spans.get(piece.id)
    spans.set(piece.id, {
      id: piece.id,
      name: piece.name,
      part: piece.of === 'part',
      flows: Boolean(known?.flows) || Math.abs(piece.flow_lph[mode] ?? 0) > 0.05,
      low: Math.min(known?.low ?? Infinity, x(piece.from_m)),
      high: Math.max(known?.high ?? -Infinity, x(piece.to_m)),
    })
  }
  const taken: { row: number; low: number; high: number }[] = []
  return [...spans.values()]
    .sort((a, b) => Number(b.part) - Number(a.part) || Number(b.flows) - Number(a.flows) || a.low - b.low)
    .flatMap((span) => {
      const half = (span.name.length * LETTER_PX) / 2
      const middle = Math.min(width - half - 4, Math.max(half + 4, (span.low + span.high) / 2))
      const free = (row: number) =>
        taken.every(
          (one) => one.row !== row || middle - half > one.high + BETWEEN_PX || middle + half < one.low - BETWEEN_PX,
        )
      const row = [0, 1].find(free)
      if (row === undefined) return []
      taken.push({ row, low: middle - half, high: middle + half })
      return [{ id: span.id, name: span.name, x: middle, row }]
    })
}
