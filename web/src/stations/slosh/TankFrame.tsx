import { Box } from '@mui/material'
import { useTheme } from '@mui/material/styles'
import { lazy, Suspense, useMemo } from 'react'
import type { RunShown } from '../../api/model'
import { useUnits } from '../../units/useUnits'
import { useMoment } from './slosh'

const SolidFrame = lazy(() => import('./SolidFrame'))

type ViewName = 'plan' | 'elevation' | 'end'
const AXES: Record<ViewName, { across: 0 | 1; up: 1 | 2; cut: 0 | 1 | 2; title: string }> = {
  plan: { across: 0, up: 1, cut: 2, title: 'Plan at the inlet’s height' },
  elevation: { across: 0, up: 2, cut: 1, title: 'Elevation through the inlet' },
  end: { across: 1, up: 2, cut: 0, title: 'End view through the inlet' },
}
const FAR = 20_000

/** What of a view lies below a plane n·p = s, with the third coordinate held: a half-plane as a path. */
function halfPlane(a: number, b: number, c: number): string {
  const size = Math.hypot(a, b)
  if (size < 1e-6) return c >= 0 ? `M${-FAR} ${-FAR}H${FAR}V${FAR}H${-FAR}z` : 'M0 0z'
  const [u, v] = [(a * c) / size ** 2, (b * c) / size ** 2]
  const [p, q] = [(-b / size) * FAR, (a / size) * FAR]
  const [n, m] = [(-a / size) * FAR, (-b / size) * FAR]
  return `M${u + p} ${v + q}L${u - p} ${v - q}L${u - p + n} ${v - q + m}L${u + p + n} ${v + q + m}z`
}

const ringPath = (rings: number[][]) =>
  rings
    .map(
      (ring) => `M${Array.from({ length: ring.length / 2 }, (_, i) => `${ring[2 * i]} ${ring[2 * i + 1]}`).join('L')}z`,
    )
    .join('')

function extent(run: RunShown, view: ViewName) {
  const all = run.walls[view].flat()
  const us = all.filter((_, i) => i % 2 === 0)
  const vs = all.filter((_, i) => i % 2 === 1)
  return all.length
    ? { low: [Math.min(...us), Math.min(...vs)] as const, high: [Math.max(...us), Math.max(...vs)] as const }
    : null
}

/** The tank as it is at the moment shown: what is wet in each compartment, and whether the inlet is. */
export function TankFrame({ run }: { run: RunShown }) {
  const at = useMoment()
  return (
    <Box
      sx={{ display: 'grid', gridTemplateColumns: '1.35fr 1fr 0.85fr', gap: 1.5, maxWidth: 900 }}
      aria-label="The tank at the moment shown"
      role="group"
    >
      <Frame run={run} view="elevation" at={at} />
      <Frame run={run} view="end" at={at} />
      <Pushes run={run} at={at} />
      <Frame run={run} view="plan" at={at} />
      <Box sx={{ gridColumn: 'span 2' }}>
        <Suspense fallback={<span />}>
          <SolidFrame run={run} />
        </Suspense>
      </Box>
    </Box>
  )
}

