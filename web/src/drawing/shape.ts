import type { Schemas } from '../api/client'
import type { Evaluation, Shape } from '../api/model'

const shapes = new WeakMap<Schemas['ShellResults'], Shape>()

/** What the drawing shows of an evaluation; null without a shell. The same object as long as the results are the same. */
export function shapeOf(evaluation: Evaluation | null | undefined): Shape | null {
  const results = evaluation?.shell
  if (!results?.geometry) return null
  const known = shapes.get(results)
  if (known) return known
  const shape = {
    ...results.geometry,
    cuts: results.cuts ?? [],
    features: results.features ?? [],
    ports: results.ports ?? [],
  }
  shapes.set(results, shape)
  return shape
}
