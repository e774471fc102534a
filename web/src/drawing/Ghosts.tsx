import { useTheme } from '@mui/material/styles'
import type { Block, Shape } from '../api/model'
import { AXES } from '../api/model'
import type { Placed } from './layout'
import { boxRect, ringPath, viewOf } from './shapes'

/** Somewhere the shell was, or might be. */
export function GhostOutline({ view, shape, tone }: { view: Placed; shape: Shape; tone: 'pin' | 'trial' }) {
  const { inks } = useTheme()
  const outside = viewOf(shape, view)
  if (!outside) return null
  return (
    <path
      d={ringPath(view, outside.silhouette)}
      fillRule="evenodd"
      fill={tone === 'trial' ? inks.handFill : 'none'}
      fillOpacity={0.15}
      stroke={tone === 'pin' ? inks.quiet : inks.hand}
      strokeWidth={1.6}
      strokeDasharray={tone === 'pin' ? '2 4' : '9 4'}
      pointerEvents="none"
      data-ghost={tone}
    />
  )
}

/** What a trial adds or moves: features and ports that are not where they are now. */
export function GhostParts({ view, now, then }: { view: Placed; now: Shape; then: Shape }) {
  const { inks } = useTheme()
  const same = (a: Block | undefined, b: Block) =>
    a !== undefined &&
    AXES.every((axis) => Math.abs(a.low[axis] - b.low[axis]) < 0.05 && Math.abs(a.high[axis] - b.high[axis]) < 0.05)
  const features = then.features.filter(
    (feature) => !same(now.features.find((item) => item.id === feature.id)?.block, feature.block),
  )
  const ports = then.ports.filter((port) => {
    const old = now.ports.find((item) => item.id === port.id)
    return !old || AXES.some((axis) => Math.abs(old.place[axis] - port.place[axis]) > 0.05)
  })
  const text = {
    fontSize: 11,
    fontWeight: 650,
    fill: inks.hand,
    stroke: inks.sheet,
    strokeWidth: 3,
    paintOrder: 'stroke' as const,
  }
  return (
    <g pointerEvents="none">
      {features.map((feature) => {
        const rect = boxRect(view, feature.block)
        return (
          <g key={feature.id} data-ghost-feature={feature.id}>
            <rect
              {...rect}
              fill={inks.handFill}
              fillOpacity={0.35}
              stroke={inks.hand}
              strokeWidth={1.6}
              strokeDasharray="9 4"
            />
            <text
              data-label={4}
              data-at={`${rect.x + rect.width / 2} ${rect.y + rect.height / 2}`}
              x={rect.x + 4}
              y={rect.y + rect.height - 5}
              {...text}
            >
              {feature.name}
            </text>
          </g>
        )
      })}
      {ports.map((port) => (
        <circle
          key={port.id}
          cx={view.toX(port.place[view.across])}
          cy={view.toY(port.place[view.up])}
          r={8}
          fill="none"
          stroke={inks.hand}
          strokeWidth={2}
          strokeDasharray="4 2"
          data-ghost-port={port.id}
        />
      ))}
    </g>
  )
}
