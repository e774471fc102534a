import type { Feature } from '../../api/model'
import { changeFeature } from '../../drawing/edits'
import { Toggle } from '../../fields/fields'

interface Props {
  feature: Feature
  readOnly: boolean
  compact?: boolean
}

/** Of a feature with flat sides: whether these are bent up from its base, or plates that are welded on. */
export function BentFromOneSheet({ feature, readOnly, compact = false }: Props) {
  if (!('folded' in feature) || ('form' in feature && feature.form !== 'box')) return null
  return (
    <Toggle
      label={compact ? 'Bent from one sheet' : 'Sides bent from one sheet'}
      compact={compact}
      checked={feature.folded}
      disabled={readOnly}
      onChange={(folded) => changeFeature(feature.id, { folded })}
    />
  )
}
