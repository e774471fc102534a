import type { Feature } from '../../api/model'
import { changeFeature } from '../../drawing/edits'
import { Toggle } from '../../fields/fields'

/** Of a feature with flat sides: whether these are bent up from its base, or plates that are welded on. */
export function BentFromOneSheet({ feature, readOnly }: { feature: Feature; readOnly: boolean }) {
  if (!('folded' in feature) || ('form' in feature && feature.form !== 'box')) return null
  return (
    <Toggle
      label="Sides bent from one sheet"
      checked={feature.folded}
      disabled={readOnly}
      onChange={(folded) => changeFeature(feature.id, { folded })}
    />
  )
}
