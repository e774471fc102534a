import { useTheme } from '@mui/material/styles'
import { useUnits } from '../../units/useUnits'
import { useWork } from '../../work/store'
import type { Study, StudyRow } from './study'

const MOST_WIDE = 620
const MOST_TALL = 320

/** Over the plan, how long the pickup runs dry wherever it could stand; with plates varied too, of the favoured inside. */
export function PlaceMap({ study }: { study: Study }) {
  const { inks } = useTheme()
  const units = useUnits()
  const body = useWork((work) => work.evaluation?.shell?.geometry?.body)
  const design = useWork((work) => work.design)
  const best = study.rows.find((row) => row.number === study.favoured)
  const rows = study.rows.filter((row) => row.choice.x_mm !== undefined && sameInside(row, best))
  if (!body || !rows.length || !study.ask?.places) return null
  const [long, deep] = [body.high.x - body.low.x, body.high.y - body.low.y]
  const scale = Math.min(MOST_WIDE / long, MOST_TALL / deep)
  const across_px = long * scale
  const [along, across] = [study.ask.places.along ?? 8, study.ask.places.across ?? 5]
  const places = (axis: 'x_mm' | 'y_mm') => [...new Set(rows.map((row) => row.choice[axis] ?? 0))].sort((a, b) => a - b)
  const step = (at: number[], count: number, size: number) =>
    (at.length > 1 ? ((at.at(-1) ?? 0) - (at[0] ?? 0)) / (at.length - 1) : size / count) * scale
  const [wide, high] = [step(places('x_mm'), along, long), step(places('y_mm'), across, deep)]
  const most = Math.max(0.01, ...rows.map((row) => row.dry_s))
  const pickup = design.ports.find((port) => port.role === 'pickup')
  const tall = deep * scale
  return (
    <figure style={{ margin: '12px 0' }}>
      <svg
        viewBox={`-2 -20 ${MOST_WIDE + 4} ${tall + 42}`}
        width="100%"
        style={{ maxWidth: 720, display: 'block' }}
        role="img"
        aria-label="Dry seconds by place of the pickup, in plan"
      >
        <clipPath id="place-map">
          <rect width={across_px} height={tall} />
        </clipPath>
        <g clipPath="url(#place-map)">
          {rows.map((row) => {
            const [x, y] = [(row.choice.x_mm ?? 0) * scale, tall - (row.choice.y_mm ?? 0) * scale]
            const share = row.dry_s / most
            return (
              <g key={row.number} data-place={row.number}>
                <rect
                  x={x - wide / 2 + 1}
                  y={y - high / 2 + 1}
                  width={wide - 2}
                  height={high - 2}
                  rx={3}
                  fill={row.problem ? 'none' : row === best ? inks.handFill : inks.fuelFill}
                  fillOpacity={row === best ? 1 : 0.12 + 0.75 * share}
                  stroke={row === best ? inks.hand : inks.line}
                  strokeWidth={row === best ? 2.5 : 1}
                  strokeDasharray={row.problem ? '3 3' : undefined}
                >
                  <title>{`${units.lengthUnitText(row.choice.x_mm ?? 0)} from the rear, ${units.lengthUnitText(row.choice.y_mm ?? 0)} from the right: ${row.problem ? units.inText(row.problem) : `dry for ${units.number(row.dry_s, 2)} s`}`}</title>
                </rect>
                {!row.problem && (
                  <text
                    x={x}
                    y={y + 4}
                    textAnchor="middle"
                    fontSize={11}
                    fontWeight={row === best ? 700 : 500}
                    fill={inks.ink}
                    pointerEvents="none"
                  >
                    {units.number(row.dry_s, row.dry_s < 9.95 ? 1 : 0)}
                  </text>
                )}
              </g>
            )
          })}
        </g>
        <rect width={across_px} height={tall} fill="none" stroke={inks.metal} strokeWidth={1.6} />
        {pickup && (
          <g fill="none" stroke={inks.ink} strokeWidth={2} aria-hidden="true">
            <circle
              cx={pickup.x_mm * scale}
              cy={tall - pickup.y_mm * scale}
              r={11}
              stroke={inks.sheet}
              strokeWidth={4}
            />
            <circle cx={pickup.x_mm * scale} cy={tall - pickup.y_mm * scale} r={11} />
          </g>
        )}
        <text x={across_px} y={-6} textAnchor="end" fontSize={11} fill={inks.quiet}>
          forward →
        </text>
        <text x={0} y={tall + 16} fontSize={11} fill={inks.quiet}>
          Seconds dry with the pickup there; ringed is where it is drawn, framed is the favoured place, dashed can’t be.
        </text>
      </svg>
    </figure>
  )
}

/** Whether two tries differ in the pickup's place only. */
function sameInside(row: StudyRow, other: StudyRow | undefined) {
  return Object.entries(row.choice).every(
    ([name, value]) => name === 'x_mm' || name === 'y_mm' || value === other?.choice[name],
  )
}
