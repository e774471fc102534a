import { useTheme } from '@mui/material/styles'
import type { ReactNode } from 'react'
import type { Evaluation } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { portName } from './names'
import { STRIP_HEIGHT as HEIGHT, StripFrame } from './StripFrame'

type Shown = NonNullable<Evaluation['lines']>
type Hose = NonNullable<Shown['hoses']>['cut'][number]

const MARGIN = { left: 24, right: 24, top: 78 }
const HOSE_PX = 18
const END_PX = 12
const MOST_END = 0.12

/** A hose before it is fitted, to scale: its ends, its cut length, where it is clamped and goes through sheet. */
export function HoseStrip({ hose, lines }: { hose: Hose; lines: Shown }) {
  return (
    <StripFrame label={`${hose.name}, how it is cut`}>
      {(width) => <Drawn hose={hose} lines={lines} width={width} />}
    </StripFrame>
  )
}

function Drawn({ hose, lines, width }: { hose: Hose; lines: Shown; width: number }) {
  const { inks } = useTheme()
  const units = useUnits()
  const [first, last] = [hose.ends[0]?.takes_mm ?? 0, hose.ends[1]?.takes_mm ?? 0]
  const far = Math.max(hose.cut_mm + first + last, 1)
  const room = width - MARGIN.left - MARGIN.right
  const px = (mm: number) => Math.min((mm / far) * room, MOST_END * room)
  const [from, to] = [MARGIN.left + px(first), width - MARGIN.right - px(last)]
  const along = lines.routes?.find((one) => one.id === hose.id)?.length_mm ?? 1
  const at = (mm: number) => MARGIN.left + (mm / along) * room
  const middle = MARGIN.top + HOSE_PX / 2
  const title =
    hose.cut_mm > 0
      ? `${hose.name}: cut ${units.lengthUnitText(hose.cut_mm)} of ${hose.stock || hose.hose}`
      : `${hose.name}: its ends are longer than its way, no hose fits`
  const clamps = (lines.clamps ?? []).filter((one) => one.run === hose.id)
  const holes = (lines.crossings ?? []).filter((one) => one.id === hose.id)
  return (
    <svg width={width} height={HEIGHT} role="img" aria-label={title} data-hose-cut={hose.cut_mm.toFixed(1)}>
      <text x={MARGIN.left} y={18} fontSize={12} fill={inks.quiet}>
        {title}
      </text>
      <rect
        x={from}
        y={MARGIN.top}
        width={Math.max(1, to - from)}
        height={HOSE_PX}
        fill={inks.fuelFill}
        stroke={inks.fuelText}
      />
      <HoseEnd hose={hose} place={0} x={MARGIN.left} inner={from} />
      <HoseEnd hose={hose} place={1} x={width - MARGIN.right} inner={to} />
      <text x={(from + to) / 2} y={middle + 4} textAnchor="middle" fontSize={12} fontWeight={650} fill={inks.ink}>
        {hose.cut_mm > 0 ? units.lengthUnitText(hose.cut_mm) : ''}
      </text>
      {clamps.map((one) => (
        <Tick key={one.along_mm} x={at(one.along_mm)} text={units.lengthUnitText(one.along_mm)}>
          <path
            d={`M${at(one.along_mm) - 5} ${MARGIN.top - 8}l5 -5l5 5l-5 5z`}
            fill={one.fixed_to ? inks.ink : inks.sheet}
            stroke={one.fixed_to ? inks.ink : inks.caution}
          />
        </Tick>
      ))}
      {holes.map((one) => (
        <Tick
          key={`${one.panel}-${one.along_mm}`}
          x={at(one.along_mm)}
          row={1}
          text={`${one.way ?? 'no hole'}, ${units.lengthUnitText(one.along_mm)}`}
        >
          <path
            d={`M${at(one.along_mm)} ${MARGIN.top - 14}v${HOSE_PX + 28}`}
            stroke={one.way ? inks.hand : inks.stop}
            strokeWidth={2}
          />
        </Tick>
      ))}
      <text x={MARGIN.left} y={HEIGHT - 30} fontSize={12} fill={inks.quiet}>
        {`Way ${units.lengthUnitText(hose.route_mm)} and 3 % slack, less what the ends take. Bends to ${units.lengthUnitText(hose.radius_mm)}, least ${units.lengthUnitText(hose.least_radius_mm)}.`}
      </text>
      <text x={MARGIN.left} y={HEIGHT - 12} fontSize={12} fill={inks.quiet}>
        {hose.clocking_deg === null
          ? 'Diamonds: clamps, measured from the start along the way.'
          : `Diamonds: clamps. Last elbow ${hose.clocking_deg.toFixed(0).replace('-', '−')}° from the first, looking along the hose, clockwise.`}
      </text>
    </svg>
  )
}

function HoseEnd({ hose, place, x, inner }: { hose: Hose; place: 0 | 1; x: number; inner: number }) {
  const { inks } = useTheme()
  const units = useUnits()
  const end = hose.ends[place]
  if (!end) return null
  const elbow = !end.is_known
    ? 'not known'
    : end.clamped
      ? 'clamped'
      : end.elbow_deg
        ? `${end.elbow_deg.toFixed(0)}° elbow`
        : 'straight'
  return (
    <>
      <rect
        x={Math.min(x, inner)}
        y={MARGIN.top + (HOSE_PX - END_PX) / 2}
        width={Math.abs(inner - x)}
        height={END_PX}
        fill={inks.metalFill}
        stroke={inks.metal}
      />
      <text x={x} y={MARGIN.top - 38} textAnchor={place ? 'end' : 'start'} fontSize={12} fill={inks.ink}>
        {`${place ? 'End' : 'Start'}, ${portName(end.port)}: ${elbow}`}
      </text>
      <text x={x} y={MARGIN.top - 24} textAnchor={place ? 'end' : 'start'} fontSize={11} fill={inks.quiet}>
        {end.is_known ? `takes ${units.lengthUnitText(end.takes_mm)}` : 'type its connection at Ports, or at its part'}
      </text>
    </>
  )
}

function Tick({ x, text, row = 0, children }: { x: number; text: string; row?: number; children: ReactNode }) {
  const { inks } = useTheme()
  return (
    <g>
      {children}
      <text x={x} y={MARGIN.top + HOSE_PX + 20 + row * 16} textAnchor="middle" fontSize={11} fill={inks.ink}>
        {text}
      </text>
    </g>
  )
}
