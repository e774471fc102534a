import { FeatureMarks } from '../../drawing/FeatureMarks'
import { OpeningMarks } from '../../drawing/OpeningMarks'
import type { LayerProps } from '../station'

const STANDING = ['baffle', 'pot'] as const

/** Baffles and pots, and the openings in them. */
export function InsideLayer({ view, design, evaluation, onEdit }: LayerProps) {
  if (!evaluation?.shell?.geometry || !design.shell || !onEdit) return null
  return (
    <g>
      <FeatureMarks view={view} design={design} evaluation={evaluation} kinds={STANDING} onEdit={onEdit} />
      <OpeningMarks view={view} design={design} evaluation={evaluation} />
    </g>
  )
}
