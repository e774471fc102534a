import { useTheme } from '@mui/material/styles'
import type { Evaluation } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { STRIP_HEIGHT as HEIGHT, StripFrame } from './StripFrame'

type Tube = NonNullable<NonNullable<NonNullable<Evaluation['lines']>['tubes']>[number]>

const MARGIN = { left: 24, right: 24, top: 66 }
const TUBE_PX = 22
const LABEL_PX = 64

/** A tube before it is bent, to scale: where each bend begins, how far it is turned and bent, where it is cut. */
export function BendStrip({ tube }: { tube: Tube }) {
  return (
    <StripFrame label={`${tube.name}, how it is bent`}>{(width) => <Drawn tube={tube} width={width} />}</StripFrame>
  )
}

function Drawn({ tube, width }: { tube: Tube; width: number }) {
  const { inks } = useTheme()
  const units = useUnits()
  const far = Math.max(tube.rough_mm, 1)
  const x = (mm: number) => MARGIN.left + (mm / far) * (width - MARGIN.left - MARGIN.right)
  const middle = MARGIN.top + TUBE_PX / 2
  const degrees = (value: number) => `${value.toFixed(1)}°`.replace('-', '−')
  const made = tube.bender
    ? `on ${tube.bender}`
    : `no bender known for it, radius ${units.lengthUnitText(tube.radius_mm)}`
  const title = tube.turns_back
    ? `${tube.name}: turns back on itself, it can’t be bent`
    : `${tube.name}: cut ${units.lengthUnitText(tube.rough_mm)}, bend ${made}, trim to ${units.lengthUnitText(tube.cut_mm)}, square its ends`
  return (
    <svg width={width} height={HEIGHT} role="img" aria-label={title} data-bends={tube.bends.length}>
      <text x={MARGIN.left} y={18} fontSize={12} fill={inks.quiet}>
        {title}
      </text>
      {!tube.turns_back && (
        <>
          <rect
            x={x(0)}
            y={MARGIN.top}
            width={x(tube.cut_mm) - x(0)}
            height={TUBE_PX}
            fill={inks.metalFill}
            stroke={inks.metal}
          />
          <rect
            x={x(tube.cut_mm)}
            y={MARGIN.top}
            width={x(tube.rough_mm) - x(tube.cut_mm)}
            height={TUBE_PX}
            fill="none"
            stroke={inks.metal}
            strokeDasharray="3 3"
          />
        </>
      )}
      {tube.bends.map((bend, n) => {
        const [from, to] = [x(bend.feed_mm), x(bend.feed_mm + (tube.radius_mm * bend.angle_deg * Math.PI) / 180)]
        const before = tube.bends[n - 1]
        const low = before && n % 2 && from - x(before.feed_mm) < LABEL_PX ? 18 : 0
        return (
          <g key={n} data-bend={n}>
            <rect x={from} y={MARGIN.top} width={to - from} height={TUBE_PX} fill={inks.handFill} stroke={inks.hand} />
            <line x1={from} x2={from} y1={MARGIN.top - 8} y2={MARGIN.top + TUBE_PX + 10 + low} stroke={inks.hand} />
            <text
              x={(from + to) / 2}
              y={MARGIN.top - 26}
              textAnchor="middle"
              fontSize={13}
              fontWeight={650}
              fill={inks.ink}
            >
              {degrees(bend.set_deg)}
            </text>
            <text x={(from + to) / 2} y={MARGIN.top - 12} textAnchor="middle" fontSize={11} fill={inks.quiet}>
              {n ? `turn ${degrees(bend.rotation_deg)}` : 'first'}
            </text>
            <text x={from + 4} y={MARGIN.top + TUBE_PX + 22 + low} fontSize={12} fill={inks.ink}>
              {units.lengthUnitText(bend.feed_mm)}
            </text>
          </g>
        )
      })}
      {tube.straights_mm.map((straight, n) => {
        const before = tube.bends[n - 1]
        const from = before ? before.feed_mm + (tube.radius_mm * before.angle_deg * Math.PI) / 180 : 0
        if (x(from + straight) - x(from) < 44) return null
        return (
          <text
            key={n}
            x={x(from + straight / 2)}
            y={middle + 4}
            textAnchor="middle"
            fontSize={11}
            fill={tube.short[n] ? inks.stop : inks.ink}
          >
            {units.lengthUnitText(straight)}
          </text>
        )
      })}
      {!tube.turns_back && (
        <text x={MARGIN.left} y={HEIGHT - 30} fontSize={12} fill={inks.quiet}>
          {`Outside ${units.lengthUnitText(tube.outside_mm)}, bends to ${units.lengthUnitText(tube.radius_mm)}. Least straight ${units.lengthUnitText(tube.least_grip_mm)}.`}
        </text>
      )}
      {!tube.turns_back && (
        <text x={MARGIN.left} y={HEIGHT - 12} fontSize={12} fill={inks.quiet}>
          Where a bend begins is measured from the start. Turn right-handed, looking along the feed.
        </text>
      )}
    </svg>
  )
}
