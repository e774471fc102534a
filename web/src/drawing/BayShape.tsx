import { useTheme } from '@mui/material/styles'
import type { Bay, Gap } from '../api/model'
import { SIZE } from '../api/model'
import type { Placed } from './layout'
import { keepOutRect } from './shapes'

const EDGE = 7

/** The bay with its hatched edge, the line that keeps its sides' clearance, and the keep-outs with theirs. */
export function BayShape({ view, bay, gaps, strong }: { view: Placed; bay: Bay; gaps: Gap[]; strong: boolean }) {
  const { inks } = useTheme()
  const x = view.toX(0)
  const width = bay[SIZE[view.across]] * view.scale
  const height = bay[SIZE[view.up]] * view.scale
  const y = view.toY(0) - height
  const needed = (key: string) => (gaps.find((gap) => gap.key === key)?.needed_mm ?? 0) * view.scale
  const [low, high] = view.across === 'x' ? ['rear', 'front'] : ['right', 'left']
  const [below, above] = view.up === 'z' ? ['floor', 'roof'] : ['right', 'left']
  const outer = `M${x - EDGE} ${y - EDGE}h${width + 2 * EDGE}v${height + 2 * EDGE}h${-width - 2 * EDGE}z M${x} ${y}v${height}h${width}v${-height}z`
  return (
    <g pointerEvents="none">
      <path d={outer} fill="url(#hatch-edge)" opacity={strong ? 0.9 : 0.45} />
      <rect x={x} y={y} width={width} height={height} fill="none" stroke={inks.block} strokeWidth={strong ? 2 : 1.2} />
      {gaps.length > 0 && (
        <rect
          x={x + needed(low ?? '')}
          y={y + needed(above ?? '')}
          width={Math.max(0, width - needed(low ?? '') - needed(high ?? ''))}
          height={Math.max(0, height - needed(below ?? '') - needed(above ?? ''))}
          fill="none"
          stroke={inks.block}
          strokeWidth={0.9}
          strokeDasharray="5 4"
        />
      )}
      {(bay.keep_outs ?? []).map((k) => (
        <KeepOutShape key={k.id} view={view} keepOut={k} needed={gaps.find((gap) => gap.key === k.id)?.needed_mm ?? 0} strong={strong} />
      ))}
    </g>
  )
}

function KeepOutShape({ view, keepOut, needed, strong }: { view: Placed; keepOut: NonNullable<Bay['keep_outs']>[number]; needed: number; strong: boolean }) {
  const { inks } = useTheme()
  const rect = keepOutRect(view, keepOut)
  const fits = rect.width > keepOut.name.length * 6 && rect.height > 16
  return (
    <g>
      {needed > 0 && <rect {...keepOutRect(view, keepOut, needed)} fill="none" stroke={inks.block} strokeWidth={0.9} strokeDasharray="5 4" rx={needed * view.scale} />}
      <rect {...rect} fill="url(#hatch-block)" stroke={inks.block} strokeWidth={strong ? 1.8 : 1} opacity={0.92} />
      {fits && (
        <text x={rect.x + rect.width / 2} y={rect.y + rect.height / 2 + 4} textAnchor="middle" fontSize={12} fontWeight={600} fill={inks.ink} stroke={inks.blockFill} strokeWidth={4} paintOrder="stroke">
          {keepOut.name}
        </text>
      )}
    </g>
  )
}