function Frame({ run, view, at }: { run: RunShown; view: ViewName; at: number }) {
  const { inks } = useTheme()
  const units = useUnits()
  const box = useMemo(() => extent(run, view), [run, view])
  const paths = useMemo(() => run.rooms.map((room) => ringPath(room.cut[view])), [run, view])
  const walls = useMemo(() => ringPath(run.walls[view]), [run, view])
  const { across, up, cut, title } = AXES[view]
  if (!box) return <Box sx={{ color: 'text.secondary', fontSize: 13 }}>{title}: nothing is cut there</Box>
  const pad = Math.max(box.high[0] - box.low[0], box.high[1] - box.low[1]) * 0.05 + 12
  const [wide, tall] = [box.high[0] - box.low[0] + 2 * pad, box.high[1] - box.low[1] + 2 * pad]
  const held = [run.cut_x_mm, run.cut_y_mm, run.cut_z_mm][cut]
  const line = wide / 320
  const planes = run.planes[at] ?? []
  return (
    <figure style={{ margin: 0, minWidth: 0 }}>
      <figcaption style={{ fontSize: 12, color: inks.quiet }}>
        {title}, at {units.lengthUnitText(held ?? 0)}
      </figcaption>
      <svg
        viewBox={`${box.low[0] - pad} ${-box.high[1] - pad} ${wide} ${tall}`}
        width="100%"
        style={{ display: 'block', maxHeight: 150 }}
        role="img"
        aria-label={title}
        data-frame={view}
      >
        <g transform="scale(1 -1)">
          {paths.map((path, i) => {
            const plane = planes[i]
            const wet =
              plane && (run.held_l[at]?.[i] ?? 0) > 0
                ? halfPlane(plane[across] ?? 0, plane[up] ?? 0, (plane[3] ?? 0) - (plane[cut] ?? 0) * (held ?? 0))
                : 'M0 0z'
            return (
              <g key={i}>
                <clipPath id={`wet-${view}-${i}`}>
                  <path d={wet} />
                </clipPath>
                <path d={path} fill={inks.sheet} fillRule="evenodd" />
                <path d={path} fill={inks.fuelFill} fillRule="evenodd" clipPath={`url(#wet-${view}-${i})`} />
                <g clipPath={`url(#wet-${view}-${i})`}>
                  <path
                    d={wet}
                    fill="none"
                    stroke={inks.fuel}
                    strokeWidth={2 * line}
                    clipPath={`url(#room-${view}-${i})`}
                  />
                </g>
                <clipPath id={`room-${view}-${i}`}>
                  <path d={path} clipRule="evenodd" />
                </clipPath>
              </g>
            )
          })}
          <path d={walls} fill="none" stroke={inks.metal} strokeWidth={1.6 * line} />
        </g>
        {run.inlets.map((inlet, p) => {
          const wet = (run.depths_mm[at]?.[p] ?? 0) > 0
          const place = [inlet.x, inlet.y, inlet.z]
          const [x, y] = [place[across] ?? 0, -(place[up] ?? 0)]
          return (
            <g key={inlet.name + p}>
              <circle
                cx={x}
                cy={y}
                r={5 * line}
                fill={wet ? inks.sheet : inks.stop}
                stroke={wet ? inks.ink : inks.stop}
                strokeWidth={1.6 * line}
              />
              {!wet && (
                <path
                  d={`M${x - 9 * line} ${y - 9 * line}l${18 * line} ${18 * line}m0 ${-18 * line}l${-18 * line} ${18 * line}`}
                  stroke={inks.stop}
                  strokeWidth={2.4 * line}
                />
              )}
            </g>
          )
        })}
      </svg>
    </figure>
  )
}

/** The vehicle's acceleration at the moment: a dot in rings of half a g. */
function Pushes({ run, at }: { run: RunShown; at: number }) {
  const { inks } = useTheme()
  const units = useUnits()
  const [ahead, left] = [run.forward_g[at] ?? 0, run.left_g[at] ?? 0]
  const most = Math.max(1, Math.ceil(2 * Math.max(...run.forward_g.map(Math.abs), ...run.left_g.map(Math.abs))) / 2)
  const scale = 60 / most
  const deepest = Math.max(...(run.depths_mm[at] ?? [0]))
  const text = { fontSize: 10, fill: inks.quiet, textAnchor: 'middle' as const }
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1.5, alignItems: 'center' }}>
      <svg
        viewBox="-80 -80 160 160"
        width={116}
        role="img"
        aria-label={`Acceleration ${ahead.toFixed(2)} g forward, ${left.toFixed(2)} g to the left`}
      >
        {Array.from({ length: most * 2 }, (_, n) => (
          <circle key={n} r={((n + 1) / 2) * scale} fill="none" stroke={inks.line} strokeWidth={n % 2 ? 1.4 : 0.7} />
        ))}
        <path d="M-62 0H62M0 -62V62" stroke={inks.line} />
        <text y={-68} {...text}>
          accelerating
        </text>
        <text y={76} {...text}>
          braking
        </text>
        <text x={-66} y={-4} {...text} textAnchor="start">
          left
        </text>
        <text x={66} y={-4} {...text} textAnchor="end">
          right
        </text>
        <circle cx={-left * scale} cy={-ahead * scale} r={6} fill={inks.hand} />
      </svg>
      <Box sx={{ fontVariantNumeric: 'tabular-nums' }}>
        <div>{units.number(Math.hypot(ahead, left), 2)} g</div>
        <Box sx={{ color: deepest > 0 ? 'text.primary' : inks.stop, fontWeight: 650 }} data-inlet>
          {deepest > 0 ? `pickup ${units.lengthUnitText(deepest)} under` : 'pickup uncovered'}
        </Box>
        <Box sx={{ color: 'text.secondary', fontSize: 13 }}>
          {units.volumeUnitText(
            (run.held_l[at] ?? []).reduce((sum, v) => sum + v, 0),
            1,
          )}{' '}
          in the tank
        </Box>
        {run.refill && (
          <Box sx={{ color: 'text.secondary', fontSize: 13 }}>
            {units.volumeUnitText(run.surge_l[at] ?? 0)} in the surge tank
          </Box>
        )}
      </Box>
    </Box>
  )
}
